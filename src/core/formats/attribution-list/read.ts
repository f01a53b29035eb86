import type { Node } from 'jsonc-parser';
import { identifierKey, normalId } from '../../standards/skadnetwork.js';
import type { ReadProblem, Span } from '../../text/problem.js';
import { readJson } from '../json/read.js';
import { readPlist, type PlistValue } from '../plist/read.js';

/** An identifier in a list. */
export interface ListedId extends Span {
  /** As it is written. */
  written: string;
  /** In its right form; null when it is none. */
  id: string | null;
}

export interface AttributionList {
  form: 'plist' | 'json' | 'unknown';
  ids: ListedId[];
  problems: ReadProblem[];
}

/** Reads a published list in whichever of its forms. */
export function readAttributionList(text: string): AttributionList {
  const start = text.search(/\S/);
  if (text[start] === '<') {
    const { root, problems } = readPlist(text);
    return { form: 'plist', ids: root ? idsIn(root) : [], problems };
  }
  if (text[start] === '{' || text[start] === '[') {
    const { root, problems } = readJson(text);
    return { form: 'json', ids: root ? jsonIds(root) : [], problems };
  }
  const message = 'This is neither a property list nor JSON.';
  return { form: 'unknown', ids: [], problems: [{ message, start: 0, end: 0 }] };
}

/** The identifiers in a property list's value: under their key, or in the array of items. */
export function idsIn(value: PlistValue): ListedId[] {
  if (value.type === 'array') return value.items.flatMap(idsIn);
  if (value.type !== 'dict') return [];
  return value.entries.flatMap((entry) => {
    if (entry.key === identifierKey && entry.value.type === 'string')
      return [listed(entry.value.value, entry.value.element)];
    return idsIn(entry.value);
  });
}

const jsonNames = new Set(['skadnetwork_id', 'SKAdNetworkIdentifier', 'skAdNetworkIdentifier']);

function jsonIds(node: Node): ListedId[] {
  const children = node.children ?? [];
  if (node.type === 'array')
    return children.flatMap((child) =>
      child.type === 'string' ? [listed(String(child.value), spanOf(child))] : jsonIds(child),
    );
  return children.flatMap((property) => {
    const [key, value] = property.children ?? [];
    if (!value) return [];
    if (jsonNames.has(String(key?.value)) && value.type === 'string')
      return [listed(String(value.value), spanOf(value))];
    return value.type === 'array' || value.type === 'object' ? jsonIds(value) : [];
  });
}

function spanOf({ offset, length }: Node): Span {
  return { start: offset, end: offset + length };
}

function listed(written: string, { start, end }: Span): ListedId {
  return { written, id: normalId(written), start, end };
}
