import type { Edit } from '../../text/edit.js';
import type { UnityNode } from './read.js';

/** A scalar as Unity writes it: quoted only where it would be read as something else. */
function scalar(value: string): string {
  const isPlain = /^[A-Za-z0-9_./$(][^\r\n]*$/.test(value) && !/: |:$| #|^\s|\s$|["'{}[\],&*]/.test(value);
  return value === '' || isPlain ? value : `'${value.replace(/'/g, "''")}'`;
}

/** Gives an entry another value. */
export function setUnityValue(text: string, { value, valueSpan }: UnityNode, wanted: string): Edit[] {
  if (value === wanted) return [];
  // A key that is without a value has no blank behind it yet.
  const before = valueSpan.start === valueSpan.end && text[valueSpan.start - 1] === ':' ? ' ' : '';
  return [{ ...valueSpan, text: `${before}${scalar(wanted)}` }];
}

/** Adds an entry to the end of a map; one that is written as `{}` is opened. */
export function addUnityEntry(text: string, map: UnityNode, key: string, value: string, eol: string): Edit[] {
  const last = map.children.at(-1);
  const indent = ' '.repeat(last?.indent ?? map.indent + 2);
  const line = `${indent}${key}: ${scalar(value)}`;
  if (!last) {
    const blank = text[map.valueSpan.start - 1] === ' ' ? 1 : 0;
    return [{ start: map.valueSpan.start - blank, end: map.valueSpan.end, text: `${eol}${line}` }];
  }
  const closed = /[\r\n]$/.test(text.slice(0, last.end));
  return [{ start: last.end, end: last.end, text: closed ? `${line}${eol}` : `${eol}${line}` }];
}

/** Takes an entry out of a map; one that is left without any is written as `{}` again. */
export function removeUnityEntry(text: string, map: UnityNode, entry: UnityNode): Edit {
  if (map.children.length > 1) return { start: entry.start, end: entry.end, text: '' };
  const start = map.valueSpan.start - (/[ \t]$/.test(text.slice(0, map.valueSpan.start)) ? 1 : 0);
  const end = entry.end - (/(?:\r\n|\n|\r)$/.exec(text.slice(0, entry.end))?.[0].length ?? 0);
  return { start, end, text: ' {}' };
}
