import type { Edit } from '../../text/edit.js';
import { entryOf, type PbxDict, type PbxEntry, type PbxValue } from './read.js';

/**
 * A string as it may be in a project file: bare where it has only letters, digits and `_./`, else in quotes. Xcode
 * itself reads a few more characters bare; quotes are right for all of them.
 */
export function pbxString(value: string): string {
  if (/^[A-Za-z0-9_./]+$/.test(value) && !value.includes('//')) return value;
  const escaped = value.replace(/[\\"]/g, (sign) => `\\${sign}`);
  return `"${escaped.replace(/[\n\t\r]/g, (blank) => escapes.get(blank) ?? blank)}"`;
}

const escapes = new Map([
  ['\n', '\\n'],
  ['\t', '\\t'],
  ['\r', '\\r'],
]);

/** An object ID with the comment that names the object, as Xcode writes references. */
export function labelled(id: string, name: string): string {
  return `${id} /* ${name.replace(/\*\//g, '* /')} */`;
}

/** Sets a key of a dictionary to a string; a new key is inserted in alphabetical order, as Xcode writes them. */
export function setPbxString(text: string, dict: PbxDict, key: string, value: string, eol: string): Edit[] {
  const found = entryOf(dict, key);
  if (found) {
    if (found.value.type === 'string' && found.value.value === value) return [];
    return [{ start: found.value.start, end: found.value.end, text: pbxString(value) }];
  }
  const line = `${pbxString(key)} = ${pbxString(value)};`;
  const after = dict.entries.find((entry) => entry.key > key);
  if (after) return [insertLine(text, after.start, line, eol)];
  return [closingLine(text, dict, line, eol)];
}

/** Adds a string as the last line of a list. */
export function appendItem(text: string, list: PbxValue, value: string, eol: string): Edit {
  return closingLine(text, list, `${pbxString(value)},`, eol);
}

/** Adds a reference to an object (see `labelled`) as the last line of a list. */
export function appendReference(text: string, list: PbxValue, reference: string, eol: string): Edit {
  return closingLine(text, list, `${reference},`, eol);
}

/**
 * Adds a line within lines that open and close it, before a line that begins at an offset. Several lines with equal
 * surroundings come to be within one pair.
 */
export function insertEnclosed(
  lineStart: number,
  { open, line, close }: Record<'open' | 'line' | 'close', string>,
  eol: string,
): Edit {
  const block = { open: `${open}${eol}`, close: `${close}${eol}` };
  return { start: lineStart, end: lineStart, text: `${line}${eol}`, block };
}

/** Adds a line before the place where an entry begins, indented as the entry is. */
export function insertLine(text: string, start: number, line: string, eol: string): Edit {
  const lineStart = Math.max(text.lastIndexOf('\n', start - 1), text.lastIndexOf('\r', start - 1)) + 1;
  const indent = text.slice(lineStart, start);
  if (!/^[ \t]*$/.test(indent)) return { start, end: start, text: `${line} ` };
  return { start: lineStart, end: lineStart, text: `${indent}${line}${eol}` };
}

/** Adds a line before the closing bracket, one step deeper than the bracket. */
function closingLine(text: string, container: PbxValue, line: string, eol: string): Edit {
  const close = container.end - 1;
  const lineStart = Math.max(text.lastIndexOf('\n', close - 1), text.lastIndexOf('\r', close - 1)) + 1;
  const indent = text.slice(lineStart, close);
  if (!/^[ \t]*$/.test(indent)) return { start: close, end: close, text: `${line} ` };
  return { start: lineStart, end: lineStart, text: `${indent}\t${line}${eol}` };
}

/** The line that holds an offset, with its line end. */
export function wholeLine(text: string, offset: number): { start: number; end: number } {
  const start = Math.max(text.lastIndexOf('\n', offset - 1), text.lastIndexOf('\r', offset - 1)) + 1;
  const rest = /[^\r\n]*(\r\n|\n|\r)?/.exec(text.slice(offset))?.[0].length ?? 0;
  return { start, end: offset + rest };
}

/** The lines that an entry fills; only the entry itself where something else is on them. */
export function entryLines(text: string, { start, end }: PbxEntry): { start: number; end: number } {
  const first = wholeLine(text, start);
  const last = wholeLine(text, Math.max(start, end - 1));
  const alone = text.slice(first.start, start).trim() === '' && text.slice(end, last.end).trim() === '';
  return alone ? { start: first.start, end: last.end } : { start, end };
}

/** Removes an item from a list, with its comment and comma, and with its line if nothing else is on it. */
export function removeItem(text: string, item: PbxValue): Edit {
  const line = wholeLine(text, item.start);
  const behind = /^(?: \/\*.*?\*\/)?,?/.exec(text.slice(item.end, line.end))?.[0].length ?? 0;
  const end = item.end + behind;
  const alone = text.slice(line.start, item.start).trim() === '' && text.slice(end, line.end).trim() === '';
  if (alone) return { ...line, text: '' };
  return { start: item.start, end: text.startsWith(' ', end) ? end + 1 : end, text: '' };
}

/** Removes words from a setting; the setting is removed if only $(inherited) is left. */
export function removeWords(text: string, setting: PbxEntry | undefined, words: readonly string[]): Edit[] {
  if (!setting || words.length === 0) return [];
  const { value } = setting;
  if (value.type === 'list')
    return value.items
      .filter((item) => item.type === 'string' && words.includes(item.value))
      .map((item) => removeItem(text, item));
  if (value.type !== 'string') return [];
  const all = value.value.split(/\s+/);
  const left = all.filter((word) => !words.includes(word));
  if (left.length === all.length) return [];
  if (left.join(' ') === '$(inherited)') return [{ ...entryLines(text, setting), text: '' }];
  return [{ start: value.start, end: value.end, text: pbxString(left.join(' ')) }];
}
