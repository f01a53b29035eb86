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
