import type { Node } from 'jsonc-parser';
import {
  attributionPlist,
  identifierKey,
  itemsKey,
  mergedIds,
  normalId,
} from '../../standards/skadnetwork.js';
import { applyEdits, type Edit } from '../../text/edit.js';
import { appendJson } from '../json/edit.js';
import { jsonValue, readJson } from '../json/read.js';
import { itemLines, mergeAttribution } from '../plist/attribution.js';
import { readPlist } from '../plist/read.js';
import { appendChild, indentAt, insertAfter } from '../xml/edit.js';
import { descendants, elements, textOf } from '../xml/query.js';
import type { XmlElement } from '../xml/model.js';
import { readAttributionList, readParts, type ListParts } from './read.js';

/** Identifiers cannot be brought into a list without changing or inventing something else. */
export class CannotMergeError extends Error {
  override readonly name = 'CannotMergeError';

  constructor(
    message: string,
    /** Where in the text. */
    readonly at: number,
    readonly fix: string,
  ) {
    super(message);
  }
}

/**
 * A list with further identifiers, in the same form. Nothing else changes: existing entries, even duplicates, stay as
 * written.
 * @throws CannotMergeError
 */
export function mergeIntoList(text: string, ids: readonly string[]): string {
  if (text.trim() === '') return attributionPlist(mergedIds([ids]));
  const { form, ids: there } = readAttributionList(text);
  const known = new Set(there.flatMap(({ id }) => id ?? []));
  const missing = mergedIds([ids]).filter((id) => !known.has(id));
  if (missing.length === 0) return text;
  if (form === 'json') return mergeIntoJson(text, missing);
  const eol = /\r\n/.test(text) ? '\r\n' : '\n';
  if (form !== 'plist') return mergeIntoParts(readParts(text), missing, eol);
  const { root } = readPlist(text);
  if (root?.type !== 'dict') return mergeIntoParts(readParts(text), missing, eol);
  // Duplicates are left alone here: only additions are kept.
  const additions = mergeAttribution(text, root, missing, eol).filter(({ text: added }) => added !== '');
  return applyEdits(text, additions);
}

function mergeIntoParts(parts: ListParts, missing: readonly string[], eol: string): string {
  const edits =
    parts.form === 'fragment' ? fragmentEdits(parts, missing, eol) : ownXmlEdits(parts, missing, eol);
  return parts.unwrap(applyEdits(parts.wrapped, edits));
}

/** Items after the last one; into the array of items when there is none yet. */
function fragmentEdits({ wrapped, root, back }: ListParts, missing: readonly string[], eol: string): Edit[] {
  const all = root ? [...descendants(root)] : [];
  const last = all
    .filter(({ name, parent }) => name === 'key' && parent?.name === 'dict' && isItem(parent))
    .at(-1);
  const lines = missing.flatMap(itemLines);
  if (last?.parent) {
    const { start, end } = last.parent;
    const [value] = elements(last.parent, 'string');
    if (elements(last.parent).length !== 2 || !value) return [insertAfter(wrapped, last.parent, lines, eol)];
    // Written as the last one is.
    const before = eol + indentAt(wrapped, start) + wrapped.slice(start, value.openTag.end);
    const after = wrapped.slice(value.closeTag?.start ?? value.end, end);
    return [{ start: end, end, text: missing.map((id) => before + id + after).join('') }];
  }
  const key = all.find((element) => element.name === 'key' && textOf(element).trim() === itemsKey);
  const siblings = key?.parent ? elements(key.parent) : [];
  const array = key ? siblings[siblings.indexOf(key) + 1] : all.find(({ name }) => name === 'array');
  if (array?.name === 'array') return appendChild(wrapped, array, lines, eol);
  throw new CannotMergeError(
    'It does not contain a list of items.',
    back(root?.children[0]?.start ?? 0),
    `Paste the whole of ${itemsKey}, with its <array>.`,
  );
}

function isItem(dict: XmlElement): boolean {
  return elements(dict, 'key').some((key) => textOf(key).trim() === identifierKey);
}

/** Copies of the last item with other identifiers, if it has no other content. */
function ownXmlEdits(
  { wrapped, root, ids, back }: ListParts,
  missing: readonly string[],
  eol: string,
): Edit[] {
  const last = ids.at(-1);
  const holder = root && last ? [...descendants(root)].find(({ start }) => start === last.start) : undefined;
  if (!root || !last || !holder)
    throw new CannotMergeError(
      'It has no identifier yet that could serve as an example.',
      0,
      'Add the first one by hand.',
    );
  const item = itemAround(holder, root, new Set(ids.map(({ start }) => start)));
  if (!item)
    throw new CannotMergeError(
      'It has only one identifier, so it is not clear which of its elements is repeated for each.',
      back(holder.start),
      'Add a second one by hand.',
    );
  const source = wrapped.slice(item.start, item.end);
  const elsewhere = [...descendants(item)].flatMap((element) => [
    ...element.attributes.map(({ value }) => value),
    ...(elements(element).length === 0 ? [textOf(element)] : []),
  ]);
  const others = elsewhere.filter((value) => value.trim() !== '' && value !== last.written);
  if (others.length > 0 || source.split(last.written).length !== 2)
    throw new CannotMergeError(
      `An item of this list says more than its identifier (“${(others[0] ?? last.written).trim().slice(0, 60)}”), which is unknown for the new ones.`,
      back(item.start),
      `Add them by hand: ${missing.join(', ')}.`,
    );
  const indent = indentAt(wrapped, item.start);
  const copies = missing.map((id) => eol + indent + source.replace(last.written, () => id));
  return [{ start: item.end, end: item.end, text: copies.join('') }];
}

/**
 * The element that is repeated for each identifier: the largest that holds one of them only. Of a single identifier
 * that can be determined only where nothing but its own element, or that and one around it, is in the list.
 */
function itemAround(holder: XmlElement, root: XmlElement, places: ReadonlySet<number>): XmlElement | null {
  const isAlone = places.size === 1;
  let item = holder;
  for (let levels = 0; ; levels++) {
    const { parent } = item;
    if (!parent || parent === root || parent.parent === root) return isAlone && levels > 1 ? null : item;
    const held = [...descendants(parent)].filter(({ start }) => places.has(start)).length;
    if (held > 1) return item;
    item = parent;
  }
}

/** The names that published lists use for an identifier in an object. */
const jsonKeys = ['skadnetwork_id', 'SKAdNetworkIdentifier', 'skAdNetworkIdentifier'];

function mergeIntoJson(text: string, missing: readonly string[]): string {
  const { root } = readJson(text);
  const found = root ? arrayOf(root, []) : undefined;
  if (!found)
    throw new CannotMergeError(
      'There is no array of identifiers in it.',
      0,
      'Add the first identifier by hand.',
    );
  return missing.reduce(
    (now, id) => applyEdits(now, appendJson(now, found.way, found.key === null ? id : { [found.key]: id })),
    text,
  );
}

/** The array for identifiers: the path to it, and the key in its items; null for plain strings. */
function arrayOf(
  node: Node,
  way: readonly string[],
): { way: readonly string[]; key: string | null } | undefined {
  const children = node.children ?? [];
  if (node.type === 'array') {
    const items = children.map(jsonValue);
    if (items.some((item) => typeof item === 'string' && normalId(item) !== null)) return { way, key: null };
    const key = jsonKeys.find((name) =>
      items.some((item) => item !== null && typeof item === 'object' && Object.hasOwn(item, name)),
    );
    if (key !== undefined) return { way, key };
    const isForThem = way.length === 0 || [itemsKey, 'skadnetwork_ids'].includes(way.at(-1) ?? '');
    return items.length === 0 && isForThem ? { way, key: 'skadnetwork_id' } : undefined;
  }
  for (const property of children) {
    const [key, value] = property.children ?? [];
    const below = value && arrayOf(value, [...way, String(key?.value)]);
    if (below) return below;
  }
  return undefined;
}
