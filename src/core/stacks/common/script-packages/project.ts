import type { PackageJson } from '../../../formats/package-json/read.js';
import { joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { nativeParts, type NativePart } from '../native-parts.js';
import { below, dependsOn, packagesOf } from './packages.js';
import { linkingConfig, type LinkingConfig } from './linking-config.js';

/** A React Native application: its `package.json`, and the native trees beside it. */
export interface ReactNativeProject {
  root: string;
  path: string;
  manifest: PackageJson;
  config: LinkingConfig;
  parts: NativePart[];
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
