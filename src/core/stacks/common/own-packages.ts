import { isWithin } from '../../text/paths.js';

/** A package that an application is made of: its own, or one beside it. */
export interface OwnPackage {
  root: string;
  name: string | undefined;
  /** The folder that the code of others imports from. */
  code: string;
  /** The roots of the packages that its code can import, its own among them. */
  reaches: ReadonlySet<string>;
}

/** A package with the roots of those that it depends on. */
type Linked = Omit<OwnPackage, 'reaches'> & { uses: readonly string[] };

/** An application with the packages beside it; its own code can import all of them. */
export function ownPackages(own: Omit<Linked, 'uses'>, beside: readonly Linked[]): OwnPackage[] {
  const uses = new Map(beside.map((one) => [one.root, one.uses]));
  const reachesFrom = (from: string): ReadonlySet<string> => {
    const found = new Set([from]);
    for (const next of found) for (const used of uses.get(next) ?? []) found.add(used);
    return found;
  };
  return [
    { ...own, reaches: new Set([own.root, ...uses.keys()]) },
    ...beside.map(({ root, name, code }) => ({ root, name, code, reaches: reachesFrom(root) })),
  ];
}

/** The package that a file belongs to. */
export function ownerOf(packages: readonly OwnPackage[], path: string): OwnPackage | undefined {
  return packages.filter(({ code }) => isWithin(path, code)).sort((a, b) => b.code.length - a.code.length)[0];
}

/** The package that all of some files can import: their own where they are of one, else one that the others use. */
export function homeFor(packages: readonly OwnPackage[], paths: readonly string[]): OwnPackage | undefined {
  const owners = [...new Set(paths.flatMap((path) => ownerOf(packages, path) ?? []))];
  if (owners.length === 0) return packages[0];
  const reachable = (one: OwnPackage) => owners.every(({ reaches }) => reaches.has(one.root));
  return owners.find(reachable) ?? packages.find(reachable) ?? packages[0];
}
