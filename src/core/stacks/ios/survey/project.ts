import {
  entryOf,
  readPbxproj,
  stringOf,
  stringsOf,
  type PbxDict,
  type PbxValue,
} from '../../../formats/pbxproj/read.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import { platformsOf } from './platforms.js';
import type { Tree } from '../../../tree/tree.js';
import type { AppTarget, Configuration, XcodeProject } from './model.js';

const appTypes = new Set([
  'com.apple.product-type.application',
  'com.apple.product-type.application.on-demand-install-capable',
]);

/** Paths of the project files of a tree; those of dependencies are left out. */
export function projectPaths(tree: Tree): string[] {
  return tree.paths.filter(
    (path) =>
      baseOf(path) === 'project.pbxproj' &&
      folderOf(path).endsWith('.xcodeproj') &&
      !/(^|\/)(Pods|Carthage)\//.test(path),
  );
}

/** Reads a project file; undefined when it cannot be read (the reason is among the tree's problems). */
export function readProject(tree: Tree, path: string): XcodeProject | undefined {
  return tree.once(`xcode project ${path}`, () => makeProject(tree, path));
}

function makeProject(tree: Tree, path: string): XcodeProject | undefined {
  const root = tree.read(path, readPbxproj)?.root;
  const objects = root && entryOf(root, 'objects')?.value;
  if (!root || objects?.type !== 'dict') return undefined;
  const object = (id: string | undefined): PbxValue | undefined =>
    id === undefined ? undefined : entryOf(objects, id)?.value;
  const project = object(stringOf(root, 'rootObject'));
  const home = folderOf(folderOf(path));
  const folder = joinPath(home, stringOf(project, 'projectDirPath') ?? '') ?? home;
  const paths = filePaths(objects, stringOf(project, 'mainGroup'), folder);
  const configurationsOf = (owner: PbxValue | undefined): Configuration[] =>
    stringsOf(object(stringOf(owner, 'buildConfigurationList')), 'buildConfigurations').map((id) => {
      const value = object(id);
      const settings = entryOf(value, 'buildSettings')?.value;
      const base = stringOf(value, 'baseConfigurationReference');
      return {
        id,
        name: stringOf(value, 'name') ?? id,
        settings: settings?.type === 'dict' ? settings : null,
        base: (base && paths.get(base)) ?? null,
        value,
      };
    });
  const shared = configurationsOf(project);
  const targets = stringsOf(project, 'targets').flatMap((id): AppTarget[] => {
    const entry = entryOf(objects, id);
    if (!entry || !appTypes.has(stringOf(entry.value, 'productType') ?? '')) return [];
    const configurations = configurationsOf(entry.value).map((own) => ({
      own,
      project: shared.find(({ name }) => name === own.name) ?? null,
    }));
    return [{ id, name: stringOf(entry.value, 'name') ?? id, entry, configurations }];
  });
  const extensions = stringsOf(project, 'targets').flatMap((id) => {
    const entry = entryOf(objects, id);
    const type = stringOf(entry?.value, 'productType') ?? '';
    const name = stringOf(entry?.value, 'name') ?? id;
    return entry && /extension|watchapp|\.watchkit/.test(type) ? [{ name, type, entry }] : [];
  });
  const made = { path, folder, objects, targets, elsewhere: [], extensions };
  const platforms = new Map(targets.map((target) => [target, targetPlatforms(tree, made, target)]));
  const isForIos = (target: AppTarget) => {
    const known = platforms.get(target) ?? [];
    return known.length === 0 || known.includes('iOS');
  };
  return {
    ...made,
    targets: targets.filter(isForIos),
    elsewhere: targets
      .filter((target) => !isForIos(target))
      .map((target) => ({ name: target.name, platforms: platforms.get(target) ?? [] })),
  };
}

/** The platforms that any configuration of a target is built for. */
function targetPlatforms(tree: Tree, project: XcodeProject, target: AppTarget): string[] {
  const all = target.configurations.flatMap(({ own, project: shared }) =>
    platformsOf({ tree, project, target, own, shared }),
  );
  return [...new Set(all)];
}

/** Where each file reference is in the tree, by walking the groups from the main one. */
export function filePaths(
  objects: PbxDict,
  mainGroup: string | undefined,
  folder: string,
): Map<string, string> {
  const found = new Map<string, string>();
  const waiting: { id: string | undefined; at: string | null }[] = [{ id: mainGroup, at: folder }];
  const seen = new Set<string>();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.id === undefined || seen.has(next.id)) continue;
    seen.add(next.id);
    const value = entryOf(objects, next.id)?.value;
    const tree = stringOf(value, 'sourceTree');
    const from = tree === 'SOURCE_ROOT' ? folder : next.at;
    const at =
      from === null || (tree !== '<group>' && tree !== 'SOURCE_ROOT')
        ? null
        : joinPath(from, stringOf(value, 'path') ?? '');
    if (at !== null) found.set(next.id, at);
    for (const id of stringsOf(value, 'children')) waiting.push({ id, at });
  }
  return found;
}

/** The ID of the project's main group. */
export function mainGroupOf(project: Pick<XcodeProject, 'objects'>): string | undefined {
  const found = project.objects.entries.find((entry) => stringOf(entry.value, 'isa') === 'PBXProject');
  return stringOf(found?.value, 'mainGroup');
}
