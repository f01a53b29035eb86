import { describe, expect, it } from 'vitest';
import type { Fact } from '../../../src/core/facts/model.js';
import type { Profile } from '../../../src/core/network/model.js';
import { compareAttribution, neededIds } from '../../../src/core/roster/attribution-needs.js';
import { kelp, profileOf } from '../../support/titles.js';

const [one, two, three] = ['ch7k2m9td4', 'h3r0nw8ngs', 'm4r1st0n3q'].map((id) => `${id}.skadnetwork`) as [
  string,
  string,
  string,
];
const attribution = (ids: string[], list?: string) => ({ ios: { attribution: { ids, why: 'w', list } } });
const network = (id: string, more: object) =>
  ({ ...profileOf('cobalt-heron'), id, name: id.toUpperCase(), ...more }) as unknown as Profile;

describe('the identifiers that networks require', () => {
  it('are those of the networks that titles with an iOS edition use', () => {
    const profiles = [
      network('a', attribution([one], 'https://a.example/ids')),
      network('b', attribution([two])),
      network('c', attribution([three])),
      network('d', { ios: {} }),
      network('e', { ios: undefined }),
    ];
    const titles = {
      kelp: kelp({ networks: { a: {}, d: {}, e: {} } }),
      dulse: kelp({ networks: { b: {} } }),
      laver: kelp({ networks: { c: {} }, editions: { android: { identifier: 'example.laver' } } }),
    };
    expect(neededIds({ syndexa: 1, titles }, profiles)).toEqual([
      { network: 'a', networkName: 'A', ids: [one], why: 'w', list: 'https://a.example/ids' },
      { network: 'b', networkName: 'B', ids: [two], why: 'w', list: null },
    ]);
  });
});

describe('an attribution list of a tree', () => {
  const needed = [
    { network: 'a', networkName: 'A', ids: [one, two], why: 'w', list: null },
    { network: 'b', networkName: 'B', ids: [two], why: 'w', list: null },
  ];
  const entry = (value: string, variants = ['Debug', 'Release']) =>
    ({ kind: 'attribution-id', value, variants }) as unknown as Fact;
  const compared = (facts: Fact[], lists: string[][] = []) =>
    compareAttribution(facts, ['Debug', 'Release'], needed, lists);

  it('lacks identifiers, each in some variants and for some networks', () => {
    expect(
      compared([entry(one, ['Debug']), { ...entry(two), kind: 'plist-key' } as unknown as Fact]),
    ).toEqual({
      needed,
      missing: [
        { id: one, networks: ['a'], variants: ['Release'] },
        { id: two, networks: ['a', 'b'], variants: ['Debug', 'Release'] },
      ],
      more: [],
      odd: [],
      there: 1,
    });
    expect(compared([entry(one, ['Debug']), entry(one, ['Release']), entry(two)]).missing).toEqual([]);
  });

  it('is held against published lists as well', () => {
    expect(compared([entry(one), entry(two)], [[three]]).missing).toEqual([
      { id: three, networks: [], variants: ['Debug', 'Release'] },
    ]);
  });

  it('has more than is required, and entries that are not in their right form', () => {
    const found = compared([
      entry(one.toUpperCase()),
      entry(` ${two}`),
      entry('zzzzzzzzz1.skadnetwork'),
      entry(three),
      entry('no id!'),
      entry('no id!'),
    ]);
    expect(found.missing).toEqual([]);
    expect(found.more).toEqual([three, 'zzzzzzzzz1.skadnetwork']);
    expect(found.odd).toEqual([one.toUpperCase(), ` ${two}`, 'no id!']);
    expect(found.there).toBe(4);
  });
});
