import type { Edit } from '../../text/edit.js';
import { entryOf, type PbxDict, type PbxValue } from './read.js';

/** A string as it may be in a project file: bare where the syntax allows it, else in quotes. */
export function pbxString(value: string): string {
  if (/^[A-Za-z0-9_./]+$/.test(value) && !value.includes('//')) return value;
  return `"${value.replace(/\\/g, '\\\\').replace(/"/g, '\\"').replace(/\n/g, '\\n')}"`;
}

/** Gives a key of a dictionary a string value; a new key stands where the alphabet puts it, as Xcode writes them. */
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

/** Adds an item as the last line of a list. */
export function appendItem(text: string, list: PbxValue, item: string, eol: string): Edit {
  return closingLine(text, list, `${item},`, eol);
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
