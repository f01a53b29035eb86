import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { audienceNotServed } from '../../../src/core/checks/rules/privacy-audience-not-served.js';
import { childrenAskedToTrack } from '../../../src/core/checks/rules/privacy-children-asked-to-track.js';
import { manifestDeniesTracking } from '../../../src/core/checks/rules/privacy-manifest-denies-tracking.js';
import { trackingTextEmpty } from '../../../src/core/checks/rules/privacy-tracking-text-empty.js';
import { trackingTextMissing } from '../../../src/core/checks/rules/privacy-tracking-text-missing.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, profileOf } from '../../support/titles.js';

const tracking = 'NSUserTrackingUsageDescription';
const all = ['debug', 'beta', 'release'];
/** A key of the app’s property list. */
const key = (name: string, value: string, more: object = {}) =>
  fact('plist-key', {
    name,
    value,
    type: 'string',
    list: 'info',
    platform: 'ios',
    network: null,
    variants: all,
    ...more,
  });
const text = (value: string, more: object = {}) => key(tracking, value, more);
const said = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data }) => [message, data]);

describe('an audience', () => {
  const marlstone = { marlstone: { android: { production: { app: 'mrl1-0123456789abcdef01234567' } } } };
  const told = (audience: 'children' | 'mixed' | 'general', networks: object = marlstone) =>
    reportsOf(audienceNotServed, contextOf([], { title: kelp({ audience, networks: networks as never }) }));

  it('that a network of the title does not serve is told, with the reason', () => {
    const why = profileOf('marlstone').audiences?.why;
    expect(why).toBeDefined();
    expect(told('children')).toEqual([
      {
        network: 'marlstone',
        message: 'refused',
        data: { network: 'Marlstone', audience: 'children', why },
      },
    ]);
    for (const served of ['mixed', 'general'] as const) expect(told(served)).toEqual([]);
    expect(told('children', {})).toEqual([]);
    expect(reportsOf(audienceNotServed, contextOf([], { title: null }))).toEqual([]);
  });

  it('of children is not asked for permission to track', () => {
    const facts = [text('Ads pay for this game'), key('Other', 'x'), fact('permission', { name: tracking })];
    const asked = (audience: 'children' | 'mixed') =>
      said(childrenAskedToTrack, contextOf(facts, { title: kelp({ audience }) }));
    expect(asked('children')).toEqual([['asked', { variants: 'debug, beta and release' }]]);
    expect(asked('mixed')).toEqual([]);
  });
});

describe('a privacy manifest', () => {
  const denies = (more: object = {}) =>
    key('NSPrivacyTracking', 'false', { list: 'privacy', place: place('PrivacyInfo.xcprivacy'), ...more });
  const told = (...facts: Fact[]) =>
    reportsOf(manifestDeniesTracking, contextOf(facts)).map(({ data, variants }) => [data, variants]);

  it('that denies tracking is told where the same app asks for it, in the variants that do both', () => {
    const asks = text('Ads pay for this game', { variants: ['beta', 'release'] });
    expect(told(denies({ variants: ['debug', 'release'] }), asks, asks)).toEqual([
      [{ value: 'false', path: 'PrivacyInfo.xcprivacy', variants: 'release' }, ['release']],
    ]);
  });

  it('is nothing where it agrees, denies something else, or another app asks', () => {
    const asks = text('Ads pay for this game');
    expect(told(denies({ value: 'true' }), asks)).toEqual([]);
    expect(told(denies({ name: 'NSPrivacyOther' }), asks)).toEqual([]);
    expect(told({ ...denies(), kind: 'permission' } as unknown as Fact, asks)).toEqual([]);
    expect(told(denies())).toEqual([]);
    expect(told(denies(), key('Other', 'x'))).toEqual([]);
    expect(told(denies(), { ...asks, kind: 'permission' } as unknown as Fact)).toEqual([]);
    expect(told(denies(), { ...asks, module: 'watch' })).toEqual([]);
    expect(told(denies({ variants: ['debug'] }), text('x', { variants: ['release'] }))).toEqual([]);
  });
});

describe('the text that asks for permission to track', () => {
  it('is told when it says nothing', () => {
    for (const empty of [
      '',
      'ads',
      'for ads',
      '  for   ads  ',
      'TODO say why we track',
      'Your text goes here',
    ])
      expect(said(trackingTextEmpty, contextOf([text(empty)]))).toEqual([
        ['empty', { text: JSON.stringify(empty) }],
      ]);
    for (const placeholder of ['fixme', 'Lorem ipsum', 'Insert', 'Text here', 'Placeholder'])
      expect(said(trackingTextEmpty, contextOf([text(`${placeholder} one two three`)]))).toHaveLength(1);
  });

  it('is nothing where it says something, refers to a setting, or is not where the system looks', () => {
    for (const one of [
      text('Ads pay for'),
      text('We need not insert a todo'),
      text('$(TRACKING_TEXT)'),
      text('', { type: 'true' }),
      text('', { list: 'privacy' }),
      text('', { effective: { reason: 'setting-ignored' } }),
      key('Other', ''),
      { ...text(''), kind: 'permission' } as unknown as Fact,
    ])
      expect(said(trackingTextEmpty, contextOf([one]))).toEqual([]);
  });

  it('is told when a network of the title needs it and it is not there', () => {
    expect(reportsOf(trackingTextMissing, contextOf([text('x', { variants: ['beta'] })]))).toEqual([
      {
        platform: 'ios',
        module: 'app',
        variants: ['debug', 'release'],
        network: 'cobalt-heron',
        place: place(),
        message: 'missing',
        data: { network: 'Cobalt Heron', variants: 'debug and release' },
      },
    ]);
    expect(reportsOf(trackingTextMissing, contextOf([text('x')]))).toEqual([]);
    expect(reportsOf(trackingTextMissing, contextOf([text('x', { list: 'privacy' })]))).toHaveLength(1);
    // Marlstone asks for nothing of the kind.
    const marlstone = { marlstone: { ios: { production: { app: 'mrl1-0123456789abcdef01234567' } } } };
    const title = kelp({ networks: marlstone as never });
    expect(reportsOf(trackingTextMissing, contextOf([], { title }))).toEqual([]);
  });
});
