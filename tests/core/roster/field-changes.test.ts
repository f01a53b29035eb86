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
  ])('%s', (_, was, is, wanted) => {
    expect(fieldLines(was, is, 'name')).toEqual(wanted);
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
