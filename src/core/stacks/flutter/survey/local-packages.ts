import { readPubspec, type PubDependency, type Pubspec } from '../../../formats/pubspec/read.js';
import { globMatcher } from '../../../text/globs.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';

/** A package of the tree that an application depends on, itself or through others. */
export interface LocalPackage {
  root: string;
  /** Where its pubspec is. */
  path: string;
  pubspec: Pubspec;
  /** The roots of the packages of the tree that it depends on. */
  uses: readonly string[];
}

const pubspecIn = (root: string): string => (root ? `${root}/pubspec.yaml` : 'pubspec.yaml');

/**
 * The local packages of an application: those declared by `path:`, those that an override of the application
 * substitutes, and those of its workspace (dart.dev, "Package dependencies", "Pub workspaces").
 */
export function localPackages(tree: Tree, root: string): readonly LocalPackage[] {
  return tree.once(`packages beside ${root}`, () => {
    const members = workspaceOf(tree, root).members;
    const overrides = overridesOf(tree, root);
    const found = new Map<string, LocalPackage>();
    const rootOf = (one: PubDependency, from: string): string | undefined => {
      const override = overrides.get(one.name);
      const folder =
        override ?? (one.folder === undefined ? members.get(one.name) : joinPath(from, one.folder));
      return folder != null && tree.has(pubspecIn(folder)) ? folder : undefined;
    };
    const usesOf = (pubspec: Pubspec, from: string): string[] =>
      pubspec.dependencies
        .filter(({ section }) => section === 'dependencies')
        .flatMap((one) => rootOf(one, from) ?? [])
        .filter((one) => one !== root);
    const own = tree.read(pubspecIn(root), readPubspec);
    const queue = own ? usesOf(own, root) : [];
    for (const next of queue) {
      const path = pubspecIn(next);
      const pubspec = found.has(next) ? undefined : tree.read(path, readPubspec);
      if (!pubspec) continue;
      const uses = usesOf(pubspec, next);
      found.set(next, { root: next, path, pubspec, uses });
      queue.push(...uses);
    }
    return [...found.values()];
  });
}

/** The workspace that a package is resolved in: its folder, and the folders of its members by name. */
export function workspaceOf(
  tree: Tree,
  root: string,
): { root: string; members: ReadonlyMap<string, string> } {
  const own = tree.read(pubspecIn(root), readPubspec);
  let folder = root;
  while (own?.inWorkspace === true && folder !== '') {
    folder = folderOf(folder);
    if ((tree.read(pubspecIn(folder), readPubspec)?.workspace.length ?? 0) > 0) break;
  }
  const named = tree.read(pubspecIn(folder), readPubspec)?.workspace ?? [];
  const matches = named.map((one) => globMatcher(joinPath(folder, one) ?? ''));
  const members = tree.paths.flatMap((path): [string, string][] => {
    const at = folderOf(path);
    if (path !== pubspecIn(at) || !matches.some((match) => match(at))) return [];
    const name = tree.read(path, readPubspec)?.name;
    return name === undefined ? [] : [[name, at]];
  });
  return { root: named.length > 0 ? folder : root, members: new Map(members) };
}

/** The folders that overrides of an application put in the place of packages, by name. */
function overridesOf(tree: Tree, root: string): ReadonlyMap<string, string> {
  const apart = tree.read(pubspecIn(root).replace(/pubspec\.yaml$/, 'pubspec_overrides.yaml'), readPubspec);
  const here = tree.read(pubspecIn(root), readPubspec);
  // The file beside the pubspec takes the place of the section in it.
  const all = apart ?? here;
  return new Map(
    (all?.dependencies ?? []).flatMap(({ name, section, folder }): [string, string][] => {
      const at = section === 'dependency_overrides' && folder !== undefined ? joinPath(root, folder) : null;
      return at === null ? [] : [[name, at]];
    }),
  );
}
