import { describe, expect, it } from 'vitest';
import { appIdInUnitPlace } from '../../../src/core/checks/rules/unit-id-app-id-in-place.js';
import { unitIdMistyped } from '../../../src/core/checks/rules/unit-id-mistyped.js';
import { unitIdNotInBuild } from '../../../src/core/checks/rules/unit-id-not-in-build.js';
import { unitIdNotInRoster } from '../../../src/core/checks/rules/unit-id-not-in-roster.js';
import { overriddenByLocale } from '../../../src/core/checks/rules/unit-id-overridden-by-locale.js';
import { unitIdUnknown } from '../../../src/core/checks/rules/unit-id-unknown.js';
import { unitIdWrongPlatform } from '../../../src/core/checks/rules/unit-id-wrong-platform.js';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import type { Fact, Unresolved } from '../../../src/core/facts/model.js';
import { contextOf as surveyed, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf } from '../../support/titles.js';

const [footer, footerTest, footerIos] = [
  'CH-U-310772-AAAA1111',
  'CH-U-310772-AAAA1112',
  'CH-U-310772-AAAA2222',
];
const network = 'Cobalt Heron';
const title = kelp({
  placements: {
    footer: placementOf({
      'cobalt-heron': {
        android: { test: footerTest, production: footer },
        ios: { production: footerIos },
      },
    }),
  },
});

const contextOf = (facts: Fact[] = [], more: Parameters<typeof surveyed>[1] = {}): CheckContext =>
  surveyed(facts, { title, ...more });
const unit = (value: string, more: object = {}) => fact('unit-id', { carrier: 'code', value, ...more });
const said = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data }) => [message, data]);

describe('a unit ID that no placement has', () => {
  const mistyped = 'CH-U-310772-AAAA1121';
  const stranger = 'CH-U-310772-ZZZZ9999';

  it('is mistyped where it is nearly one that is held, and unknown otherwise', () => {
    const context = contextOf([unit(mistyped), unit(stranger)]);
    expect(said(unitIdMistyped, context)).toEqual([
      ['near', { id: mistyped, network, near: footer, placement: 'footer' }],
    ]);
    expect(said(unitIdUnknown, context)).toEqual([['unknown', { id: stranger, label: 'unit ID', network }]]);
  });

  it('is neither where a placement has it, where it is a sample, and where it is of another kind', () => {
    const held = unit(mistyped, { placement: 'footer' });
    const far = unit(stranger, { placement: 'footer' });
    const sample = unit('CH-U-100001-BANNER0A');
    const app = unit('CH-A-310772-QK4T8W2N');
    const other = fact('app-id', { carrier: 'manifest', value: stranger });
    const near = fact('app-id', { carrier: 'manifest', value: mistyped });
    const context = contextOf([held, far, sample, app, other, near]);
    expect(said(unitIdMistyped, context)).toEqual([]);
    expect(said(unitIdUnknown, context)).toEqual([]);
    // A sample is no slip, however near it is to an ID on record.
    const beside = kelp({
      placements: {
        footer: placementOf({ 'cobalt-heron': { android: { production: 'CH-U-100001-BANNER0B' } } }),
      },
    });
    expect(said(unitIdMistyped, contextOf([sample], { title: beside }))).toEqual([]);
  });

  it('is neither where the title does not use its network', () => {
    for (const none of [null, 'marlstone']) {
      const facts = [unit(mistyped, { network: none }), unit(stranger, { network: none })];
      expect(said(unitIdMistyped, contextOf(facts))).toEqual([]);
      expect(said(unitIdUnknown, contextOf(facts))).toEqual([]);
    }
  });
});

describe('an app ID in the place of a unit ID', () => {
  const call = (action: string, ids: string[], line: number, more: object = {}) =>
    fact('call', {
      action,
      value: `heron.${action}`,
      code: { argument: { ids } },
      place: place('K.kt', line),
      ...more,
    });
  const app = 'CH-A-310772-QK4T8W2N';

  it('is told at each call that takes a unit ID, once for each place', () => {
    const actions = ['load', 'show', 'view', 'identify', 'start', 'release'];
    const facts = actions.map((action, at) => call(action, [app], at + 1));
    const again = call('load', [app], 1, { variants: ['release'] });
    const reports = reportsOf(appIdInUnitPlace, contextOf([...facts, again]));
    expect(reports.map(({ message, data }) => [message, data])).toEqual(
      ['load', 'show', 'view', 'identify'].map((action) => [
        'app',
        { call: `heron.${action}`, id: app, network },
      ]),
    );
  });

  it('is nothing where a unit ID, nothing, or what another network knows is given', () => {
    const bare = [
      call('load', [footer], 1),
      call('load', ['mrl1-0123456789abcdef01234567'], 2),
      call('load', [], 3),
    ];
    const without = fact('call', { action: 'load', value: 'heron.load', place: place('K.kt', 4) });
    const noArgument = call('load', [], 5, { code: {} });
    expect(said(appIdInUnitPlace, contextOf([...bare, without, noArgument]))).toEqual([]);
    const several = call('load', [footer, app], 6);
    expect(said(appIdInUnitPlace, contextOf([several])).map(([, data]) => data)).toEqual([
      { call: 'heron.load', id: app, network },
    ]);
  });
});

describe('a unit ID of the roster that the build does not use', () => {
  const missing = (facts: Fact[], unresolved: Unresolved[] = []) =>
    reportsOf(unitIdNotInBuild, contextOf(facts, { unresolved })).filter(
      ({ platform }) => platform === 'android',
    );
  const inBoth = [unit(footerTest, { variants: ['debug'] }), unit(footer, { variants: ['release'] })];

  it('is told once for all its variants, with the IDs that they should have', () => {
    expect(missing([])).toEqual([
      {
        platform: 'android',
        module: 'app',
        variants: ['debug', 'release'],
        network: 'cobalt-heron',
        placement: 'footer',
        place: place(),
        message: 'absent',
        data: { placement: 'footer', network, ids: `test ${footerTest} and production ${footer}` },
        changing: { reference: '' },
      },
    ]);
    expect(missing(inBoth)).toEqual([]);
    expect(missing(inBoth.slice(1)).map(({ variants, data }) => [variants, data?.ids])).toEqual([
      [['debug'], `test ${footerTest}`],
    ]);
  });

  it('is told where another value, another kind of fact or another stage has it only', () => {
    const swapped = [unit(footer, { variants: ['debug'] }), unit(footerTest, { variants: ['release'] })];
    expect(missing(swapped)[0]?.variants).toEqual(['debug', 'release']);
    const asAppId = inBoth.map((one) => ({ ...one, kind: 'app-id' }) as Fact);
    expect(missing(asAppId)[0]?.variants).toEqual(['debug', 'release']);
    const elsewhere = inBoth.map((one) => ({ ...one, effective: { reason: 'wrong-folder' } }) as Fact);
    expect(missing(elsewhere)[0]?.variants).toEqual(['debug', 'release']);
  });

  it('is nothing where it may be used: what cannot be worked out counts', () => {
    const open = (value: string, variants: string[], more: object = {}) =>
      ({ ...unit(value, { variants }), what: 'a', reason: 'b', ...more }) as unknown as Unresolved;
    expect(missing([], [open(footerTest, ['debug']), open(footer, ['release'])])).toEqual([]);
    const reports = missing([], [open(footerTest, ['debug']), open(footer, ['release'], { module: 'wear' })]);
    expect(reports.map(({ variants }) => variants)).toEqual([['release']]);
    const key = open(footer, ['release'], { kind: 'app-id' });
    expect(missing(inBoth.slice(0, 1), [key]).map(({ variants }) => variants)).toEqual([['release']]);
    const others = open('CH-U-310772-ZZZZ9999', ['debug', 'release']);
    expect(missing([], [others])[0]?.variants).toEqual(['debug', 'release']);
  });

  it('is told with its reference where only the placebook has it, and is used where code names it', () => {
    const book = (value: string, variants: string[], path = 'Placebook.kt') =>
      unit(value, {
        carrier: 'placebook',
        placement: 'footer',
        variants,
        place: place(path),
        chain: [{ what: 'placebook' }],
      });
    const books = [book(footerTest, ['debug']), book(footer, ['release'])];
    expect(missing(books)).toMatchObject([
      {
        variants: ['debug', 'release'],
        chain: [{ what: 'placebook' }],
        changing: { reference: '; in code it is Placebook.footer.unit(Placebook.Network.COBALT_HERON)' },
      },
    ]);
    const use = fact('placement-use', { placement: 'footer', variants: ['debug', 'release'] });
    expect(missing([...books, use])).toEqual([]);
    // One of another variant refers to nothing here.
    const other = missing([book(footer, ['beta'])]);
    expect(other.map(({ changing, chain }) => [changing, chain])).toEqual([[{ reference: '' }, undefined]]);
    const unread = missing([book(footer, ['release'], 'placebook.txt')]);
    expect(unread.map(({ changing, chain }) => [changing, chain])).toEqual([[{ reference: '' }, undefined]]);
  });
});

describe('a unit ID that the roster lacks', () => {
  it('is told for each platform and stage; an app ID is another rule’s', () => {
    const holes = kelp({
      networks: {
        'cobalt-heron': {
          android: { test: { app: 'CH-A-100001-SAMPLE0A' } },
          ios: { production: { app: 'CH-I-310772-M6R9V3XC' } },
        },
      },
      placements: {
        footer: placementOf({ 'cobalt-heron': { android: { production: footer } } }),
      },
    });
    expect(reportsOf(unitIdNotInRoster, contextOf([], { title: holes }))).toEqual([
      {
        platform: 'ios',
        module: 'app',
        network: 'cobalt-heron',
        placement: 'footer',
        message: 'hole',
        data: { stage: 'production', network, placement: 'footer', platform: 'ios' },
      },
    ]);
  });
});

describe('a unit ID that is another one for some', () => {
  it('is told with the string and the folder of the locale', () => {
    const facts = [
      fact('locale-override', { name: 'footer', value: 'x', folder: 'values-de' }),
      fact('locale-override', { value: 'y', folder: 'values-fr' }),
      unit(footer, { folder: 'values-it' }),
    ];
    expect(said(overriddenByLocale, contextOf(facts))).toEqual([
      ['locale', { name: 'footer', value: 'x', folder: 'values-de' }],
      ['locale', { name: '', value: 'y', folder: 'values-fr' }],
    ]);
  });

  it('is told in the build of the platform that it does not belong to', () => {
    const wrong = unit(footerIos, { placement: 'footer' });
    expect(said(unitIdWrongPlatform, contextOf([wrong]))).toEqual([
      ['other', { id: footerIos, placement: 'footer', network, other: 'ios', platform: 'android' }],
    ]);
    // One source that is built for both has a rule of its own.
    const both = unit(footerIos, { placement: 'footer', platform: 'ios' });
    expect(said(unitIdWrongPlatform, contextOf([wrong, both]))).toEqual([]);
    expect(said(unitIdWrongPlatform, contextOf([unit(footer, { placement: 'footer' })]))).toEqual([]);
  });
});
