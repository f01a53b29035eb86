import type { Edit } from '../../text/edit.js';
import { appendChild } from '../xml/edit.js';
import { escapeXml } from '../../text/escape-xml.js';
import {
  holdsPlain,
  plainLines,
  plainOf,
  serves,
  type Merged,
  type PlainType,
  type PlainValue,
} from './plain.js';
import type { PlistValue } from './read.js';

/**
 * The edits that make a value say all that is wanted and keep everything else in it: dictionaries get the keys that
 * they lack, arrays the items. What has another type or another text is replaced, and is not in `added`.
 */
export function mergeValue(
  text: string,
  found: PlistValue,
  wanted: PlainValue,
  { type, lineEnd }: { type?: PlainType; lineEnd: string },
): { edits: Edit[]; added: Merged[] } {
  if (found.type === 'dict' && typeof wanted === 'object' && !Array.isArray(wanted))
    return mergeDict(text, found, wanted, lineEnd);
  if (found.type === 'array' && Array.isArray(wanted)) {
    const lacking = wanted.filter((item) => !found.items.some((one) => holdsPlain(plainOf(one), item)));
    if (lacking.length === 0) return { edits: [], added: [] };
    const lines = lacking.flatMap((item) => plainLines(item));
    return {
      edits: appendChild(text, found.element, lines, lineEnd),
      added: lacking.map((item) => ({ way: [], item })),
    };
  }
  if (isSame(found, wanted, type)) return { edits: [], added: [] };
  const { start, end } = found.element;
  return { edits: [{ start, end, text: plainLines(wanted, type).join(lineEnd) }], added: [] };
}

function isSame(found: PlistValue, wanted: PlainValue, type: PlainType | undefined): boolean {
  return (type === undefined || serves(found.type, type)) && holdsPlain(plainOf(found), wanted);
}

function mergeDict(
  text: string,
  found: PlistValue & { type: 'dict' },
  wanted: Record<string, PlainValue>,
  lineEnd: string,
): { edits: Edit[]; added: Merged[] } {
  const edits: Edit[] = [];
  const added: Merged[] = [];
  const lines: string[] = [];
  for (const [key, item] of Object.entries(wanted)) {
    const entry = found.entries.find((one) => one.key === key);
    if (!entry) {
      lines.push(`<key>${escapeXml(key)}</key>`, ...plainLines(item));
      added.push({ way: [key] });
      continue;
    }
    const below = mergeValue(text, entry.value, item, { lineEnd });
    edits.push(...below.edits);
    added.push(...below.added.map((one) => ({ ...one, way: [key, ...one.way] })));
  }
  if (lines.length > 0) edits.push(...appendChild(text, found.element, lines, lineEnd));
  return { edits, added };
}
