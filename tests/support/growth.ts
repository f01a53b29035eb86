import { expect } from 'vitest';

/** Lengths that are compared: the longer one is ten times the shorter one. */
const [short, long] = [10_000, 100_000];
/** What takes less time of the processor than this (ms) is linear enough, however it compares. */
const unnoticed = 60;

function best(make: () => () => unknown, rounds: number): number {
  let least = Infinity;
  for (let round = 0; round < rounds; round++) {
    const work = make();
    const from = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(from);
    least = Math.min(least, (user + system) / 1000);
  }
  return least;
}

/**
 * Holds a reader to time that grows with the length of its text: for ten times as much it may take up to 40 times
 * as long, because other work goes on beside it. What compares all with all takes a hundred times as long.
 */
export function grows(make: (length: number) => () => unknown): void {
  const [little, much] = [best(() => make(short), 3), best(() => make(long), 3)];
  if (much < unnoticed) return;
  expect(much / Math.max(little, 1)).toBeLessThan(40);
}
