import { describe, expect, it } from 'vitest';
import { attributionIdMalformed } from '../../../src/core/checks/rules/attribution-id-malformed.js';
import { attributionIdMissing } from '../../../src/core/checks/rules/attribution-id-missing.js';
import { attributionIdTwice } from '../../../src/core/checks/rules/attribution-id-twice.js';
import { contextOf, fact, place, reportsOf } from '../../support/surveyed.js';
import { profileOf } from '../../support/titles.js';

const wanted = profileOf('cobalt-heron').ios?.attribution?.ids ?? [];
const entry = (value: string, variants: string[], more: object = {}) =>
  fact('attribution-id', { value, variants, platform: 'ios', network: null, ...more });
const all = ['debug', 'beta', 'release'];

describe('the attribution list', () => {
  it('lacks what the networks want, by variant', () => {
    expect(wanted.length).toBeGreaterThan(1);
    const common = {
      platform: 'ios',
      module: 'app',
      network: 'cobalt-heron',
      place: place(),
      message: 'missing',
    };
    expect(reportsOf(attributionIdMissing, contextOf())).toEqual([
      {
        ...common,
        variants: all,
        data: {
          network: 'Cobalt Heron',
          ids: wanted.join(' and '),
          variants: 'debug, beta and release',
        },
      },
    ]);
    const facts = wanted.map((id, at) => entry(id, at === 0 ? all : ['debug', 'beta']));
    expect(reportsOf(attributionIdMissing, contextOf(facts))).toEqual([
      {
        ...common,
        variants: ['release'],
        data: { network: 'Cobalt Heron', ids: wanted.slice(1).join(' and '), variants: 'release' },
      },
    ]);
  });

  it('lacks nothing where each entry is there, however it is written', () => {
    const facts = wanted.map((id) => entry(id.toUpperCase(), all));
    expect(reportsOf(attributionIdMissing, contextOf(facts))).toEqual([]);
    const others = wanted.map((id) => fact('permission', { value: id, variants: all, platform: 'ios' }));
    expect(reportsOf(attributionIdMissing, contextOf(others))).toHaveLength(1);
  });

  it('says which entry is no identifier in its right form', () => {
    const facts = [
      entry('ch7k2m9td4.skadnetwork', all),
      entry('CH7K2M9TD4.skadnetwork', all),
      fact('permission', { value: 'CH7K2M9TD4.skadnetwork', platform: 'ios' }),
    ];
    expect(
      reportsOf(attributionIdMalformed, contextOf(facts)).map(({ message, data }) => [message, data]),
    ).toEqual([['odd', { value: 'CH7K2M9TD4.skadnetwork' }]]);
  });

  it('says which entry is there twice, in one list of one variant', () => {
    const twice = (...facts: ReturnType<typeof entry>[]) =>
      reportsOf(attributionIdTwice, contextOf(facts)).map(({ message, data }) => [message, data]);
    const id = 'ch7k2m9td4.skadnetwork';
    expect(twice(entry(id, ['debug']), entry(id.toUpperCase(), ['release', 'debug']))).toEqual([
      ['twice', { id }],
    ]);
    expect(twice(entry(id, ['debug']), entry(id, ['debug']), entry(id, ['debug']))).toHaveLength(2);
    for (const other of [
      entry(id, ['release']),
      entry(id, ['debug'], { module: 'watch' }),
      entry(id, ['debug'], { place: place('b') }),
      entry('m4r1st0n3q.skadnetwork', ['debug']),
      fact('permission', { value: id, platform: 'ios' }),
    ]) {
      expect(twice(entry(id, ['debug']), other)).toEqual([]);
      expect(twice(other, entry(id, ['debug']))).toEqual([]);
    }
  });
});
