import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { localPackages } from '../survey/local-packages.js';
import { below, type FlutterProject } from '../survey/project.js';

/** A package that an application is made of: its own, or one beside it. */
export interface OwnPackage {
  root: string;
  name: string | undefined;
  /** The roots of the packages that its code can import, its own among them. */
  reaches: ReadonlySet<string>;
}

/** The packages that an application is made of, its own first. */
export function packagesOf(tree: Tree, { root, pubspec }: FlutterProject): OwnPackage[] {
  const beside = localPackages(tree, root);
  const uses = new Map(beside.map((one) => [one.root, one.uses]));
  const reachesFrom = (from: string): ReadonlySet<string> => {
    const found = new Set([from]);
    for (const next of found) for (const used of uses.get(next) ?? []) found.add(used);
    return found;
  };
  const own = { root, name: pubspec.name, reaches: new Set([root, ...uses.keys()]) };
  return [
    own,
    ...beside.map((one) => ({ root: one.root, name: one.pubspec.name, reaches: reachesFrom(one.root) })),
  ];
}

/** The package whose `lib` a file is in. */
export function ownerOf(packages: readonly OwnPackage[], path: string): OwnPackage | undefined {
  return packages.find(({ root }) => isWithin(path, below(root, 'lib')));
}

/** The package that all of some files can import: their own where they are of one, else one that the others use. */
export function homeFor(packages: readonly OwnPackage[], paths: readonly string[]): OwnPackage | undefined {
  const owners = [...new Set(paths.flatMap((path) => ownerOf(packages, path) ?? []))];
  if (owners.length === 0) return packages[0];
  const reachable = (one: OwnPackage) => owners.every(({ reaches }) => reaches.has(one.root));
  return owners.find(reachable) ?? packages.find(reachable) ?? packages[0];
}
