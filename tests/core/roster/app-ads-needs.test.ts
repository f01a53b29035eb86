import { describe, expect, it } from 'vitest';
import type { Profile } from '../../../src/core/network/model.js';
import {
  compareAppAds,
  mergeAppAds,
  neededRecords,
  type NeededRecord,
} from '../../../src/core/roster/app-ads-needs.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { kelp, placement, profileOf } from '../../support/titles.js';

const heron = profileOf('cobalt-heron');
const line = { domain: 'shoal.example', relationship: 'DIRECT', why: 'w' };
const network = (more: object, id = 'cobalt-heron') =>
  ({ ...heron, id, 'app-ads': [{ ...line, ...more }] }) as unknown as Profile;
const titles = {
  kelp: kelp({ placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-999999-CCCC2222') } }),
};
const needed = (more: object, publisher?: object, of: object = titles) =>
  neededRecords({ syndexa: 1, titles: of, ...(publisher ? { publisher } : {}) } as never, [network(more)]);

describe('the lines that networks require', () => {
  it('have the account numbers that production IDs carry, each once', () => {
    expect(needed({ certification: 'c0ffee' })).toEqual(
      ['310772', '999999'].map((account) => ({
        network: 'cobalt-heron',
        networkName: 'Cobalt Heron',
        why: 'w',
        record: { domain: 'shoal.example', account, relationship: 'DIRECT', certification: 'c0ffee' },
      })),
    );
    const tests = kelp({
      networks: { 'cobalt-heron': { android: { test: { app: 'CH-A-555555-TEST0000' } } } },
    });
    expect(needed({}, undefined, { kelp: tests })[0]?.record).toBe(null);
  });

  it('have the account that the publisher names instead', () => {
    const publisher = { name: 'B', domain: 'b.example', accounts: { 'cobalt-heron': 'brine' } };
    expect(needed({}, publisher).map(({ record }) => record?.account)).toEqual(['brine']);
    expect(
      needed({ account: 'pub-{account}-{account}' }, publisher).map(({ record }) => record?.account),
    ).toEqual(['pub-brine-brine']);
    expect(needed({}, publisher)[0]?.record).not.toHaveProperty('certification');
  });

  it('may have an account that is the same for everybody', () => {
    expect(needed({ account: 'reseller-7' }).map(({ record }) => record?.account)).toEqual(['reseller-7']);
    expect(
      needed({ account: 'reseller-7' }, undefined, { kelp: kelp({ networks: { 'cobalt-heron': {} } }) }),
    ).toHaveLength(1);
  });

  it('say what is missing where nothing names the account', () => {
    expect(needed({}, undefined, { kelp: kelp({ networks: { 'cobalt-heron': {} } }) })).toEqual([
      expect.objectContaining({
        record: null,
        missing:
          'The publisher’s account at Cobalt Heron is not known: set it under publisher.accounts.cobalt-heron.',
      }),
    ]);
  });

  it('are none for a network that no title uses', () => {
    expect(needed({}, undefined, { kelp: kelp({ networks: {} }) })).toEqual([]);
    const inPlacement = kelp({
      networks: {},
      placements: { a: { format: 'banner', settings: {}, units: { 'cobalt-heron': {} } } },
    });
    expect(needed({}, undefined, { kelp: kelp({ networks: {} }), dulse: inPlacement })).toHaveLength(1);
  });
});

const need = (account: string | null, more: object = {}, networkName = 'Shoal'): NeededRecord => ({
  network: networkName.toLowerCase(),
  networkName,
  why: 'w',
  record: account === null ? null : { domain: 'shoal.example', account, relationship: 'DIRECT', ...more },
});

describe('a file, held against what is required', () => {
  const states = (text: string, ...needs: NeededRecord[]) =>
    compareAppAds(text, needs).map(({ state, line: at }) => [state, at]);

  it('has a line, has another, or lacks it', () => {
    const file =
      '# ours\nshoal.example, 1, DIRECT, c0ffee\nshoal.example, 2, RESELLER\nother.example, 3, DIRECT\n';
    expect(
      states(file, need('1'), need('1', { certification: 'c0ffee' }), need('1', { certification: 'abc' })),
    ).toEqual([
      ['there', 2],
      ['there', 2],
      ['differs', 2],
    ]);
    expect(states(file, need('2'), need('3'), need(null))).toEqual([
      ['differs', 3],
      ['missing', undefined],
      ['unknown-account', undefined],
    ]);
  });

  it('gets what it lacks at its end, by network, and has its lines put right where they are', () => {
    const merged = (text: string, ...needs: NeededRecord[]) => applyEdits(text, mergeAppAds(text, needs));
    expect(merged('', need('1'))).toBe('# Shoal\nshoal.example, 1, DIRECT\n');
    expect(merged('a.example, 1, DIRECT', need('1'), need('2', {}, 'Reef'), need('3'), need(null))).toBe(
      'a.example, 1, DIRECT\n# Shoal\nshoal.example, 1, DIRECT\nshoal.example, 3, DIRECT\n# Reef\nshoal.example, 2, DIRECT\n',
    );
    expect(merged('a.example, 1, DIRECT\r\n', need('1'))).toBe(
      'a.example, 1, DIRECT\r\n# Shoal\r\nshoal.example, 1, DIRECT\r\n',
    );
    const wrong = 'shoal.example, 1, RESELLER   # since May; old\nx\n';
    expect(merged(wrong, need('1'))).toBe('shoal.example, 1, DIRECT   # since May; old\nx\n');
    expect(merged(wrong.replace('   #', ';'), need('1'), need('2'))).toBe(
      'shoal.example, 1, DIRECT; since May; old\nx\n# Shoal\nshoal.example, 2, DIRECT\n',
    );
  });

  it('stays as it is when nothing is missing', () => {
    expect(mergeAppAds('shoal.example, 1, DIRECT\n', [need('1'), need(null)])).toEqual([]);
  });
});
