import { putAt, valueAt } from '../text/own-values.js';
import type { ThreeWayChange } from './compare.js';
import { Roster } from './model.js';

/** Which side a field is taken from, where the record and a document both changed it. */
export type Settled = ReadonlyMap<string, 'record' | 'document'>;

/**
 * Brings the changes of a document, which was written from an earlier record, into the record as it is now. Where only the
 * document changed a field, its value is taken; where both did, the one that somebody chose.
 * @param record the record as it is now
 * @param changes the fields that differ, as a stale import answers with
 * @throws Error when a conflict is not settled, or the fields make no roster
 */
export function mergeIntoRecord(
  record: Roster,
  changes: readonly ThreeWayChange[],
  settled: Settled,
): Roster {
  const merged = structuredClone(record) as Record<string, unknown>;
  for (const { path, base, document, conflict } of changes) {
    const isChanged = JSON.stringify(base) !== JSON.stringify(document);
    const side = conflict ? settled.get(path) : isChanged ? 'document' : 'record';
    if (side === undefined) throw new Error(`No value was chosen for ${path}.`);
    if (side === 'document') setAt(merged, path.split('.'), document);
  }
  return Roster.parse(merged);
}

/** Sets a field, or takes it out when there is no value; what is above it is made where it lacks. */
function setAt(
  table: Record<string, unknown>,
  [key = '', ...below]: readonly string[],
  value: unknown,
): void {
  if (below.length === 0) {
    if (value === undefined) Reflect.deleteProperty(table, key);
    else putAt(table, key, value);
    return;
  }
  const inner = valueAt(table, key);
  if (typeof inner === 'object' && inner !== null) setAt(inner as Record<string, unknown>, below, value);
  else if (value !== undefined) {
    const made: Record<string, unknown> = {};
    putAt(table, key, made);
    setAt(made, below, value);
  }
}
