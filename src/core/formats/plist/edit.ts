import type { Edit } from '../../text/edit.js';
import { appendChild, escapeXml, removeElement } from '../xml/edit.js';
import type { PlistEntry, PlistValue } from './read.js';

/** Gives a key a string value: changes the one that stands there, or adds key and value at the end. */
export function setString(text: string, dict: PlistValue, key: string, value: string, eol: string): Edit[] {
  if (dict.type !== 'dict') return [];
  const found = dict.entries.find((entry) => entry.key === key);
  const written = `<string>${escapeXml(value)}</string>`;
  if (!found) return [appendChild(text, dict.element, [`<key>${escapeXml(key)}</key>`, written], eol)];
  const { element } = found.value;
  if (text.slice(element.start, element.end) === written) return [];
  return [{ start: element.start, end: element.end, text: written }];
}

/** Takes a key and its value out. */
export function removeEntry(text: string, entry: PlistEntry): Edit {
  const { start } = removeElement(text, entry.keyElement);
  const { end } = removeElement(text, entry.value.element);
  const leading = text.slice(0, entry.start).search(/[\r\n]*[ \t]*$/);
  return { start: Math.min(start, leading < 0 ? start : leading), end, text: '' };
}
