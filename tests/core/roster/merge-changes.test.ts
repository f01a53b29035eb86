import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareThreeWays } from '../../../src/core/roster/compare.js';
import { mergeIntoRecord } from '../../../src/core/roster/merge-changes.js';
import { Roster } from '../../../src/core/roster/model.js';

/** A record whose titles have these names and these placements. */
function rosterOf(names: Record<string, string>, placements: readonly string[] = []): Roster {
  const own = Object.fromEntries(placements.map((name) => [name, { format: 'banner' }]));
  return Roster.parse({
    syndexa: 1,
    titles: Object.fromEntries(Object.entries(names).map(([id, name]) => [id, { name, placements: own }])),
  });
}
const titlesOf = fc
  .dictionary(fc.constantFrom('kelp', 'dulse', 'laver'), fc.constantFrom('One', 'Two', 'Three'))
  .map((names) => rosterOf(names));

describe('bringing a document up to the record', () => {
  it('takes what only one side changed, and what was chosen where both did', () => {
    const base = rosterOf({ kelp: 'Kelp', dulse: 'Dulse' }, ['footer']);
    const record = rosterOf({ kelp: 'Kelp Two', dulse: 'Dulse' }, ['footer', 'top']);
    const document = rosterOf({ kelp: 'Kelp Three', laver: 'Laver' }, ['footer']);
    const changes = compareThreeWays(base, record, document).filter(({ path }) => path !== 'titles.dulse');
    const merged = mergeIntoRecord(record, changes, new Map([['titles.kelp.name', 'document']]));
    expect(merged.titles.kelp?.name).toBe('Kelp Three');
    expect(Object.keys(merged.titles.kelp?.placements ?? {})).toEqual(['footer', 'top']);
    expect(merged.titles.laver?.name).toBe('Laver');
    expect(() => mergeIntoRecord(record, changes, new Map())).toThrow('titles.kelp.name');
  });

  it('makes what is above a field where the record lacks it, and takes out what is gone', () => {
    const record = rosterOf({ kelp: 'Kelp' }, ['footer']);
    const change = (path: string, base: unknown, document: unknown) => ({
      path,
      base,
      record: base,
      document,
      conflict: false,
    });
    const merged = (...changes: ReturnType<typeof change>[]) => mergeIntoRecord(record, changes, new Map());
    const unit = 'titles.kelp.placements.footer.units.cobalt-heron.android.production';
    expect(merged(change(unit, undefined, 'CH-U-1')).titles.kelp?.placements.footer?.units).toEqual({
      'cobalt-heron': { android: { production: 'CH-U-1' } },
    });
    expect(merged(change('titles.kelp.placements.footer', {}, undefined)).titles.kelp?.placements).toEqual(
      {},
    );
    expect(merged(change(unit, 'CH-U-1', undefined))).toEqual(record);
    expect(merged(change('titles.kelp.name', 'Kelp', 'Kelp'))).toEqual(record);
    expect(record.titles.kelp?.name).toBe('Kelp');
  });

  it('changes nothing where the document changed nothing, and gives the document where the record changed nothing', () => {
    fc.assert(
      fc.property(titlesOf, titlesOf, (base, other) => {
        expect(mergeIntoRecord(other, compareThreeWays(base, other, base), new Map())).toEqual(other);
        expect(mergeIntoRecord(base, compareThreeWays(base, base, other), new Map())).toEqual(other);
      }),
    );
  });

  it('is the record when all of it is chosen, and the document when all of that is', () => {
    fc.assert(
      fc.property(titlesOf, titlesOf, titlesOf, (base, record, document) => {
        const changes = compareThreeWays(base, record, document);
        const all = (side: 'record' | 'document') => new Map(changes.map(({ path }) => [path, side]));
        const both = changes.filter(({ conflict }) => conflict);
        expect(compareThreeWays(record, mergeIntoRecord(record, both, all('record')), record)).toEqual([]);
        for (const { path } of both) {
          const merged = mergeIntoRecord(record, both, all('document'));
          expect(compareThreeWays(merged, document, document).map((one) => one.path)).not.toContain(path);
        }
      }),
    );
  });
});
