import { readStrings, type StringResource } from '../../formats/android-resources/read.js';
import { readXml, type XmlDocument } from '../../formats/xml/read.js';
import { folderOf } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** A file of a module's source set. */
export interface SourceFile {
  path: string;
  sourceSet: string;
}

/** The folder of a source set. */
export function sourceSetFolder(model: ModuleModel, sourceSet: string): string {
  const { folder } = model.module;
  return `${folder ? `${folder}/` : ''}src/${sourceSet}`;
}

/** The manifests that are merged into a variant's, the weakest first. */
export function manifestsOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
): (SourceFile & { document: XmlDocument })[] {
  return variant.sourceSets.flatMap((sourceSet) => {
    const path = `${sourceSetFolder(model, sourceSet)}/AndroidManifest.xml`;
    const document = tree.read(path, readXml);
    return document ? [{ path, sourceSet, document }] : [];
  });
}

/** A string resource with the file that gives it. */
export interface FoundString extends SourceFile {
  resource: StringResource;
}

/** The strings of a variant as overlays leave them: the strongest source set wins. Default configuration only. */
export function stringsOf(tree: Tree, model: ModuleModel, variant: AndroidVariant): Map<string, FoundString> {
  const found = new Map<string, FoundString>();
  for (const sourceSet of variant.sourceSets) {
    for (const file of valueFiles(tree, model, sourceSet)) {
      for (const resource of tree.read(file, readStrings)?.strings ?? [])
        found.set(resource.name, { path: file, sourceSet, resource });
    }
  }
  return found;
}

/** The files below `res/values` of a source set. */
export function valueFiles(tree: Tree, model: ModuleModel, sourceSet: string): string[] {
  const folder = `${sourceSetFolder(model, sourceSet)}/res/values`;
  return tree.paths.filter((path) => folderOf(path) === folder && path.endsWith('.xml'));
}

/** The Kotlin and Java files of a source set that the collector brought. */
export function codeFiles(tree: Tree, model: ModuleModel, sourceSet: string): string[] {
  const folder = sourceSetFolder(model, sourceSet);
  return tree.paths.filter(
    (path) =>
      (path.startsWith(`${folder}/java/`) || path.startsWith(`${folder}/kotlin/`)) &&
      /\.(kt|java)$/.test(path),
  );
}
