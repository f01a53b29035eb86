import { describe, expect, it } from 'vitest';
import { Readings } from '../../../src/core/tree/readings.js';

const reader = (): void => undefined;
const file = (hash: string, length = 1) => ({ hash, bytes: new Uint8Array(length) });

/** Readings, and how often a file was read. */
function counting(limit = 1_000) {
  const readings = new Readings(limit);
  const made: string[] = [];
  const ask = (hash: string, length?: number) =>
    readings.of(reader, file(hash, length), () => {
      made.push(hash);
      return hash;
    });
  return { readings, made, ask };
}

describe('readings that are kept', () => {
  it('are made once, however many trees hold the file', () => {
    const { readings, made, ask } = counting();
    for (let tree = 0; tree < 500; tree++) {
      readings.beginTree();
      expect(ask('same')).toBe('same');
    }
    expect(made).toEqual(['same']);
  });

  it('are let go when many trees went by without asking for them', () => {
    const { readings, made, ask } = counting();
    ask('old');
    for (let tree = 0; tree < 100; tree++) readings.beginTree();
    expect(readings.has(reader, file('old'))).toBe(true);
    for (let tree = 0; tree < 101; tree++) {
      readings.beginTree();
      ask('same');
    }
    expect(readings.has(reader, file('old'))).toBe(false);
    ask('old');
    expect(made).toEqual(['old', 'same', 'old']);
  });

  it('stand for so many bytes at most, and the one that was asked for last stays', () => {
    const { readings, ask } = counting(10);
    ask('a', 4);
    ask('b', 4);
    ask('a', 4);
    ask('c', 4);
    expect(['a', 'b', 'c'].map((hash) => readings.has(reader, file(hash, 4)))).toEqual([true, false, true]);
  });

  it('of a file without a hash are none', () => {
    const { made, ask } = counting();
    ask('');
    ask('');
    expect(made).toEqual(['', '']);
  });
});
