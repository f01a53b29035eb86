import { readStrings, type StringResource } from '../../../formats/android-resources/read.js';
import { readXml } from '../../../formats/xml/read.js';
import { folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { layersOf } from './libraries.js';
import type { FoundString } from './found-string.js';
import { resValuesOf } from './res-values.js';
import type { AndroidVariant, ModuleModel } from './variants.js';
import { placeAt } from '../../../facts/place.js';
import type { ManifestFile } from '../../common/manifest/model.js';

/** The folder of a source set. */
export function sourceSetFolder(model: ModuleModel, sourceSet: string): string {
  const { folder } = model.module;
  return model.sourceSetPaths.get(sourceSet)?.root ?? `${folder ? `${folder}/` : ''}src/${sourceSet}`;
}

/** Where a source set keeps its manifest. */
export function manifestPath(model: ModuleModel, sourceSet: string): string {
  const moved = model.sourceSetPaths.get(sourceSet)?.manifest;
  return moved ?? `${sourceSetFolder(model, sourceSet)}/AndroidManifest.xml`;
}

/** The folders of a source set's resources, the weakest first. */
export function resourceFolders(model: ModuleModel, sourceSet: string): string[] {
  return folders(model, sourceSet, 'res', ['res']);
}

/** The folders of a source set's assets. */
export function assetFolders(model: ModuleModel, sourceSet: string): string[] {
  return folders(model, sourceSet, 'assets', ['assets']);
}

function codeFolders(model: ModuleModel, sourceSet: string): string[] {
  return folders(model, sourceSet, 'code', ['java', 'kotlin']);
}

function folders(
  model: ModuleModel,
  sourceSet: string,
  kind: 'res' | 'code' | 'assets',
  usual: readonly string[],
): string[] {
  const override = model.sourceSetPaths.get(sourceSet)?.[kind];
  const home = sourceSetFolder(model, sourceSet);
  const own = override?.replaces ? [] : usual.map((name) => `${home}/${name}`);
  return [...own, ...(override?.folders ?? [])];
}

/** The manifests that are merged into a variant's, the weakest first. */
export function manifestsOf(tree: Tree, model: ModuleModel, variant: AndroidVariant): ManifestFile[] {
  return tree.once(`android manifests of ${model.module.script} ${variant.name}`, () =>
    layersOf(tree, model, variant).flatMap((layer) =>
      layer.variant.sourceSets.flatMap((sourceSet) => {
        const path = manifestPath(layer.model, sourceSet);
        const document = tree.read(path, readXml);
        return document ? [{ path, sourceSet, document, library: layer.library }] : [];
      }),
    ),
  );
}

/** The strings of a variant as overlays leave them: the strongest source set wins. Default configuration only. */
export function stringsOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
): ReadonlyMap<string, FoundString> {
  return tree.once(`android strings of ${model.module.script} ${variant.name}`, () => {
    const found = new Map<string, FoundString>();
    for (const layer of layersOf(tree, model, variant)) {
      for (const sourceSet of layer.variant.sourceSets) {
        for (const file of valueFiles(tree, layer.model, sourceSet)) {
          const strings = tree.read(file, readStrings)?.strings ?? [];
          for (const resource of strings)
            found.set(resource.name, stringFrom(tree, file, sourceSet, resource));
        }
      }
      for (const made of resValuesOf(layer.model, layer.variant)) found.set(made.name, made);
    }
    return found;
  });
}

function stringFrom(tree: Tree, path: string, sourceSet: string, resource: StringResource): FoundString {
  const { name, value, raw } = resource;
  const place = placeAt(path, tree.text(path), resource);
  return { name, value, sourceSet, place, step: { what: `string ${name}`, value: raw, place }, resource };
}

/** The files below `res/values` of a source set. */
export function valueFiles(tree: Tree, model: ModuleModel, sourceSet: string): string[] {
  return filesIn(
    tree,
    resourceFolders(model, sourceSet).map((folder) => `${folder}/values`),
  );
}

/** Resource files of a kind (`layout`, `values`) in every configuration: the folder's whole name with each. */
export function qualifiedFiles(
  tree: Tree,
  model: ModuleModel,
  sourceSet: string,
  kind: string,
): { path: string; folder: string }[] {
  return resourceFolders(model, sourceSet).flatMap((home) =>
    tree.paths.flatMap((path) => {
      if (!path.endsWith('.xml') || !path.startsWith(`${home}/${kind}`)) return [];
      const folder = folderOf(path).slice(home.length + 1);
      return folder === kind || folder.startsWith(`${kind}-`) ? [{ path, folder }] : [];
    }),
  );
}

function filesIn(tree: Tree, homes: readonly string[]): string[] {
  return homes.flatMap((home) =>
    tree.paths.filter((path) => path.endsWith('.xml') && folderOf(path) === home),
  );
}

/** The Kotlin and Java files of a source set that the collector brought. */
export function codeFiles(tree: Tree, model: ModuleModel, sourceSet: string): string[] {
  const homes = codeFolders(model, sourceSet);
  return tree.paths.filter((path) => /\.(kt|java)$/.test(path) && homes.some((home) => isWithin(path, home)));
}
