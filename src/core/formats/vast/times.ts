/** Milliseconds of `HH:MM:SS` or `HH:MM:SS.mmm` (VAST 4.2, section 3.8.1); undefined where it is written otherwise. */
export function millisecondsOf(text: string): number | undefined {
  const found = /^(\d{1,3}):([0-5]\d):([0-5]\d)(?:\.(\d{1,3}))?$/.exec(text.trim());
  if (!found) return undefined;
  const [hours, minutes, seconds] = found.slice(1, 4).map(Number);
  const rest = Number((found[4] ?? '').padEnd(3, '0'));
  return (((hours ?? 0) * 60 + (minutes ?? 0)) * 60 + (seconds ?? 0)) * 1000 + rest;
}

/** An offset into a video: a time, or a percentage of its duration. */
export type Offset = { ms: number } | { percent: number };

/** An offset as `skipoffset` and `offset` hold it: `00:00:05` or `25%`; undefined where it is written otherwise. */
export function offsetOf(text: string): Offset | undefined {
  const percent = /^(\d{1,3}(?:\.\d+)?)%$/.exec(text.trim());
  if (percent) {
    const share = Number(percent[1]);
    return share <= 100 ? { percent: share } : undefined;
  }
  const ms = millisecondsOf(text);
  return ms === undefined ? undefined : { ms };
}

/** Resolves an offset against a duration; both in milliseconds. */
export function inFilm(offset: Offset, length: number): number {
  return 'ms' in offset ? offset.ms : Math.round((offset.percent / 100) * length);
}
