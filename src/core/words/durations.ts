const seconds = { s: 1, m: 60, h: 3600, d: 86400 } as const;

/** A duration such as `2m`, in seconds. */
export function durationSeconds(duration: string): number {
  return parseInt(duration, 10) * seconds[duration.slice(-1) as keyof typeof seconds];
}
