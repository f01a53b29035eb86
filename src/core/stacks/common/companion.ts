import { jsonValue, nodesAt, readJson } from '../../formats/json/read.js';
import { plistText, type PlistValue } from '../../formats/plist/read.js';
import type { Span } from '../../text/problem.js';
import type { Companion } from '../../network/needs.js';
import type { Tree } from '../../tree/tree.js';
import { propertiesOf } from './plist/properties.js';

/** The application identifiers that a companion file names, with their places. */
export function companionIdentifiers(
  tree: Tree,
  path: string,
  { format, identifier }: Companion,
): (Span & { value: string })[] {
  if (format === 'json') {
    const document = tree.read(path, readJson);
    return nodesAt(document?.root ?? null, identifier).flatMap((node) => {
      const value = jsonValue(node);
      return typeof value === 'string' ? [{ value, start: node.offset, end: node.offset + node.length }] : [];
    });
  }
  const root = propertiesOf(tree, path)?.root;
  let values: PlistValue[] = root ? [root] : [];
  for (const step of identifier) values = values.flatMap((value) => into(value, step));
  return values.flatMap((value) =>
    value.type === 'string'
      ? [{ value: plistText(value), start: value.element.start, end: value.element.end }]
      : [],
  );
}

function into(value: PlistValue, step: string): PlistValue[] {
  if (value.type === 'array') {
    const item = value.items[Number(step)];
    return step === '*' ? value.items : item ? [item] : [];
  }
  if (value.type !== 'dict') return [];
  return value.entries.filter(({ key }) => step === '*' || key === step).map((entry) => entry.value);
}
