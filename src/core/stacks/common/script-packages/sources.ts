import { platformNames } from '../../../words/names.js';
import { valueAt } from '../../../text/own-values.js';
import type { Platform } from '../../../words/words.js';
import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { packagesOf } from './packages.js';
import { type ReactNativeProject } from './project.js';
import { workspacePackages } from './workspace.js';

const source = /\.(?:[cm]?[jt]s|[jt]sx)$/;
/** Tests, their helpers, stories and declarations: no bundle takes them in. */
const notBundled =
  /(^|\/)(?:__tests__|__mocks__|e2e|\.storybook|coverage)\/|\.(?:test|spec|stories|d)\.[cm]?[jt]sx?$|(^|\/)[^/]*\.config\.[cm]?[jt]s$|(^|\/)\.[^/]*rc\.[cm]?js$/;

/** The JavaScript and TypeScript that the bundle of a project may hold: its own, and that of its workspace. */
export function bundledFiles(tree: Tree, project: ReactNativeProject): string[] {
  return tree.once(`bundled files of ${project.root}`, () =>
    tree.paths.filter(
      (path) => source.test(path) && !notBundled.test(path) && folderBundled(tree, project, path),
    ),
  );
}

/** Whether a file is in a folder of a project's own code, its packages in the workspace included. */
export function folderBundled(tree: Tree, project: ReactNativeProject, path: string): boolean {
  const { folders, others, native } = tree.once(`bundled folders of ${project.root}`, () => {
    const own = sourceFolders(tree, project);
    return {
      folders: own,
      others: [...packagesOf(tree).keys()].filter((folder) => !own.includes(folder)),
      native: project.parts.map(({ root }) => root),
    };
  });
  const home = folders.find((folder) => isWithin(path, folder));
  if (home === undefined) return false;
  const foreign = others.some((other) => other.length > home.length && isWithin(path, other));
  return !foreign && !native.some((root) => root !== home && isWithin(path, root));
}

/** The project's folder, and those of the packages in the same tree that it depends on; the innermost first. */
function sourceFolders(tree: Tree, { root }: ReactNativeProject): string[] {
  const beside = workspacePackages(tree, root).map((one) => one.root);
  return [root, ...beside].sort((a, b) => b.length - a.length);
}

const ends: Readonly<Record<string, readonly Platform[]>> = {
  android: ['android'],
  ios: ['ios'],
  native: platformNames,
  web: [],
  windows: [],
  macos: [],
};

/**
 * Whether the bundle of a platform takes a file in (reactnative.dev, "Platform-Specific Code"): `ad.ios.tsx` is for
 * one platform, and is before `ad.native.tsx`, and that before `ad.tsx`.
 */
export function isBundledFor(paths: readonly string[]): (path: string, platform: Platform) => boolean {
  const special = new Map<string, Set<string>>();
  for (const path of paths) {
    const { stem, end } = partsOf(path);
    if (end === undefined) continue;
    special.set(stem, (special.get(stem) ?? new Set()).add(end));
  }
  return (path, platform) => {
    const { stem, end } = partsOf(path);
    const others = special.get(stem);
    if (end !== undefined && !(valueAt(ends, end) ?? []).includes(platform)) return false;
    if (end === platform) return true;
    if (others?.has(platform)) return false;
    return end === 'native' || !others?.has('native');
  };
}

function partsOf(path: string): { stem: string; end: string | undefined } {
  const plain = path.replace(source, '');
  const end = /\.(android|ios|native|web|windows|macos)$/.exec(plain)?.[1];
  return { stem: end === undefined ? plain : plain.slice(0, -end.length - 1), end };
}
