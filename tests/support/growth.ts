import { expect } from 'vitest';

/** What is compared: a text, and one ten times as long, which may take so many times as long. */
interface Comparison {
  short: number;
  most: number;
  /** What takes less time of the processor than this (ms) is linear enough, however it compares. */
  unnoticed: number;
}
/** Beside other work; what compares all with all takes a hundred times as long. */
const usual: Comparison = { short: 10_000, most: 40, unnoticed: 60 };
/**
 * Alone on the machine (npm run torture). Texts that leave the caches cost up to forty times as much there, all of it
 * in the memory that a parser fills: what reads a whole megabyte within a second is left out.
 */
export const strict: Comparison = { short: 100_000, most: 15, unnoticed: 1_000 };

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

/** Holds a reader to time that grows with the length of its text. */
export function grows(make: (length: number) => () => unknown, { short, most, unnoticed } = usual): void {
  const [little, much] = [best(() => make(short), 3), best(() => make(10 * short), 3)];
  if (much < unnoticed) return;
  expect(much / Math.max(little, 1)).toBeLessThan(most);
}
