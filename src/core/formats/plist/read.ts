import { counted } from '../../text/counted.js';
import type { ReadProblem, Span } from '../../text/problem.js';
import { elements, textOf } from '../xml/query.js';
import { readXml } from '../xml/read.js';
import type { XmlElement } from '../xml/model.js';

export type PlistValue =
  | { type: 'string' | 'integer' | 'real' | 'date' | 'data'; value: string; element: XmlElement }
  | { type: 'boolean'; value: boolean; element: XmlElement }
  | { type: 'array'; items: PlistValue[]; element: XmlElement }
  | { type: 'dict'; entries: PlistEntry[]; element: XmlElement };

/** One key of a dictionary with its value and the places of both. */
export interface PlistEntry extends Span {
  key: string;
  keyElement: XmlElement;
  value: PlistValue;
}

export interface PlistDocument {
  root: PlistValue | null;
  problems: ReadProblem[];
  /** Set for a binary list: it has no lines, and cannot be edited as text. */
  binary?: true;
}

/** Reads an XML property list with the place of every key and value. */
export function readPlist(text: string): PlistDocument {
  const { root, problems } = readXml(text);
  if (!root) return { root: null, problems };
  const top = root.name === 'plist' ? elements(root)[0] : root;
  if (root.name !== 'plist')
    problems.push(problemAt(root, `The root element is <${root.name}>, not <plist>.`));
  if (!top) {
    problems.push(problemAt(root, 'The property list is empty.'));
    return { root: null, problems };
  }
  return { root: readValue(top, problems), problems };
}

/** The entries of the top dictionary; none when the list is no dictionary. */
export function topEntries(document: PlistDocument): PlistEntry[] {
  return document.root?.type === 'dict' ? document.root.entries : [];
}

/** A value as a person would write it down. */
export function plistText(value: PlistValue): string {
  if (value.type === 'array') return counted(value.items.length, 'item');
  if (value.type === 'dict') return counted(value.entries.length, 'key');
  return String(value.value);
}

function readValue(element: XmlElement, problems: ReadProblem[]): PlistValue {
  switch (element.name) {
    case 'string':
    case 'integer':
    case 'real':
    case 'date':
    case 'data':
      return { type: element.name, value: textOf(element), element };
    case 'true':
    case 'false':
      return { type: 'boolean', value: element.name === 'true', element };
    case 'array':
      return { type: 'array', items: elements(element).map((item) => readValue(item, problems)), element };
    case 'dict':
      return { type: 'dict', entries: readEntries(element, problems), element };
    default:
      problems.push(problemAt(element, `A property list has no element <${element.name}>.`));
      return { type: 'string', value: textOf(element), element };
  }
}

function readEntries(dict: XmlElement, problems: ReadProblem[]): PlistEntry[] {
  const entries: PlistEntry[] = [];
  let key: XmlElement | undefined;
  for (const child of elements(dict)) {
    if (child.name === 'key') {
      if (key) problems.push(problemAt(key, `The key ${textOf(key)} has no value.`));
      key = child;
    } else if (key) {
      const value = readValue(child, problems);
      entries.push({ key: textOf(key), keyElement: key, value, start: key.start, end: child.end });
      key = undefined;
    } else {
      problems.push(problemAt(child, `There is a <${child.name}> without a key before it.`));
    }
  }
  if (key) problems.push(problemAt(key, `The key ${textOf(key)} has no value.`));
  return entries;
}

function problemAt(element: XmlElement, message: string): ReadProblem {
  return { message, ...element.openTag };
}
