import { putAt, valueAt } from '../text/own-values.js';
import type { FieldChange } from './compare.js';

/** Takes changes back: the value as it was before them. The last change is undone first. */
export function revert(value: unknown, changes: readonly FieldChange[]): unknown {
  const result = structuredClone(value);
  for (const { path, was } of [...changes].reverse()) setPath(result, path.split('.'), was);
  return result;
}

function setPath(root: unknown, path: readonly string[], value: unknown): void {
  let at = root as Record<string, unknown>;
  for (const step of path.slice(0, -1)) {
    const next = valueAt(at, step);
    const made: Record<string, unknown> = {};
    if (typeof next !== 'object' || next === null) putAt(at, step, made);
    at = typeof next === 'object' && next !== null ? (next as Record<string, unknown>) : made;
  }
  const last = path.at(-1);
  if (last === undefined) return;
  if (value === undefined) Reflect.deleteProperty(at, last);
  else putAt(at, last, structuredClone(value));
}
