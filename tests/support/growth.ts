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

/** Processor time of one piece of work (ms). */
function spent(work: () => unknown): number {
  const from = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(from);
  return (user + system) / 1000;
}

/** Holds a reader to time that grows with the length of its text. The best of three readings counts. */
export function grows(make: (length: number) => () => unknown, { short, most, unnoticed } = usual): void {
  const little = Math.min(...[1, 2, 3].map(() => spent(make(short))));
  let much = Infinity;
  const isEnough = () => much < unnoticed || much / Math.max(little, 1) < most;
  for (let round = 0; round < 3 && !isEnough(); round++) much = Math.min(much, spent(make(10 * short)));
  if (!isEnough()) expect(much / Math.max(little, 1)).toBeLessThan(most);
}
