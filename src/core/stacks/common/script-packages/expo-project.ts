import { readEas, type EasProfile } from '../../../formats/app-config/eas.js';
import { readAppJson } from '../../../formats/app-config/read-json.js';
import { readAppScript } from '../../../formats/app-config/read-script.js';
import type { ConfigNode } from '../../../formats/app-config/model.js';
import type { PackageJson } from '../../../formats/package-json/read.js';
import type { Platform } from '../../../words/words.js';
import { folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { nativeParts, type NativePart } from '../native-parts.js';
import type { ReactNativeProject } from './project.js';
import { below, dependsOn, packagesOf } from './packages.js';

/** An Expo application whose native projects are generated from its configuration. */
export interface ExpoProject {
  root: string;
  /** The `package.json`. */
  path: string;
  manifest: PackageJson;
  /** The static configuration, and the one that is a script. */
  json: { path: string; config: ConfigNode | null } | undefined;
  script: { path: string; config: ConfigNode | null; isOurs: boolean } | undefined;
  eas: { path: string; profiles: EasProfile[] } | undefined;
  /** Native projects that were made from the configuration and are in the tree. */
  parts: NativePart[];
}

const scripts = ['ts', 'js', 'cjs', 'mjs'].map((end) => `app.config.${end}`);

/** Stands at the top of the script that wiring writes. */
export const scriptMark = 'App config written by Syndexa';

/**
 * The project in a folder; undefined where none depends on Expo, where nothing configures it, or where its native
 * projects are kept in the repository: those are then what is built, and the configuration is not.
 */
export function expoAt(tree: Tree, root: string): ExpoProject | undefined {
  return tree.once(`expo project in ${root}`, () => {
    const manifest = packagesOf(tree).get(root);
    if (!manifest || !dependsOn(manifest, 'expo')) return undefined;
    const jsonPath = ['app.json', 'app.config.json']
      .map((name) => below(root, name))
      .find((path) => tree.has(path));
    const json = jsonPath === undefined ? undefined : tree.read(jsonPath, readAppJson);
    const scriptPath = scripts.map((name) => below(root, name)).find((path) => tree.has(path));
    const script = scriptPath === undefined ? undefined : tree.read(scriptPath, readAppScript);
    if (!script && !json?.isExpo) return undefined;
    const parts = nativeParts(tree, { android: below(root, 'android'), ios: below(root, 'ios') });
    if (
      parts.some(({ stack }) => !isGenerated(tree, root, stack.id === 'native-android' ? 'android' : 'ios'))
    )
      return undefined;
    const easPath = below(root, 'eas.json');
    const eas = tree.has(easPath) ? tree.read(easPath, readEas) : undefined;
    return {
      root,
      path: below(root, 'package.json'),
      manifest,
      json: json && jsonPath !== undefined ? { path: jsonPath, config: json.config } : undefined,
      script:
        script && scriptPath !== undefined
          ? {
              path: scriptPath,
              config: script.config,
              isOurs: tree.text(scriptPath)?.text.slice(0, 200).includes(scriptMark) ?? false,
            }
          : undefined,
      eas: eas && { path: easPath, profiles: eas.profiles },
      parts,
    };
  });
}

export function expoRoots(tree: Tree): string[] {
  return [...packagesOf(tree).keys()].filter((root) => expoAt(tree, root) !== undefined);
}

/** Whether the repository leaves a native folder out, because it is recreated for each build. */
function isGenerated(tree: Tree, root: string, folder: Platform): boolean {
  for (let at = root; ; at = folderOf(at)) {
    const text = tree.text(below(at, '.gitignore'))?.text ?? '';
    const inside = at === root ? folder : `${root.slice(at === '' ? 0 : at.length + 1)}/${folder}`;
    const names = new Set([folder, inside]);
    if (text.split(/\r?\n/).some((line) => names.has(line.trim().replace(/^\/|\/\*{0,2}$/g, ''))))
      return true;
    if (at === '') return false;
  }
}

/** The project as the readers of packages and scripts take it. */
export function asScripts({ root, path, manifest, parts }: ExpoProject): ReactNativeProject {
  return { root, path, manifest, parts, config: { path: undefined, excluded: [], sourceDirs: {} } };
}
