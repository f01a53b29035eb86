import * as z from 'zod';
import { valueAt } from '../text/own-values.js';
/** One field that differs between two values. `was` or `is` is undefined where the field is absent. */
export interface FieldChange {
  path: string;
  was: unknown;
  is: unknown;
}

/**
 * The fields that differ between two JSON values, in a stable order. Lists are compared as a whole; an added or removed
 * object is one change, with its content.
 */
export function compare(was: unknown, is: unknown, path: readonly string[] = []): FieldChange[] {
  if (isRecord(was) && isRecord(is)) {
    const keys = [...new Set([...Object.keys(was), ...Object.keys(is)])];
    return keys.flatMap((key) => compare(valueAt(was, key), valueAt(is, key), [...path, key]));
  }
  if (same(was, is)) return [];
  return [{ path: path.join('.'), was, is }];
}

export const ThreeWayChange = z
  .object({
    path: z.string(),
    base: z.unknown().optional(),
    record: z.unknown().optional(),
    document: z.unknown().optional(),
    conflict: z.boolean().meta({ description: 'Both sides changed it, to different values.' }),
  })
  .meta({ description: 'A field that one or both sides changed since a common base.' });
export type ThreeWayChange = z.infer<typeof ThreeWayChange>;

/** What each of two descendants changed of a common base. */
export function compareThreeWays(base: unknown, record: unknown, document: unknown): ThreeWayChange[] {
  const ours = new Map(compare(base, record).map((change) => [change.path, change]));
  const theirs = new Map(compare(base, document).map((change) => [change.path, change]));
  return [...new Set([...ours.keys(), ...theirs.keys()])].sort().map((path) => {
    const [mine, other] = [ours.get(path), theirs.get(path)];
    const from = mine ? mine.was : other?.was;
    const [inRecord, inDocument] = [mine ? mine.is : from, other ? other.is : from];
    return {
      path,
      base: from,
      record: inRecord,
      document: inDocument,
      conflict: !!mine && !!other && !same(inRecord, inDocument),
    };
  });
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function same(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}
