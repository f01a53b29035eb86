import type { Node } from 'jsonc-parser';
import { readJson } from '../json/read.js';
import type { ReadProblem } from '../../text/problem.js';
import type { ConfigNode } from './model.js';

/** An `app.json`: what is under `expo`, or, without such a key, the whole of it. */
export interface StaticConfig {
  config: ConfigNode | null;
  /** Whether the file says that it is of Expo. */
  isExpo: boolean;
  problems: ReadProblem[];
}

/** Reads an `app.json` (docs.expo.dev, "Configure with app config"). */
export function readAppJson(text: string): StaticConfig {
  const { root, problems } = readJson(text);
  if (root?.type !== 'object') return { config: null, isExpo: false, problems };
  const expo = root.children?.find(({ children }) => children?.[0]?.value === 'expo')?.children?.[1];
  return { config: nodeOf(expo ?? root), isExpo: expo?.type === 'object', problems };
}

/** A value of a JSON document as a value of a configuration. */
export function nodeOf(node: Node): ConfigNode {
  const span = { start: node.offset, end: node.offset + node.length };
  switch (node.type) {
    case 'string':
      return { is: 'text', value: String(node.value), ...span };
    case 'array':
      return { is: 'list', items: (node.children ?? []).map(nodeOf), ...span };
    case 'object':
      return {
        is: 'object',
        entries: (node.children ?? []).flatMap((property) => {
          const [key, value] = property.children ?? [];
          if (!key || !value) return [];
          const end = value.offset + value.length;
          return [{ key: String(key.value), value: nodeOf(value), start: key.offset, end }];
        }),
        ...span,
      };
    default:
      return { is: 'plain', value: node.value as number | boolean | null, ...span };
  }
}
