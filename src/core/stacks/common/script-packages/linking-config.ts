import { platformNames } from '../../../words/names.js';
import type { Platform } from '../../../words/words.js';
import type { Span } from '../../../text/problem.js';
import { named, childOf } from '../../../syntax/shape.js';
import type { Node, Syntax } from '../../../syntax/grammars.js';
import type { Tree } from '../../../tree/tree.js';

/** A package that the configuration keeps from being linked, and on which platforms. */
interface Exclusion extends Span {
  package: string;
  platforms: Platform[];
}

/** What `react-native.config.js` says of linking (reactnative.dev, "Configuration"; the CLI's "Autolinking"). */
export interface LinkingConfig {
  /** The configuration file; undefined where there is none. */
  path: string | undefined;
  excluded: Exclusion[];
  /** Where the native projects lie, where they were moved. */
  sourceDirs: Partial<Record<Platform, string>>;
}

const names = ['js', 'cjs', 'mjs', 'ts'].map((end) => `react-native.config.${end}`);

/** Reads the configuration of a project; what is computed in it, and not written, is not seen. */
export function linkingConfig(tree: Tree, root: string): LinkingConfig {
  const path = names.map((name) => (root ? `${root}/${name}` : name)).find((each) => tree.has(each));
  const read = path === undefined ? undefined : tree.read(path, readConfig);
  return { path, excluded: read?.excluded ?? [], sourceDirs: read?.sourceDirs ?? {} };
}

function readConfig(text: string, syntax: Syntax): Omit<LinkingConfig, 'path'> & { problems: [] } {
  const excluded: Exclusion[] = [];
  const sourceDirs: LinkingConfig['sourceDirs'] = {};
  syntax.visit('tsx', text, (root) => {
    for (const object of objectsIn(root, 0)) {
      for (const [name, entry] of entriesOf(valueAt(object, ['dependencies']))) {
        const platforms = valueAt(entry, ['platforms']);
        const off = platformNames.filter((platform) => {
          const given = platforms && valueAt(platforms, [platform]);
          return given?.type === 'null' || given?.type === 'false';
        });
        if (off.length > 0)
          excluded.push({ package: name, platforms: off, start: entry.startIndex, end: entry.endIndex });
      }
      for (const platform of platformNames) {
        const folder = valueAt(object, ['project', platform, 'sourceDir']);
        if (folder?.type === 'string') sourceDirs[platform] = folder.text.slice(1, -1);
      }
    }
  });
  return { excluded, sourceDirs, problems: [] };
}

/** The outermost objects of a file: its exports, and objects that it may compose before. */
function objectsIn(node: Node, depth: number): Node[] {
  if (node.type === 'object') return [node];
  return depth > 40 ? [] : named(node).flatMap((child) => objectsIn(child, depth + 1));
}

function entriesOf(object: Node | undefined): [string, Node][] {
  if (object?.type !== 'object') return [];
  return named(object).flatMap((pair): [string, Node][] => {
    const [key, value] = named(pair);
    if (pair.type !== 'pair' || !key || !value) return [];
    return [[key.type === 'string' ? key.text.slice(1, -1) : key.text, value]];
  });
}

function valueAt(object: Node | undefined, way: readonly string[]): Node | undefined {
  let at = object;
  for (const step of way) at = entriesOf(at).find(([name]) => name === step)?.[1];
  return at?.type === 'parenthesized_expression' ? childOf(at, 'object') : at;
}
