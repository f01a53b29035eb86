import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { recogniser } from '../../../src/core/network/recognise.js';
import { heldIds } from '../../../src/core/roster/validate.js';
import { searchHits } from '../../../src/core/search/hits.js';
import { kelp, placement, profiles } from '../../support/trees.js';

const title = kelp({
  name: 'Kélp Étude',
  placements: {
    'tide-footer': placement('banner', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'),
    'low-tide': placement('interstitial', 'CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'),
  },
});
const titles = [
  { id: 'kelp', ...title },
  { id: 'tide', ...kelp({ name: 'Tide', networks: {}, placements: {} }) },
];
const find = (text: string, most = 8) =>
  searchHits(text, { titles, profiles, recognised: recogniser(profiles).recognise(text) }, most);
const names = (text: string) => find(text).map(({ kind, name }) => `${kind} ${name}`);

describe('a search', () => {
  it('puts what is called so first, then what begins so, then what has a word that does', () => {
    expect(names('tide')).toEqual(['title Tide', 'placement tide-footer', 'placement low-tide']);
  });

  it('finds names without their accents, and in any case', () => {
    expect(names('KELP ETU')).toEqual(['title Kélp Étude']);
    expect(names('étude')).toEqual(['title Kélp Étude']);
  });

  it('says of an ID where it is, and of one in no record what it would be', () => {
    expect(find('CH-U-310772-DDDD3333')).toMatchObject([
      {
        kind: 'id',
        where: 'Cobalt Heron, Kélp Étude, tide-footer, Android production',
        title: 'kelp',
        placement: 'tide-footer',
        network: 'cobalt-heron',
        platform: 'android',
        stage: 'production',
      },
    ]);
    expect(find('CH-U-310772-QQQQ9999')).toMatchObject([
      { kind: 'id', title: null, where: expect.stringContaining('of Cobalt Heron, in no record') },
    ]);
  });

  it('finds networks and rules', () => {
    expect(names('cobalt')).toContain('network Cobalt Heron');
    expect(names('tally/silent')[0]).toBe('rule tally/silent');
    expect(find('a', 3).filter(({ kind }) => kind === 'rule')).toHaveLength(3);
  });

  it('finds every ID on record by each of its parts, and nothing without the text', () => {
    const ids = heldIds(title).map(({ id }) => id);
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.nat(), fc.nat(), (id, from, length) => {
        const part = id.slice(from % id.length, (from % id.length) + 1 + (length % id.length));
        const hits = find(part, 50);
        expect(hits.some(({ kind, name }) => kind === 'id' && name === id)).toBe(true);
        for (const { name, where } of hits)
          expect(`${name} ${where}`.toLowerCase()).toContain(part.toLowerCase());
      }),
      { numRuns: 60 },
    );
    expect(find('   ')).toEqual([]);
    expect(find('nothing-is-called-so')).toEqual([]);
  });
});
