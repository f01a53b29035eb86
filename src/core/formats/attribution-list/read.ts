import type { Node } from 'jsonc-parser';
import { identifierKey, normalId } from '../../standards/skadnetwork.js';
import type { ReadProblem, Span } from '../../text/problem.js';
import { readJson } from '../json/read.js';
import { readPlist, type PlistValue } from '../plist/read.js';
import { descendants, elements, textOf } from '../xml/query.js';
import type { XmlElement } from '../xml/model.js';
import { readXml } from '../xml/read.js';

/** An identifier in a list. */
export interface ListedId extends Span {
  /** As it is written. */
  written: string;
  /** In its right form; null when it is none. */
  id: string | null;
}

/**
 * The forms of a list: a property list; a part of one, as pages give it out for pasting; XML with elements of the
 * network's own; JSON.
 */
export const listForms = ['plist', 'fragment', 'xml', 'json', 'unknown'] as const;

export interface AttributionList {
  form: (typeof listForms)[number];
  ids: ListedId[];
  problems: ReadProblem[];
}

/** Reads a published list in whichever of its forms. */
export function readAttributionList(text: string): AttributionList {
  const start = text.search(/[^\s\uFEFF]/);
  if (text[start] === '<') return readMarkup(text);
  if (text[start] === '{' || text[start] === '[') {
    const { root, problems } = readJson(text);
    return { form: 'json', ids: root ? jsonIds(root) : [], problems };
  }
  const message = 'This is neither a property list nor other XML nor JSON.';
  return { form: 'unknown', ids: [], problems: [{ message, start: 0, end: 0 }] };
}

function readMarkup(text: string): AttributionList {
  if (readXml(text).root?.name === 'plist') {
    const { root, problems } = readPlist(text);
    return { form: 'plist', ids: root ? idsIn(root) : [], problems };
  }
  const { form, ids, problems, back } = readParts(text);
  const placed = <Item extends Span>(item: Item) => ({
    ...item,
    start: back(item.start),
    end: back(item.end),
  });
  return { form, ids: ids.map(placed), problems: problems.map(placed) };
}

/** Element names of property lists; text that has no others is a part of one. */
const plistNames = new Set('plist dict array key string integer real date data true false'.split(' '));

/** XML that may have several elements at its top: a part of a property list, or a list in a network's own words. */
export interface ListParts {
  form: 'fragment' | 'xml';
  /** The text with one element around all of it, in which the places below are. */
  wrapped: string;
  root: XmlElement | null;
  ids: ListedId[];
  problems: ReadProblem[];
  /** A place in the text itself. */
  back: (place: number) => number;
  /** Takes the element around it off a wrapped text that was edited. */
  unwrap: (wrapped: string) => string;
}

const open = '<list>';
const close = '</list>';

export function readParts(text: string): ListParts {
  const prolog =
    /^\uFEFF?\s*(?:<\?[^>]{0,500}\?>\s*)?(?:<!DOCTYPE[^>[]{0,500}>\s*)?/.exec(text)?.[0].length ?? 0;
  const wrapped = `${text.slice(0, prolog)}${open}${text.slice(prolog)}${close}`;
  const { root, problems } = readXml(wrapped);
  const inner = root ? [...descendants(root)].filter((element) => element !== root) : [];
  const form = inner.length > 0 && inner.every(({ name }) => plistNames.has(name)) ? 'fragment' : 'xml';
  return {
    form,
    wrapped,
    root,
    ids: form === 'fragment' ? inner.flatMap(idOfKey) : inner.flatMap(idsOfElement),
    problems,
    back: (place) => Math.min(text.length, Math.max(prolog, place - open.length)),
    unwrap: (edited) => edited.slice(0, prolog) + edited.slice(prolog + open.length, -close.length),
  };
}

/** The identifier that is after its key. */
function idOfKey(element: XmlElement): ListedId[] {
  if (element.name !== 'key' || textOf(element).trim() !== identifierKey || !element.parent) return [];
  const siblings = elements(element.parent);
  const value = siblings[siblings.indexOf(element) + 1];
  return value?.name === 'string' ? [listed(textOf(value), value)] : [];
}

const ending = /\.skadnetwork\s*$/i;

/** The identifiers that an element of a network's own holds: by their ending, in its text or its attributes. */
function idsOfElement(element: XmlElement): ListedId[] {
  const own = elements(element).length === 0 ? textOf(element) : '';
  return [
    ...element.attributes
      .filter(({ value }) => ending.test(value))
      .map(({ value }) => listed(value, element)),
    ...(ending.test(own) ? [listed(own, element)] : []),
  ];
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
