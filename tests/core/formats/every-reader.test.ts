import { describe, expect, it } from 'vitest';
import { grows, strict } from '../../support/growth.js';
import { mutated, randomFrom, readers, tokens } from '../../support/readers.js';
import { isLong, report, rounds } from '../../support/torture.js';

// With SYNDEXA_TORTURE=1 (npm run torture) there are a million inputs; every test run has some thousands.
const inputs = rounds(4_000, 1_000_000);
const each = Math.ceil(inputs / readers.length);
/** What one input may take (ms of processor time, so that what else the machine does is left out). */
const most = 2_000;

describe('every reader', () => {
  it.each(readers.map((reader) => [reader.name, reader] as const))(
    '%s: gives an answer for whatever a file has become, in time',
    (name, { read, seeds }) => {
      const random = randomFrom(name.length * 7919 + 1);
      let longest = 0;
      for (let round = 0; round < each; round++) {
        const seed = seeds[round % seeds.length] ?? '';
        const other = seeds[Math.floor(random() * seeds.length)] ?? '';
        const text = mutated(seed, other, random);
        const from = process.cpuUsage();
        try {
          read(text);
        } catch (error) {
          throw new Error(`${name} threw in round ${round} on ${JSON.stringify(text).slice(0, 2_000)}`, {
            cause: error,
          });
        }
        const { user, system } = process.cpuUsage(from);
        longest = Math.max(longest, (user + system) / 1000);
      }
      if (inputs > 10_000) report(`${name}: ${each} inputs, the longest took ${Math.round(longest)} ms`);
      expect(longest).toBeLessThan(most);
    },
    3_600_000,
  );
});

/** What goes through a parser of a language takes the parser's time: that is bounded from outside, not here. */
const ours = readers.filter(({ parsed }) => !parsed);

describe('the time of a reader grows with the length of its text', () => {
  it.each(ours.map((reader) => [reader.name, reader] as const))(
    '%s',
    (name, { read, seeds }) => {
      const random = randomFrom(name.length);
      const few = Array.from({ length: 3 }, () => tokens[Math.floor(random() * tokens.length)] ?? '');
      for (const unit of [...(isLong ? tokens : few), seeds[0] ?? ''])
        grows(
          (length) => {
            const text = unit.repeat(Math.ceil(length / unit.length)).slice(0, length);
            return () => read(text);
          },
          isLong ? strict : undefined,
        );
    },
    3_600_000,
  );
});
