import type { Edit } from '../../text/edit.js';
import { identifierKey, itemsKey, normalId } from '../../standards/skadnetwork.js';
import { appendChild, insertBefore, removeElement } from '../xml/edit.js';
import type { PlistValue } from './read.js';

/**
 * Adds identifiers to the attribution list of a property list, each before the next one in alphabetical order, so that
 * a sorted list stays sorted; duplicates are removed.
 */
export function mergeAttribution(
  text: string,
  dict: PlistValue,
  wanted: readonly string[],
  eol: string,
): Edit[] {
  if (dict.type !== 'dict') return [];
  const items = dict.entries.find(({ key }) => key === itemsKey)?.value;
  const sorted = [...new Set(wanted)].sort();
  if (!items) {
    const block = sorted.flatMap((id) => itemLines(id).map((line) => `  ${line}`));
    return sorted.length === 0
      ? []
      : appendChild(text, dict.element, [`<key>${itemsKey}</key>`, '<array>', ...block, '</array>'], eol);
  }
  if (items.type !== 'array') return [];
  const there = items.items.map((item) => ({ item, id: idOf(item) }));
  const seen = new Set<string>();
  const edits: Edit[] = [];
  for (const { item, id } of there) {
    if (id !== null && seen.has(id)) edits.push(removeElement(text, item.element));
    else if (id !== null) seen.add(id);
  }
  const missing = sorted.filter((id) => !seen.has(id));
  const before = new Map<PlistValue | null, string[]>();
  for (const id of missing) {
    const next = there.find((entry) => entry.id !== null && entry.id > id)?.item ?? null;
    before.set(next, [...(before.get(next) ?? []), id]);
  }
  for (const [next, ids] of before) {
    const lines = ids.flatMap(itemLines);
    edits.push(
      ...(next
        ? [insertBefore(text, next.element, lines, eol)]
        : appendChild(text, items.element, lines, eol)),
    );
  }
  return edits;
}

function idOf(item: PlistValue): string | null {
  if (item.type !== 'dict') return null;
  const entry = item.entries.find(({ key }) => key === identifierKey);
  return entry?.value.type === 'string' ? normalId(entry.value.value) : null;
}

/** The lines of an item, each level two blanks further in. */
export function itemLines(id: string): string[] {
  return ['<dict>', `  <key>${identifierKey}</key>`, `  <string>${id}</string>`, '</dict>'];
}
