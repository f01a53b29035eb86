import type { Edit } from '../../text/edit.js';
import { appendChild } from '../xml/edit.js';
import { escapeXml } from '../../text/escape-xml.js';
import type { PlistEntry, PlistValue } from './read.js';

/** Sets a key to a string: changes the existing value, or adds key and value at the end. */
export function setString(text: string, dict: PlistValue, key: string, value: string, eol: string): Edit[] {
  if (dict.type !== 'dict') return [];
  const found = dict.entries.find((entry) => entry.key === key);
  const written = `<string>${escapeXml(value)}</string>`;
  if (!found) return appendChild(text, dict.element, [`<key>${escapeXml(key)}</key>`, written], eol);
  const { element } = found.value;
  if (text.slice(element.start, element.end) === written) return [];
  return [{ start: element.start, end: element.end, text: written }];
}

/** Takes a key and its value out, with the lines that they leave empty. */
export function removeEntry(text: string, entry: PlistEntry): Edit {
  const { start } = entry.keyElement;
  const { end } = entry.value.element;
  const ownLines = /(^|[\r\n])[ \t]*$/.test(text.slice(0, start)) && /^[ \t]*(\r|\n|$)/.test(text.slice(end));
  if (!ownLines) return { start, end, text: '' };
  const before = /(\r\n|\n|\r)?[ \t]*$/.exec(text.slice(0, start))?.[0].length ?? 0;
  return { start: start - before, end, text: '' };
}
