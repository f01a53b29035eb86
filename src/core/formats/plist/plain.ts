import * as z from 'zod';
import { valueAt } from '../../text/own-values.js';
import { escapeXml } from '../../text/escape-xml.js';
import type { PlistValue } from './read.js';

/** A value of a property list in the form of JSON: strings, numbers, booleans, arrays and dictionaries of them. */
export type PlainValue = string | number | boolean | PlainValue[] | { [key: string]: PlainValue };

export const PlainValue: z.ZodType<PlainValue> = z.lazy(() =>
  z.union([
    z.string().max(1000),
    z.number(),
    z.boolean(),
    z.array(PlainValue).max(200),
    z.record(z.string().min(1).max(200), PlainValue),
  ]),
);

/** The types of property lists that profiles may ask for. */
export const plainTypes = ['string', 'boolean', 'integer', 'real', 'array', 'dict'] as const;
export type PlainType = (typeof plainTypes)[number];

/** Whether a value can be written as one of a type. */
export function isOfType(value: PlainValue, type: PlainType): boolean {
  if (type === 'array') return Array.isArray(value);
  if (type === 'dict') return typeof value === 'object' && !Array.isArray(value);
  if (type === 'integer') return Number.isSafeInteger(value);
  if (type === 'real') return typeof value === 'number';
  return typeof value === type;
}

/** The type that a value is written as. */
export function typeName(value: PlainValue): PlainType {
  return plainTypes.find((type) => isOfType(value, type)) ?? 'string';
}

/** Whether a value of one type is accepted where another is required. An integer is accepted as a real. */
export function serves(found: string, asked: PlainType): boolean {
  return found === asked || (found === 'integer' && asked === 'real');
}

/** The lines of a value in XML, in steps of two blanks. */
export function plainLines(value: PlainValue, type?: PlainType): string[] {
  if (Array.isArray(value))
    return value.length === 0
      ? ['<array/>']
      : ['<array>', ...indented(value.flatMap((item) => plainLines(item))), '</array>'];
  if (typeof value === 'object') {
    const entries = Object.entries(value);
    if (entries.length === 0) return ['<dict/>'];
    const lines = entries.flatMap(([key, item]) => [`<key>${escapeXml(key)}</key>`, ...plainLines(item)]);
    return ['<dict>', ...indented(lines), '</dict>'];
  }
  if (typeof value === 'boolean') return [value ? '<true/>' : '<false/>'];
  if (typeof value === 'string') return [`<string>${escapeXml(value)}</string>`];
  const name = type === 'real' || !Number.isInteger(value) ? 'real' : 'integer';
  return [`<${name}>${value}</${name}>`];
}

/** What was put into a value that was there: the way to an entry of a dictionary, or to an array and its new item. */
export interface Merged {
  way: string[];
  /** The item of the array at the end of the way. */
  item?: PlainValue;
}

/** A parsed value in the form of JSON; dates and data become their text. */
export function plainOf(value: PlistValue): PlainValue {
  if (value.type === 'array') return value.items.map(plainOf);
  if (value.type === 'dict')
    return Object.fromEntries(value.entries.map(({ key, value: item }) => [key, plainOf(item)]));
  if (value.type === 'integer' || value.type === 'real') return Number(value.value.trim());
  return value.value;
}

/**
 * Whether a value contains what is required: the same string, number or boolean; an array with every required item; a
 * dictionary with the required value at every required key. Further content does not matter.
 */
export function holdsPlain(found: PlainValue, wanted: PlainValue): boolean {
  return lackingIn(found, wanted).length === 0;
}

/** The paths, key by key, to required content that a value lacks; an empty path means the value itself. */
export function lackingIn(found: PlainValue | undefined, wanted: PlainValue): string[][] {
  if (Array.isArray(wanted)) {
    if (!Array.isArray(found)) return [[]];
    return wanted.every((item) => found.some((one) => holdsPlain(one, item))) ? [] : [[]];
  }
  if (typeof wanted !== 'object') return found === wanted ? [] : [[]];
  if (typeof found !== 'object' || Array.isArray(found)) return [[]];
  return Object.entries(wanted).flatMap(([key, item]) =>
    lackingIn(valueAt(found, key), item).map((way) => [key, ...way]),
  );
}

/** A value in the form of facts: its type, its text, and its content if it is an array or a dictionary. */
interface WrittenValue {
  type: string;
  value: string;
  content?: PlainValue | undefined;
}

/** What has to be added to a value so that it says all that is wanted: entries of dictionaries and items of arrays. */
export function additions(found: PlainValue, wanted: PlainValue, way: string[] = []): Merged[] {
  if (Array.isArray(wanted) && Array.isArray(found))
    return wanted
      .filter((item) => !found.some((one) => holdsPlain(one, item)))
      .map((item) => ({ way, item }));
  if (typeof wanted !== 'object' || Array.isArray(wanted)) return found === wanted ? [] : [{ way }];
  if (typeof found !== 'object' || Array.isArray(found)) return [{ way }];
  return Object.entries(wanted).flatMap(([key, item]): Merged[] => {
    const held = valueAt(found, key);
    return held === undefined ? [{ way: [...way, key] }] : additions(held, item, [...way, key]);
  });
}

/** The entry of a dictionary; undefined where a value is none, or has no such key. */
export function entryOf(value: PlainValue | undefined, key: string): PlainValue | undefined {
  return typeof value === 'object' && !Array.isArray(value) ? valueAt(value, key) : undefined;
}

/** A value of a fact in the form of JSON. */
export function plainOfWritten({ type, value, content }: WrittenValue): PlainValue {
  if (content !== undefined) return content;
  if (type === 'boolean') return value === 'true';
  return type === 'integer' || type === 'real' ? Number(value) : value;
}

/** The content of an array or a dictionary, for a fact; undefined for other values, whose text is enough. */
export function contentOf(value: PlistValue | undefined): { content?: PlainValue } {
  return value?.type === 'array' || value?.type === 'dict' ? { content: plainOf(value) } : {};
}

/** A value on one line, for messages. */
export function plainText(value: PlainValue): string {
  return typeof value === 'string' ? value : JSON.stringify(value);
}

function indented(lines: readonly string[]): string[] {
  return lines.map((line) => `  ${line}`);
}
