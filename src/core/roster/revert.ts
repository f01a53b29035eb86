import { valueAt } from '../text/own-values.js';
import { compare } from './compare.js';
import { Title } from './model.js';

/** What reverting a change gives: the title as it would be, or why it cannot be. */
export type Reverted =
  | { title: Title }
  | { why: 'added-by-it' }
  /** Something else is there since. */
  | { why: 'changed-since'; now: unknown };

/**
 * Takes one change of a title back: its field gets the value that it had before.
 * @param path of the field, from the root of the record: `titles.kelp.name`
 */
export function revertChange(
  title: Title,
  { path, was, is }: { path: string; was: unknown; is: unknown },
): Reverted {
  const names = path.split('.').slice(2);
  if (names.length === 0) {
    if (was === null || was === undefined) return { why: 'added-by-it' };
    return { title: Title.parse(was) };
  }
  const now = valueIn(title, names);
  if (compare(now ?? null, is ?? null).length > 0) return { why: 'changed-since', now };
  return { title: Title.parse(withValue(title, names, was ?? undefined)) };
}

function valueIn(value: unknown, names: readonly string[]): unknown {
  return names.reduce<unknown>((inner, name) => (isObject(inner) ? valueAt(inner, name) : undefined), value);
}

/** A copy with one field set, or removed if the value is undefined. Missing objects on the path are created. */
function withValue(value: unknown, [name, ...rest]: readonly string[], next: unknown): unknown {
  if (name === undefined) return next;
  const entries = new Map(Object.entries(isObject(value) ? value : {}));
  const inner = withValue(entries.get(name), rest, next);
  if (inner === undefined) entries.delete(name);
  else entries.set(name, inner);
  return Object.fromEntries(entries);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
