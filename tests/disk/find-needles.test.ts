import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { matcherOf } from '../../src/disk/wanted-files.js';
import { Needles } from '../../src/disk/find-needles.js';

// Few letters, so that needles are found, nearly found, and lie over one another.
const text = (min: number, max: number) =>
  fc
    .array(fc.constantFrom('a', 'b', 'é', '.', 'Q'), { minLength: min, maxLength: max })
    .map((letters) => letters.join(''));

describe('looking for many texts at once', () => {
  it('finds what looking for each of them finds, wherever it stands', () => {
    fc.assert(
      fc.property(
        fc.array(text(0, 12), { maxLength: 12 }),
        text(0, 60),
        fc.nat({ max: 12 }),
        (needles, around, at) => {
          const looked = new Needles(needles);
          const holds = (haystack: string) =>
            needles.some((needle) => needle !== '' && haystack.includes(needle));
          expect(looked.standIn(Buffer.from(around))).toBe(holds(around));
          const inside = `${around}${needles[at] ?? ''}${around}`;
          expect(looked.standIn(Buffer.from(inside))).toBe(holds(inside));
        },
      ),
      { numRuns: 3_000 },
    );
  });

  it.each([
    ['at the beginning', 'CH-U-1 and more', true],
    ['at the end', 'more and qb.', true],
    ['cut off', 'more and CH-U', false],
    ['in another case', 'ch-u-', false],
    ['nothing at all', '', false],
  ])('%s', (_, haystack, found) => {
    expect(new Needles(['CH-U-', 'qb.', 'package:cobalt_heron_ads']).standIn(Buffer.from(haystack))).toBe(
      found,
    );
  });

  it('looks at the bytes that were read, and not at what the room held before', () => {
    const room = Buffer.from('nothing here CH-U-1');
    expect(new Needles(['CH-U-']).standIn(room.subarray(0, 16))).toBe(false);
    expect(new Needles(['CH-U-']).standIn(room.subarray(8, 18))).toBe(true);
  });
});

describe('telling by its name whether a file may matter', () => {
  const names = fc.constantFrom(
    'a.kt',
    'Placebook.kt',
    'x.gradle.kts',
    'gradle.kts',
    'Podfile',
    'values.xml',
    '.kt',
    'kt',
  );
  const rule = fc.record(
    {
      name: names,
      suffix: fc.constantFrom('.kt', '.gradle.kts', 'file', '.xml', 'book.kt', 't'),
      needle: fc.boolean(),
    },
    { requiredKeys: [] },
  );

  it('tells what each rule by itself tells', () => {
    fc.assert(
      fc.property(fc.array(rule, { maxLength: 6 }), fc.array(names, { maxLength: 6 }), (rules, asked) => {
        const used = rules.filter(({ name, suffix }) => name !== undefined || suffix !== undefined);
        const match = matcherOf({
          rules: used,
          folders: [],
          needles: [],
          skipFolders: [],
          skipBeside: [],
          maxFileBytes: 1_000,
          maxFiles: 1_000,
          maxTreeBytes: 1_000_000,
        });
        for (const file of asked) {
          const alone = used.some(
            ({ name, suffix }) =>
              (name === undefined || name === file) && (suffix === undefined || file.endsWith(suffix)),
          );
          expect(match(file, '') !== null).toBe(alone);
        }
      }),
      { numRuns: 2_000 },
    );
  });
});
