import { readPackageJson, type PackageJson } from '../../../formats/package-json/read.js';
import { baseOf, folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';

export const below = (root: string, path: string): string => (root ? `${root}/${path}` : path);

/** Every `package.json` of a tree, by the folder that it is in. */
export function packagesOf(tree: Tree): Map<string, PackageJson> {
  return tree.once('javascript packages', () => {
    const found = tree.paths.filter((path) => baseOf(path) === 'package.json');
    return new Map(
      found.flatMap((path) => {
        const manifest = tree.read(path, readPackageJson);
        return manifest ? [[folderOf(path), manifest] as const] : [];
      }),
    );
  });
}

/** Whether a package goes into what is built: what is needed for developing alone does not. */
export function dependsOn({ dependencies }: PackageJson, name: string): boolean {
  return dependencies.some((one) => one.name === name && one.section === 'dependencies');
}

/** The package whose example a folder is: the nearest one above it that leaves React Native to its users. */
export function exampleOf(tree: Tree, root: string): string | undefined {
  if (!/(^|\/)examples?(\/|$)/i.test(root)) return undefined;
  const above = [...packagesOf(tree)]
    .filter(([folder]) => folder !== root && isWithin(root, folder))
    .sort(([a], [b]) => b.length - a.length)
    .find(([, { dependencies }]) =>
      dependencies.some(({ name, section }) => name === 'react-native' && section === 'peerDependencies'),
    );
  return above && below(above[0], 'package.json');
}
