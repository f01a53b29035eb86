import {
  readUnityYaml,
  unityNode,
  type UnityNode,
  type UnityYaml,
} from '../../../formats/unity-yaml/read.js';
import { readJson, type JsonDocument } from '../../../formats/json/read.js';
import { readPackageJson, type PackageJson } from '../../../formats/package-json/read.js';
import type { Span } from '../../../text/problem.js';
import type { Platform } from '../../../words/words.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';

/** A Unity project: its settings for players, its packages, and the editor that it is kept for. */
export interface UnityProject {
  root: string;
  /** The settings for players. */
  path: string;
  settings: UnityYaml;
  player: UnityNode;
  editor: (Span & { path: string; version: string }) | undefined;
  packages: { path: string; manifest: PackageJson } | undefined;
  lock: { path: string; json: JsonDocument } | undefined;
}

const settingsEnd = 'ProjectSettings/ProjectSettings.asset';

/** How Unity's settings name the platforms (in `applicationIdentifier`); older files number them (in symbols). */
export const unityNames: Readonly<Record<Platform, readonly string[]>> = {
  android: ['Android', '7'],
  ios: ['iPhone', 'iOS', '4'],
};

/** The project in a folder; undefined where no settings for players are in it. */
export function unityAt(tree: Tree, root: string): UnityProject | undefined {
  return tree.once(`unity project in ${root}`, () => {
    const path = below(root, settingsEnd);
    const settings = tree.read(path, readUnityYaml);
    const player = settings && unityNode(settings, ['PlayerSettings']);
    if (!player) return undefined;
    return {
      root,
      path,
      settings,
      player,
      editor: editorOf(tree, below(root, 'ProjectSettings/ProjectVersion.txt')),
      packages: packagesAt(tree, below(root, 'Packages/manifest.json')),
      lock: jsonAt(tree, below(root, 'Packages/packages-lock.json')),
    };
  });
}

export function unityRoots(tree: Tree): string[] {
  return tree.paths
    .filter((path) => path === settingsEnd || path.endsWith(`/${settingsEnd}`))
    .map((path) => path.slice(0, -settingsEnd.length).replace(/\/$/, ''))
    .filter((root) => unityAt(tree, root) !== undefined);
}

/** The manifest of packages asks for them as a `package.json` does. */
function packagesAt(tree: Tree, path: string): UnityProject['packages'] {
  const manifest = tree.read(path, readPackageJson);
  return manifest && { path, manifest };
}

function jsonAt(tree: Tree, path: string): { path: string; json: JsonDocument } | undefined {
  const json = tree.read(path, readJson);
  return json && { path, json };
}

function editorOf(tree: Tree, path: string): UnityProject['editor'] {
  const found = /^m_EditorVersion:[ \t]*(\S+)/m.exec(tree.text(path)?.text ?? '');
  const version = found?.[1];
  if (!found || version === undefined) return undefined;
  const end = found.index + found[0].length;
  return { path, version, start: end - version.length, end };
}

/** An entry of the settings for players. */
export function playerEntry({ player }: UnityProject, ...way: string[]): UnityNode | undefined {
  let found: UnityNode | undefined = player;
  for (const key of way) found = found?.children.find((node) => node.key === key);
  return found;
}

/** The entry of a map that has one for each platform. */
export function platformEntry(map: UnityNode | undefined, platform: Platform): UnityNode | undefined {
  return map?.children.find(({ key }) => unityNames[platform].includes(key));
}
