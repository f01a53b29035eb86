import type { Stage } from '../../../words/words.js';
import { csharpText } from '../../../languages/csharp/placebook.js';
import type { PlainType, PlainValue } from '../../../formats/plist/plain.js';

/** An ID that differs by stage, or does not. */
export type StagedId = Record<Stage, string>;

/** What the build steps of a title do. */
export interface StepsContents {
  /** Fields of settings assets. */
  assets: { asset: string; field: string; ids: StagedId }[];
  /** Meta-data of the Android manifest. */
  metaData: { key: string; ids: StagedId }[];
  /** Keys of the property list. */
  keys: { key: string; value: boolean | StagedId }[];
  /** Texts for people in the property list, for where no other step wrote one. */
  texts: { key: string; value: string }[];
  /** Numbers, arrays and dictionaries of the property list, leaf by leaf. */
  entries: ListEntry[];
  attribution: string[];
  linkerFlags: string[];
}

/** A value below keys of the property list: a number, a flag or a text, or one more text of an array. */
export interface ListEntry {
  way: string[];
  type: 'string' | 'boolean' | 'integer' | 'real' | 'item';
  value: string;
}

/** The leaves of a value, each with the keys that lead to it; undefined where an array holds more than texts. */
export function listEntries(value: PlainValue, way: string[], type?: PlainType): ListEntry[] | undefined {
  if (Array.isArray(value)) {
    const items = value.flatMap((item) => (typeof item === 'string' ? [item] : []));
    if (items.length < value.length) return undefined;
    return items.map((item) => ({ way, type: 'item', value: item }));
  }
  if (typeof value === 'object') {
    const parts = Object.entries(value).map(([key, item]) => listEntries(item, [...way, key]));
    return parts.every((part) => part !== undefined) ? parts.flat() : undefined;
  }
  if (typeof value !== 'number') return [{ way, type: typeof value as 'string', value: String(value) }];
  const number = type === 'real' || !Number.isInteger(value) ? 'real' : 'integer';
  return [{ way, type: number, value: String(value) }];
}

/** An ID as the code of a step chooses it. */
export function chosen({ test, production }: StagedId, condition = 'AdsBuildSteps.development'): string {
  if (test === production) return csharpText(production);
  return `${condition} ? ${csharpText(test)} : ${csharpText(production)}`;
}
