import { plainText, type Merged, type PlainValue } from '../../../formats/plist/plain.js';

/** Says that wiring put a key into a property list. */
export const keyMark = (key: string): string => `key ${key}`;

/** Says that wiring put an entry or an item into the value of a key that was there. */
export function mergedMark(key: string, { way, item }: Merged): string {
  const where = ['in', key, ...way].join(' › ');
  return item === undefined ? where : `${where}: ${plainText(item)}`;
}

/** Whether wiring made the value at a way below a key: by itself, or with something around it. */
export function isMade(added: ReadonlySet<string>, key: string, way: string[], item?: PlainValue): boolean {
  return (
    added.has(keyMark(key)) ||
    added.has(mergedMark(key, { way, ...(item === undefined ? {} : { item }) })) ||
    way.some((_, at) => added.has(mergedMark(key, { way: way.slice(0, at + 1) })))
  );
}
