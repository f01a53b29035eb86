import type { Edit } from '../../text/edit.js';
import { readXcconfig } from './read.js';

/** Gives a key a value: changes the last line that sets it, or adds one at the end. */
export function setXcconfig(text: string, key: string, value: string, eol: string): Edit[] {
  const found = readXcconfig(text)
    .settings.filter((setting) => setting.key === key)
    .at(-1);
  if (!found) {
    const ended = text === '' || /[\r\n]$/.test(text);
    const line = `${key} = ${value}`;
    return [{ start: text.length, end: text.length, text: ended ? `${line}${eol}` : `${eol}${line}` }];
  }
  if (found.value === value) return [];
  const line = text.slice(found.start, found.end);
  const equals = line.indexOf('=') + 1;
  const at = found.value === '' ? line.length : line.indexOf(found.value, equals);
  const start = found.start + at;
  return [{ start, end: start + found.value.length, text: found.value === '' ? ` ${value}` : value }];
}

/** Takes a line out with its line end; the last line of a text that ends without one goes with the end before it. */
export function removeLine(text: string, span: { start: number; end: number }): Edit {
  const after = /^[ \t]*(\r\n|\n|\r)/.exec(text.slice(span.end, span.end + 200));
  if (after) return { start: span.start, end: span.end + after[0].length, text: '' };
  const before = /(\r\n|\n|\r)$/.exec(text.slice(Math.max(0, span.start - 2), span.start));
  return { start: span.start - (before?.[0].length ?? 0), end: text.length, text: '' };
}
