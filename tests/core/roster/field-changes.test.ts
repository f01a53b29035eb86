import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldLines } from '../../../src/core/roster/field-changes.js';

describe('what a change of the record did, field by field', () => {
  it.each([
    ['a value that changed', 'a', 'b', [{ field: 'name', was: 'a', is: 'b' }]],
    ['a value that is new', null, 'b', [{ field: 'name', was: undefined, is: 'b' }]],
    ['a value that went', 'a', undefined, [{ field: 'name', was: 'a', is: undefined }]],
    [
      'one field of many',
      { units: { heron: { android: 'x', ios: 'y' } }, format: 'banner' },
      { units: { heron: { android: 'z', ios: 'y' } }, format: 'banner' },
      [{ field: 'name.units.heron.android', was: 'x', is: 'z' }],
    ],
    [
      'a list',
      { test: ['debug'] },
      { test: ['debug', 'beta'] },
      [{ field: 'name.test', was: 'debug', is: 'debug, beta' }],
    ],
    ['nothing', { a: 1 }, { a: 1 }, []],
    [
      'values that are no text',
      { a: 1, b: true },
      { a: 2, b: false },
      [
        { field: 'name.a', was: '1', is: '2' },
        { field: 'name.b', was: 'true', is: 'false' },
      ],
    ],
    [
      'a list of tables',
      { l: [{ a: 1 }, 'x'] },
      { l: [{ a: 2 }, 'x'] },
      [{ field: 'name.l.0.a', was: '1', is: '2' }],
    ],
    [
      'a value in place of a table',
      { a: { b: 'x' } },
      { a: 'y' },
      [
        { field: 'name.a.b', was: 'x', is: undefined },
        { field: 'name.a', was: undefined, is: 'y' },
      ],
    ],
    ['fields without a value', { a: null, b: undefined }, {}, []],
  ])('%s', (_, was, is, wanted) => {
    expect(fieldLines(was, is, 'name')).toEqual(wanted);
  });

  it('names fields from the root where no way leads to it', () => {
    expect(fieldLines({ a: { b: 'x' } }, {})).toEqual([{ field: 'a.b', was: 'x', is: undefined }]);
    expect(fieldLines('x', 'y')).toEqual([{ field: '', was: 'x', is: 'y' }]);
  });

  it('shows what is very deep as it is', () => {
    const deep = (levels: number, value: unknown): unknown =>
      levels === 0 ? value : { a: deep(levels - 1, value) };
    const way = (levels: number) => Array(levels).fill('a').join('.');
    expect(fieldLines(deep(20, 'x'), {})).toEqual([{ field: way(20), was: 'x', is: undefined }]);
    expect(fieldLines(deep(21, 'x'), {})).toEqual([{ field: way(20), was: '{"a":"x"}', is: undefined }]);
    expect(fieldLines(deep(60, 'x'), {})[0]?.field).toBe(way(20));
  });

  it('is nothing for a value and itself, and the other way round for the other way', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4 }), fc.jsonValue({ maxDepth: 4 }), (a, b) => {
        expect(fieldLines(a, a)).toEqual([]);
        const there = fieldLines(a, b).map(({ field, was, is }) => JSON.stringify([field, was, is]));
        const back = fieldLines(b, a).map(({ field, was, is }) => JSON.stringify([field, is, was]));
        expect(new Set(back)).toEqual(new Set(there));
      }),
    );
  });
});
