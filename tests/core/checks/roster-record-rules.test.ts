import { describe, expect, it } from 'vitest';
import type { Rule } from '../../../src/core/checks/model.js';
import { capBeyondNetwork } from '../../../src/core/checks/rules/roster-cap-beyond-network.js';
import { capWithoutEffect } from '../../../src/core/checks/rules/roster-cap-without-effect.js';
import { capWithoutPeriod } from '../../../src/core/checks/rules/roster-cap-without-period.js';
import { nearDuplicateIds } from '../../../src/core/checks/rules/roster-near-duplicate-ids.js';
import { noContentKind } from '../../../src/core/checks/rules/roster-no-content-kind.js';
import { refreshOutOfBounds } from '../../../src/core/checks/rules/roster-refresh-out-of-bounds.js';
import { rewardedSkippable } from '../../../src/core/checks/rules/roster-rewarded-skippable.js';
import { rewardedWithoutReward } from '../../../src/core/checks/rules/roster-rewarded-without-reward.js';
import { sameIdTwice } from '../../../src/core/checks/rules/roster-same-id-twice.js';
import { timeoutOutOfBounds } from '../../../src/core/checks/rules/roster-timeout-out-of-bounds.js';
import { twoAccounts } from '../../../src/core/checks/rules/roster-two-accounts.js';
import { vagueName } from '../../../src/core/checks/rules/roster-vague-name.js';
import type { Title } from '../../../src/core/roster/model.js';
import { contextOf, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf } from '../../support/titles.js';

// What is wrong with the record itself, whatever a tree says.

/** A placement with settings of a format. */
const spot = (format: string, settings: object = {}, units: object = { 'cobalt-heron': {} }) =>
  placementOf(units, format, settings);
const onAndroid = (...ids: [string, string][]) =>
  Object.fromEntries(
    ids.map(([name, production]) => [
      name,
      spot('banner', {}, { 'cobalt-heron': { android: { production } } }),
    ]),
  );
const told = (rule: Rule, placements: Title['placements'], networks: object = {}) =>
  reportsOf(
    rule,
    contextOf([], {
      title: kelp({ placements, networks: networks as never }),
    }),
  );
const all = [
  capBeyondNetwork,
  capWithoutEffect,
  capWithoutPeriod,
  nearDuplicateIds,
  noContentKind,
  refreshOutOfBounds,
  rewardedSkippable,
  rewardedWithoutReward,
  sameIdTwice,
  timeoutOutOfBounds,
  twoAccounts,
  vagueName,
];

describe('the record of a title', () => {
  it('is not judged where there is no title', () => {
    for (const rule of all) expect(reportsOf(rule, contextOf([], { title: null }))).toEqual([]);
  });

  it('has a cap that a full-screen ad can reach', () => {
    const cap = (per: string | undefined, count: number, format = 'interstitial') =>
      told(capWithoutEffect, { page: spot(format, { cap: { count, per } }) });
    expect(cap('1m', 6)).toEqual([
      {
        placement: 'page',
        message: 'idle',
        data: { placement: 'page', count: '6', per: '1m', seconds: '10' },
      },
    ]);
    expect(cap('1m', 7)[0]?.data?.seconds).toBe('9');
    expect(cap('1m', 4)).toEqual([]);
    expect(cap('1m', 5)).toHaveLength(1);
    expect(cap('1m', 6, 'banner')).toEqual([]);
    expect(cap(undefined, 6)).toEqual([]);
    expect(told(capWithoutEffect, { page: spot('interstitial') })).toEqual([]);
  });

  it('has a period for each cap', () => {
    const cap = (settings: object) => told(capWithoutPeriod, { page: spot('interstitial', settings) });
    expect(cap({ cap: { count: 3 } })).toEqual([
      { placement: 'page', message: 'endless', data: { placement: 'page', count: '3' } },
    ]);
    expect(cap({ cap: { count: 3, per: '1d' } })).toEqual([]);
    expect(cap({})).toEqual([]);
  });

  it('has settings that its networks take, each with a rule of its own', () => {
    const what = (rule: Rule, format: string, settings: object, units?: object) =>
      told(rule, { page: spot(format, settings, units) }).map(({ message, network, data }) => [
        message,
        network,
        data?.why,
      ]);
    expect(what(refreshOutOfBounds, 'banner', { refresh: '10s' })).toEqual([
      ['refused', 'cobalt-heron', 'Cobalt Heron does not support a refresh time of 10s.'],
    ]);
    expect(what(timeoutOutOfBounds, 'rewarded', { timeout: '90s' })).toEqual([
      ['refused', 'cobalt-heron', 'Cobalt Heron does not support a timeout of 90s.'],
    ]);
    const often = what(capBeyondNetwork, 'notification', { cap: { count: 9, per: '1d' } }, { ferrowick: {} });
    expect(often).toMatchObject([['refused', 'ferrowick', expect.stringContaining('Ferrowick')]]);
    expect(what(refreshOutOfBounds, 'rewarded', { timeout: '90s' })).toEqual([]);
    expect(what(timeoutOutOfBounds, 'banner', { refresh: '10s' })).toEqual([]);
    expect(what(capBeyondNetwork, 'banner', { refresh: '10s' })).toEqual([]);
  });

  it('takes content that its networks have', () => {
    const content = (kinds: string[] | undefined, format = 'native', units?: object) =>
      told(noContentKind, { list: spot(format, { content: kinds }, units) });
    const both = { 'cobalt-heron': {}, ferrowick: {} };
    expect(content(['video'], 'native', both)).toEqual([
      {
        placement: 'list',
        network: 'ferrowick',
        message: 'none',
        data: {
          placement: 'list',
          own: 'video',
          network: 'Ferrowick',
          theirs: 'text and image',
          format: 'native',
        },
      },
    ]);
    expect(content(['video', 'text'], 'native', both)).toEqual([]);
    expect(content(['video'], 'native')).toEqual([]);
    expect(content([])).toEqual([{ placement: 'list', message: 'nothing', data: { placement: 'list' } }]);
    expect(content(undefined)).toEqual([]);
    expect(content(['video'], 'rewarded', { ferrowick: {} })).toEqual([]);
  });

  it('says what is won, and does not let it be skipped', () => {
    expect(told(rewardedWithoutReward, { gate: spot('rewarded') })).toEqual([
      { placement: 'gate', message: 'open', data: { placement: 'gate' } },
    ]);
    const reward = { amount: 1, item: 'hint' };
    expect(told(rewardedWithoutReward, { gate: spot('rewarded', { reward }) })).toEqual([]);
    expect(told(rewardedWithoutReward, { gate: spot('banner') })).toEqual([]);
    expect(told(rewardedSkippable, { gate: spot('rewarded', { skippable: true }) })).toEqual([
      { placement: 'gate', message: 'skippable', data: { placement: 'gate' } },
    ]);
    expect(told(rewardedSkippable, { gate: spot('rewarded', { skippable: false }) })).toEqual([]);
    expect(told(rewardedSkippable, { gate: spot('splash', { skippable: true }) })).toEqual([]);
  });

  it('has names that say where an ad is', () => {
    const names = [
      'ad-1',
      'test-unit',
      'main-banner',
      'x-2',
      'zone',
      'adz',
      'tide-list-footer',
      'slot12',
      'a1',
    ];
    const vague = told(vagueName, Object.fromEntries(names.map((name) => [name, spot('banner')])));
    expect(vague.map(({ placement, message, data }) => [placement, message, data?.placement])).toEqual(
      ['ad-1', 'test-unit', 'x-2', 'zone', 'slot12', 'a1'].map((name) => [name, 'vague', name]),
    );
  });
});

describe('the IDs of a title', () => {
  const id = 'CH-U-310772-AAAA1111';

  it('that two placements hold are told once', () => {
    const placements = onAndroid(
      ['footer', id],
      ['header', id],
      ['side', 'CH-U-310772-BBBB1111'],
      ['top', id],
    );
    expect(told(sameIdTwice, placements)).toEqual([
      {
        network: 'cobalt-heron',
        placement: 'footer',
        message: 'same',
        data: { id, placements: 'footer, header and top' },
      },
    ]);
    // One placement may hold an ID on both platforms, and everybody may use a sample.
    const units = { 'cobalt-heron': { android: { production: id }, ios: { production: id } } };
    expect(told(sameIdTwice, { footer: spot('banner', {}, units) })).toEqual([]);
    const sample = 'CH-U-100001-BANNER0A';
    expect(told(sameIdTwice, onAndroid(['footer', sample], ['header', sample]))).toEqual([]);
  });

  it('that look like slips of one another are told', () => {
    const near = (one: string, two: string) =>
      told(nearDuplicateIds, onAndroid(['footer', one], ['header', two])).map(
        ({ network, message, data }) => [network, message, data?.one, data?.two],
      );
    expect(near(id, 'CH-U-310772-AAAB1111')).toEqual([['cobalt-heron', 'near', id, 'CH-U-310772-AAAB1111']]);
    expect(near(id, 'CH-U-310772-AAAA1112')).toEqual([]);
    expect(near(id, 'CH-U-310772-BBBA1111')).toEqual([]);
    expect(near('CH-U-100001-BANNER0A', 'CH-U-100001-BANNER0B')).toHaveLength(0);
    const [report] = told(nearDuplicateIds, onAndroid(['footer', id], ['header', 'CH-U-310772-AAAB1111']));
    expect(report?.data?.first).toContain('footer');
    expect(report?.data?.second).toContain('header');
    const other = {
      footer: spot('banner', {}, { 'cobalt-heron': { android: { production: id } } }),
      header: spot('banner', {}, { ferrowick: { android: { production: 'CH-U-310772-AAAB1111' } } }),
    };
    expect(told(nearDuplicateIds, other)).toEqual([]);
  });

  it('of two accounts are told, each that is not of the usual one', () => {
    const placements = onAndroid(
      ['footer', 'CH-U-999999-CCCC1111'],
      ['header', id],
      ['side', 'CH-U-310772-BBBB1111'],
      ['top', 'CH-U-100001-BANNER0A'],
    );
    expect(told(twoAccounts, placements)).toEqual([
      {
        network: 'cobalt-heron',
        message: 'accounts',
        data: {
          network: 'Cobalt Heron',
          odd: 'CH-U-999999-CCCC1111',
          account: '999999',
          usual: '310772',
        },
      },
    ]);
    expect(told(twoAccounts, onAndroid(['header', id], ['side', 'CH-U-310772-BBBB1111']))).toEqual([]);
  });
});
