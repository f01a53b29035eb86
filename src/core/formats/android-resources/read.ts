import type { ReadProblem, Span } from '../../text/problem.js';
import { attribute, elements, textOf } from '../xml/query.js';
import { readXml } from '../xml/read.js';
import type { XmlElement } from '../xml/model.js';

/** A `<string>` of a resource file. */
export interface StringResource extends Span {
  name: string;
  /** As the app sees it: white space outside quotes folded and trimmed, escapes replaced. */
  value: string;
  /** As it is between the tags. */
  raw: string;
  element: XmlElement;
}

/**
 * The string resources of a `res/values*` file. Source of the white space rule: the Android guide to string
 * resources, "White space collapsing and Android escaping".
 */
export function readStrings(text: string): {
  strings: StringResource[];
  root: XmlElement | null;
  problems: ReadProblem[];
} {
  const { root, problems } = readXml(text);
  if (root?.name !== 'resources') return { strings: [], root, problems };
  const strings = elements(root).flatMap((element): StringResource[] => {
    const isString =
      element.name === 'string' ||
      (element.name === 'item' && attribute(element, 'type')?.value === 'string');
    const name = attribute(element, 'name')?.value;
    if (!isString || name === undefined) return [];
    const raw = textOf(element);
    return [{ name, value: visibleText(raw), raw, element, start: element.start, end: element.end }];
  });
  return { strings, root, problems };
}

function visibleText(raw: string): string {
  let result = '';
  let quoted = false;
  for (let i = 0; i < raw.length; i++) {
    const char = raw[i] ?? '';
    if (char === '\\') {
      const next = raw[++i] ?? '';
      result += next === 'n' ? '\n' : next === 't' ? '\t' : next;
    } else if (char === '"') quoted = !quoted;
    else if (!quoted && /\s/.test(char)) result += result.endsWith(' ') ? '' : ' ';
    else result += char;
  }
  return result.trim();
}
