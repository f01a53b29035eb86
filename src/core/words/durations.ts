const seconds = { s: 1, m: 60, h: 3600, d: 86400 } as const;

/** A duration such as `2m`, in seconds. */
export function durationSeconds(duration: string): number {
  return parseInt(duration, 10) * seconds[duration.slice(-1) as keyof typeof seconds];
}

const milliseconds = new Map([
  ['', 0],
  ['ms', 1],
  ['s', 1_000],
  ['m', 60_000],
  ['h', 3_600_000],
  ['d', 86_400_000],
]);

/** A duration such as `400ms`, `60s`, `2h` or `0`, in milliseconds. */
export function durationMs(text: string): number {
  const [, count = '0', unit = ''] = /^(\d+)([a-z]*)$/.exec(text) ?? [];
  return Number(count) * (milliseconds.get(unit) ?? 0);
}
