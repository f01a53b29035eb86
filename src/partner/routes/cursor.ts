/** Encodes a position in a long list. */
export function cursorFor(from: number): string {
  return `p${from.toString(36)}`;
}

/** The position of a cursor; the start for an invalid one. */
export function cursorIn(value: unknown): number {
  return typeof value === 'string' && /^p[0-9a-z]{1,8}$/.test(value) ? parseInt(value.slice(1), 36) : 0;
}
