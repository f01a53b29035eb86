import { readPackageJson, type PackageJson } from '../../formats/package-json/read.js';
import { baseOf, folderOf, isWithin, joinPath } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import { nativeParts, type NativePart } from '../native-parts.js';
import { linkingConfig, type LinkingConfig } from './config.js';

/** A React Native application: its `package.json`, and the native trees beside it. */
export interface ReactNativeProject {
  root: string;
  path: string;
  manifest: PackageJson;
  config: LinkingConfig;
  parts: NativePart[];
}

export const below = (root: string, path: string): string => (root ? `${root}/${path}` : path);

/** Every `package.json` of a tree, by the folder that it stands in. */
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

/** The project in a folder; undefined where no `package.json` there depends on React Native. */
export function projectAt(tree: Tree, root: string): ReactNativeProject | undefined {
  return tree.once(`react native project in ${root}`, () => {
    const manifest = packagesOf(tree).get(root);
    if (!manifest || !dependsOn(manifest, 'react-native')) return undefined;
    const config = linkingConfig(tree, root);
    const folder = (moved: string | undefined, usual: string) =>
      (moved === undefined ? null : joinPath(root, moved)) ?? below(root, usual);
    const parts = nativeParts(tree, {
      android: folder(config.sourceDirs.android, 'android'),
      ios: folder(config.sourceDirs.ios, 'ios'),
    });
    return { root, path: below(root, 'package.json'), manifest, config, parts };
  });
}

/** Every folder with a `package.json` that depends on React Native. */
export function projectRoots(tree: Tree): string[] {
  return [...packagesOf(tree).keys()].filter((root) => projectAt(tree, root) !== undefined);
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
