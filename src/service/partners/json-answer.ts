/** An unvalidated object from the answer of a network. */
export type Row = Record<string, unknown>;

/** What names the next page; undefined on the last. */
export function cursorOf(value: unknown): string | undefined {
  return typeof value === 'string' || typeof value === 'number' ? String(value) || undefined : undefined;
}

/** A value as an object; an empty one for anything else. */
export function asRow(value: unknown): Row {
  return value && typeof value === 'object' && !Array.isArray(value) ? (value as Row) : {};
}
