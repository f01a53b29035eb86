import { readJson } from '../formats/json/read.js';
import { readPlist, type PlistValue } from '../formats/plist/read.js';
import type { ReadProblem, Span } from '../formats/problem.js';
import type { Node } from 'jsonc-parser';

// SKAdNetwork identifiers as Apple's documentation of `SKAdNetworkItems` has them: an array of dictionaries with
// the key SKAdNetworkIdentifier, its value in small letters and ending in `.skadnetwork`. Networks publish
// their lists as such a property list, or as JSON with the fields `skadnetwork_ids` and `skadnetwork_id`.

/** An identifier as it stands in a list. */
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

export const itemsKey = 'SKAdNetworkItems';
export const identifierKey = 'SKAdNetworkIdentifier';

/** The right form of an identifier: small letters, no blanks, its ending; null for what is none. */
export function normalId(written: string): string | null {
  const text = written.trim().toLowerCase();
  const id = text.endsWith('.skadnetwork') ? text : `${text}.skadnetwork`;
  return /^[a-z0-9]{5,40}\.skadnetwork$/.test(id) ? id : null;
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

/** Identifiers of several lists as one: in their right form, sorted, each once. */
export function mergedIds(lists: readonly (readonly string[])[]): string[] {
  return [...new Set(lists.flat().flatMap((id) => normalId(id) ?? []))].sort();
}

/** A list as the property list has it, for pasting or for a file of its own. */
export function attributionPlist(ids: readonly string[]): string {
  const items = ids.flatMap((id) => [
    '\t\t<dict>',
    `\t\t\t<key>${identifierKey}</key>`,
    `\t\t\t<string>${id}</string>`,
    '\t\t</dict>',
  ]);
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">',
    '<plist version="1.0">',
    '<dict>',
    `\t<key>${itemsKey}</key>`,
    '\t<array>',
    ...items,
    '\t</array>',
    '</dict>',
    '</plist>',
    '',
  ].join('\n');
}

/** A list as JSON, with the field names that published lists use. */
export function attributionJson(ids: readonly string[]): string {
  return `${JSON.stringify({ skadnetwork_ids: ids.map((id) => ({ skadnetwork_id: id })) }, null, 2)}\n`;
}
