import { describe, expect, it } from 'vitest';
import type { Rule } from '../../../src/core/checks/model.js';
import { applicationClassMissing } from '../../../src/core/checks/rules/manifest-application-class-missing.js';
import { bannerNotAnchored } from '../../../src/core/checks/rules/manifest-banner-not-anchored.js';
import { componentDiffers } from '../../../src/core/checks/rules/manifest-component-differs.js';
import { componentMissing } from '../../../src/core/checks/rules/manifest-component-missing.js';
import { layoutNamespace } from '../../../src/core/checks/rules/manifest-layout-namespace.js';
import { mergeConflict } from '../../../src/core/checks/rules/manifest-merge-conflict.js';
import { mergeDirectiveMissing } from '../../../src/core/checks/rules/manifest-merge-directive-missing.js';
import { metaDataDiffers } from '../../../src/core/checks/rules/manifest-meta-data-differs.js';
import { metaDataMissing } from '../../../src/core/checks/rules/manifest-meta-data-missing.js';
import { permissionLimited } from '../../../src/core/checks/rules/manifest-permission-limited.js';
import { permissionMissing } from '../../../src/core/checks/rules/manifest-permission-missing.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, fact, needing, place, reportsOf } from '../../support/surveyed.js';

const all = ['debug', 'beta', 'release'];
const network = 'Cobalt Heron';
const why = 'It says so.';
const home = place();
const held = (kind: string, more: object = {}) =>
  fact(kind, { network: null, variants: all, place: place('AndroidManifest.xml', 7), ...more });
const removed = { effective: { reason: 'removed', about: 'tools:node="remove"' } };
/** What a report about an edition has, whatever it says. */
const ofEdition = { platform: 'android', module: 'app', network: 'cobalt-heron' };

const permission = (more: object = {}) => held('permission', { name: 'P', value: 'P', ...more });
const component = (more: object = {}) => held('component', { name: 'activity', value: 'A', ...more });
const metaData = (more: object = {}) =>
  held('meta-data', { name: 'heron.key', value: 'on', as: 'value', ...more });

/** What networks need by name, each with what declares it and what the messages call it. */
const needs = [
  {
    rule: permissionMissing,
    part: { permissions: [{ name: 'P', why }] },
    declare: permission,
    other: { name: 'Q', value: 'Q' },
    data: { network, permission: 'P' },
  },
  {
    rule: componentMissing,
    part: { components: [{ kind: 'activity', name: 'A', why, attributes: {} }] },
    declare: component,
    other: { value: 'B' },
    data: { network, kind: 'activity', name: 'A' },
  },
  {
    rule: metaDataMissing,
    part: { 'meta-data': [{ key: 'heron.key', why }] },
    declare: metaData,
    other: { name: 'heron.other' },
    data: { network, key: 'heron.key' },
  },
];

describe.each(needs)('$rule.meta.id', ({ rule, part, declare, other, data }) => {
  const told = (facts: Fact[]) => reportsOf(rule, needing('android', part, facts));
  const missing = (variants: string[], text: string) => ({
    ...ofEdition,
    variants,
    place: home,
    message: 'missing',
    data: { ...data, variants: text, why },
  });

  it('is told for the variants that lack it, at the edition', () => {
    expect(told([])).toEqual([missing(all, 'debug, beta and release')]);
    expect(told([declare({ variants: ['beta'] })])).toEqual([
      missing(['debug', 'release'], 'debug and release'),
    ]);
    expect(told([declare(other)])).toEqual([missing(all, 'debug, beta and release')]);
    // Of the same name, and something else.
    expect(told([declare({ kind: 'companion' })])).toHaveLength(1);
  });

  it('is nothing where every variant has it, and on the other platform', () => {
    expect(told([declare()])).toEqual([]);
    expect(told([declare({ variants: ['debug'] }), declare({ variants: ['beta', 'release'] })])).toEqual([]);
    const { title } = contextOf();
    const without = { ...title!, editions: { ios: title!.editions.ios! } };
    expect(reportsOf(rule, needing('android', part, [], { title: without }))).toEqual([]);
  });

  it('is told at the directive that removes it, for the variants that lack it for this reason', () => {
    const one = declare({ ...removed, variants: ['debug', 'beta'] });
    const here = {
      ...ofEdition,
      placement: null,
      chain: [],
      place: one.place,
      message: 'removed',
      mend: 'removed',
    };
    const directive = { ...data, directive: 'tools:node="remove"', why };
    expect(told([one])).toEqual([
      { ...here, variants: ['debug', 'beta'], data: { ...directive, variants: 'debug and beta' } },
      missing(['release'], 'release'),
    ]);
    expect(told([one, declare({ variants: ['beta', 'release'] })])).toEqual([
      { ...here, variants: ['debug'], data: { ...directive, variants: 'debug' } },
    ]);
  });
});

describe('meta-data in another element', () => {
  const nested = { effective: { reason: 'nested', about: 'activity A' }, place: place('M.xml', 9) };
  const part = { 'meta-data': [{ key: 'heron.key', why }] };
  const told = (...facts: Fact[]) => reportsOf(metaDataMissing, needing('android', part, facts));

  it('is told where it is, and not as missing', () => {
    expect(told(metaData(nested))).toEqual([
      {
        ...ofEdition,
        variants: all,
        place: place('M.xml', 9),
        message: 'nested',
        mend: 'nested',
        data: { network, key: 'heron.key', holder: 'activity A', why },
      },
    ]);
    const nowhere = { ...nested, effective: { reason: 'nested' } };
    expect(told(metaData(nowhere))[0]?.data).toMatchObject({ holder: '' });
  });

  it('is missing where it is nested in some of the variants only, or without effect for another reason', () => {
    expect(told(metaData({ ...nested, variants: ['debug', 'beta'] })).map((one) => one.message)).toEqual([
      'missing',
    ]);
    expect(
      told(metaData({ ...nested, effective: { reason: 'wrong-folder' } })).map((one) => one.message),
    ).toEqual(['missing']);
    // Only the debug variant still lacks it, and there it is nested.
    const [one, ...rest] = told(
      metaData({ ...nested, variants: ['debug'] }),
      metaData({ variants: ['beta', 'release'] }),
    );
    expect([one?.message, one?.variants, rest]).toEqual(['nested', ['debug'], []]);
  });
});

describe('meta-data', () => {
  const told = (need: object, ...facts: Fact[]) =>
    reportsOf(
      metaDataDiffers,
      needing('android', { 'meta-data': [{ key: 'heron.key', why, ...need }] }, facts),
    );
  const differs = (wanted: string, found: string) => ({ network, key: 'heron.key', wanted, found, why });

  it('is told where it has another value, or the value in the other attribute', () => {
    const one = metaData({ value: 'off' });
    expect(told({ value: 'on' }, one)).toEqual([
      {
        ...ofEdition,
        variants: all,
        placement: null,
        place: one.place,
        chain: [],
        message: 'differs',
        data: differs('android:value="on"', 'android:value="off"'),
      },
    ]);
    const data = (need: object, more: object) => told(need, metaData(more)).map((report) => report.data);
    expect(data({ resource: '@xml/heron' }, { value: '@xml/heron' })).toEqual([
      differs('android:resource="@xml/heron"', 'android:value="@xml/heron"'),
    ]);
    expect(data({ value: true }, { value: 'false' })).toEqual([
      differs('android:value="true"', 'android:value="false"'),
    ]);
  });

  it('is nothing where it is right, any value will do, or it cannot be compared', () => {
    expect(told({ value: 'on' }, metaData())).toEqual([]);
    expect(told({ value: false }, metaData({ value: 'false' }))).toEqual([]);
    expect(told({ resource: '@xml/heron' }, metaData({ value: '@xml/heron', as: 'resource' }))).toEqual([]);
    expect(told({}, metaData({ value: 'whatever' }))).toEqual([]);
    for (const more of [
      { value: '${heron}' },
      { value: 'off', name: 'heron.other' },
      { value: 'off', kind: 'companion' },
      { value: 'off', effective: { reason: 'nested', about: 'activity A' } },
    ])
      expect(told({ value: 'on' }, metaData(more))).toEqual([]);
  });
});

describe('a component', () => {
  const told = (attributes: object, ...facts: Fact[]) => {
    const components = [{ kind: 'activity', name: 'A', why, attributes }];
    return reportsOf(componentDiffers, needing('android', { components }, facts));
  };
  const own = component({ attributes: { exported: 'true', theme: '@style/Mine' } });

  it('is told for each attribute that is written differently, where it is written', () => {
    const wanted = { 'android:exported': 'false', 'android:theme': '@style/Heron', 'android:label': 'x' };
    const places = { theme: place('AndroidManifest.xml', 12) };
    const reports = told(wanted, { ...own, places } as never);
    expect(reports.map(({ message, data, place: at }) => [message, data, at?.line])).toEqual([
      ['differs', { name: 'A', network, attribute: 'android:exported', wanted: 'false', found: 'true' }, 7],
      [
        'differs',
        {
          name: 'A',
          network,
          attribute: 'android:theme',
          wanted: '@style/Heron',
          found: '@style/Mine',
        },
        12,
      ],
    ]);
    expect(reports[0]).toMatchObject({ platform: 'android', module: 'app', variants: all });
    expect(told(wanted, own)).toHaveLength(2);
  });

  it('is nothing where it meets the need, is another one, or is not what the build uses', () => {
    expect(told({ 'android:exported': 'true' }, own)).toEqual([]);
    expect(told({ 'android:exported': 'false' }, component())).toEqual([]);
    const more = component({ attributes: { configChanges: 'orientation|screenSize|keyboard' } });
    expect(told({ 'android:configChanges': 'orientation|keyboard' }, more)).toEqual([]);
    for (const other of [
      { name: 'service' },
      { value: 'B' },
      { kind: 'companion' },
      { effective: { reason: 'removed', about: 'x' } },
    ])
      expect(told({ 'android:exported': 'false' }, { ...own, ...other } as never)).toEqual([]);
  });
});

describe('an application class', () => {
  const wanted = 'example.cobaltheron.ads.HeronApplication';
  const told = (...facts: Fact[]) =>
    reportsOf(applicationClassMissing, needing('android', { application: { class: wanted, why } }, facts));
  const declared = (value: string, more: object = {}) => held('application-class', { value, ...more });
  const extending = (value: string, more: object = {}) =>
    held('application-class', { name: wanted, value, network: 'cobalt-heron', ...more });
  const undeclared = (variants: string[], text: string) => ({
    ...ofEdition,
    variants,
    place: home,
    message: 'undeclared',
    data: { network, class: wanted, variants: text },
  });

  it('is told where none is declared', () => {
    expect(told()).toEqual([undeclared(all, 'debug, beta and release')]);
    expect(told(declared(wanted, { variants: ['debug', 'release'] }))).toEqual([
      undeclared(['beta'], 'beta'),
    ]);
    // A class that extends the wanted one and that no manifest names is not the application class.
    expect(told(extending('App'))).toEqual([undeclared(all, 'debug, beta and release')]);
    expect(told(held('companion', { value: wanted }))).toHaveLength(1);
  });

  it('is told where another one is declared, with the place and the way to it', () => {
    const chain = [{ value: 'x', place: null }];
    const one = declared('example.brine.App', { variants: ['debug', 'beta'], chain });
    const right = declared(wanted, { variants: ['release'] });
    expect(told(right, one)).toEqual([
      {
        ...ofEdition,
        variants: ['debug', 'beta'],
        place: one.place,
        chain,
        message: 'other',
        data: { network, class: wanted, variants: 'debug and beta', found: 'example.brine.App' },
      },
    ]);
  });

  it('is nothing where it is declared, or the declared one extends it', () => {
    expect(told(declared(wanted))).toEqual([]);
    expect(told(declared('example.brine.App'), extending('App'))).toEqual([]);
    expect(told(declared('example.brine.App'), extending('Other')).map((one) => one.message)).toEqual([
      'other',
    ]);
    const ofAnother = extending('App', { network: 'marlstone' });
    expect(told(declared('example.brine.App'), ofAnother)).toHaveLength(1);
    expect(reportsOf(applicationClassMissing, contextOf())).toEqual([]);
    expect(
      reportsOf(applicationClassMissing, needing('ios', { application: { class: wanted, why } })),
    ).toEqual([]);
  });
});

describe('a directive for the merger', () => {
  const told = (directive: object, ...facts: Fact[]) =>
    reportsOf(
      mergeDirectiveMissing,
      needing('android', { merge: [{ replace: [], why, ...directive }] }, facts),
    );
  const about = 'activity A';
  const node = { element: 'activity', name: 'A', node: 'replace' };
  const stands = (more: object = {}) =>
    held('merge-directive', {
      network: 'cobalt-heron',
      name: about,
      value: 'tools:node="replace"',
      given: true,
      ...more,
    });
  const data = { network, about, directive: 'tools:node="replace"', why };

  it('is told where the element is without it', () => {
    const one = stands({ given: false });
    expect(told(node, one)).toEqual([
      {
        ...ofEdition,
        variants: all,
        placement: null,
        place: one.place,
        chain: [],
        message: 'lacking',
        data,
      },
    ]);
  });

  it('is told where no manifest has the element, for a whole element only', () => {
    const missing = (variants: string[], text: string) => ({
      ...ofEdition,
      variants,
      place: home,
      message: 'missing',
      data: { ...data, variants: text },
    });
    expect(told(node)).toEqual([missing(all, 'debug, beta and release')]);
    expect(told(node, stands({ variants: ['beta'] }))).toEqual([
      missing(['debug', 'release'], 'debug and release'),
    ]);
    expect(told({ element: 'application', replace: ['android:theme'] })).toEqual([]);
  });

  it('is one for each attribute', () => {
    const replace = { element: 'application', replace: ['android:theme', 'android:label'] };
    const theme = stands({ name: 'application', value: 'tools:replace="android:theme"', given: false });
    expect(told(replace, theme).map((one) => one.data)).toEqual([
      { network, about: 'application', directive: 'tools:replace="android:theme"', why },
    ]);
  });

  it('is nothing where it is given, and not what another network or element has', () => {
    expect(told(node, stands())).toEqual([]);
    for (const more of [
      { network: 'marlstone' },
      { name: 'activity B' },
      { value: 'tools:node="merge"' },
      { kind: 'companion' },
    ])
      expect(told(node, stands({ given: false, ...more })).map((one) => one.message)).toEqual(['missing']);
  });
});

describe('what is told of each fact', () => {
  const plain = (rule: Rule, facts: Fact[]) =>
    reportsOf(rule, contextOf(facts)).map(({ message, data, place: at, variants }) => [
      message,
      data,
      at?.line,
      variants,
    ]);

  it('two values of an attribute', () => {
    const conflict = held('merge-conflict', { name: 'application android:label', value: '"a" and "b"' });
    const said = {
      name: 'application android:label',
      variants: 'debug, beta and release',
      value: '"a" and "b"',
    };
    expect(plain(mergeConflict, [conflict, permission()])).toEqual([['conflict', said, 7, all]]);
    expect(plain(mergeConflict, [{ ...conflict, name: undefined } as never])).toEqual([
      ['conflict', { ...said, name: '' }, 7, all],
    ]);
  });

  it('a unit ID under a prefix that leads nowhere', () => {
    const id = held('unit-id', {
      carrier: 'layout',
      name: 'app:heronUnit',
      value: 'CH-U-310772-AAAA1111',
      effective: { reason: 'undeclared-prefix', about: 'app' },
    });
    const where = 'under the undeclared prefix app';
    expect(plain(layoutNamespace, [id])).toEqual([
      ['foreign', { attribute: 'app:heronUnit', where }, 7, all],
    ]);
    expect(plain(layoutNamespace, [{ ...id, name: undefined } as never])[0]?.[1]).toEqual({
      attribute: '',
      where,
    });
    for (const more of [{ effective: true }, { carrier: 'code' }, { kind: 'app-id' }])
      expect(plain(layoutNamespace, [{ ...id, ...more } as never])).toEqual([]);
  });

  it('a banner at no edge', () => {
    const view = held('banner-view', { value: 'HeronBannerView', format: 'banner', anchor: 'no-edge' });
    const loose = ['loose', { view: 'HeronBannerView' }, 7, all];
    expect(plain(bannerNotAnchored, [view])).toEqual([loose]);
    expect(plain(bannerNotAnchored, [{ ...view, kind: 'call', action: 'view' } as never])).toEqual([loose]);
    for (const more of [
      { anchor: 'bottom' },
      { anchor: undefined },
      { kind: 'call', action: 'load' },
      { kind: 'companion' },
    ])
      expect(plain(bannerNotAnchored, [{ ...view, ...more } as never])).toEqual([]);
  });
});

describe('a permission up to a level', () => {
  const told = (...facts: Fact[]) =>
    reportsOf(permissionLimited, needing('android', { permissions: [{ name: 'P', why }] }, facts));

  it('is told where it is limited', () => {
    const one = permission({ maxSdk: '28' });
    expect(told(one)).toEqual([
      {
        ...ofEdition,
        variants: all,
        placement: null,
        place: one.place,
        chain: [],
        message: 'limited',
        data: { network, permission: 'P', max: '28', why },
      },
    ]);
  });

  it('is nothing where it is not, and of permissions that no network needs', () => {
    expect(told(permission())).toEqual([]);
    expect(told(permission({ name: 'Q', maxSdk: '28' }))).toEqual([]);
    expect(told(permission({ kind: 'companion', maxSdk: '28' }))).toEqual([]);
  });
});
