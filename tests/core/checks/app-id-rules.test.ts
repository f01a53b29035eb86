import { describe, expect, it } from 'vitest';
import type { CheckContext, Report, Rule } from '../../../src/core/checks/model.js';
import { appIdDiffersFromRoster } from '../../../src/core/checks/rules/app-id-differs-from-roster.js';
import { appIdDuplicated } from '../../../src/core/checks/rules/app-id-duplicated.js';
import { appIdMalformed } from '../../../src/core/checks/rules/app-id-malformed.js';
import { appIdMissing } from '../../../src/core/checks/rules/app-id-missing.js';
import { appIdNestedTooDeep } from '../../../src/core/checks/rules/app-id-nested-too-deep.js';
import { appIdNotInRoster } from '../../../src/core/checks/rules/app-id-not-in-roster.js';
import { appIdUnitIdInPlace } from '../../../src/core/checks/rules/app-id-unit-id-in-place.js';
import { appIdWrongPlatform } from '../../../src/core/checks/rules/app-id-wrong-platform.js';
import type { Fact, Unresolved } from '../../../src/core/facts/model.js';
import { contextOf, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf, profileOf, profiles } from '../../support/titles.js';

const key = 'example.cobaltheron.ads.APP_ID';
const [android, ios] = ['CH-A-310772-QK4T8W2N', 'CH-I-310772-M6R9V3XC'];
const sample = 'CH-A-100001-SAMPLE0A';
const elsewhere = { effective: { reason: 'nested', about: 'activity .Main' } };

/** An app ID as the manifest declares it, at a place of its own. */
const appId = (value: string, more: object = {}) =>
  fact('app-id', { carrier: 'manifest', name: key, value, ...more });
/** An app ID that no value can be found for. */
const valueless = (more: object = {}) =>
  ({
    ...appId(''),
    what: 'meta-data APP_ID',
    reason: 'nothing defines it',
    cause: 'undefined',
    effective: undefined,
    ...more,
  }) as unknown as Unresolved;

const said = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data }) => [message, data]);
const told = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, variants }) => [message, variants]);

describe('an app ID that the roster does not hold', () => {
  const at = (stage: 'test' | 'production', variants: string[], value: string, more: object = {}) =>
    said(appIdDiffersFromRoster, contextOf([appId(value, { variants, ...more })])).filter(
      ([, data]) => (data as Report['data'])?.stage === stage,
    );

  it('is told for the stage that its variants belong to, with the one that is expected', () => {
    expect(at('production', ['release'], 'CH-A-999999-QK4T8W2N')).toEqual([
      [
        'differs',
        { id: 'CH-A-999999-QK4T8W2N', stage: 'production', network: 'Cobalt Heron', expected: android },
      ],
    ]);
    expect(at('test', ['release'], 'CH-A-999999-QK4T8W2N')).toEqual([]);
    expect(at('test', ['debug'], 'CH-A-999999-QK4T8W2N').map(([, data]) => data)).toMatchObject([
      { stage: 'test', expected: sample },
    ]);
  });

  it('is nothing where it is right, a sample, of another kind, or where the build does not look', () => {
    for (const value of [android, sample, 'CH-U-310772-BBBB1111', ios, 'YOUR_APP_ID'])
      expect(at('production', ['release'], value)).toEqual([]);
    expect(at('production', ['release'], 'CH-A-999999-QK4T8W2N', elsewhere)).toEqual([]);
    const other = fact('unit-id', { value: 'CH-A-999999-QK4T8W2N', variants: ['release'] });
    expect(said(appIdDiffersFromRoster, contextOf([other]))).toEqual([]);
  });

  it('is nothing in a variant of no stage, and where the roster has a hole', () => {
    expect(reportsOf(appIdDiffersFromRoster, contextOf([appId('CH-A-9', { variants: ['beta'] })]))).toEqual(
      [],
    );
    const title = kelp({ networks: { 'cobalt-heron': { android: { test: { app: sample } } } } });
    const wrong = appId('CH-A-999999-QK4T8W2N', { variants: ['release'] });
    expect(reportsOf(appIdDiffersFromRoster, contextOf([wrong], { title }))).toEqual([]);
  });

  it('is compared with the app ID of its network, not with a unit ID or another network’s', () => {
    const title = kelp({
      networks: {
        'cobalt-heron': { android: { production: { app: android } } },
        marlstone: { android: { production: { app: 'mrl1-0123456789abcdef01234567' } } },
      },
      placements: {
        footer: placementOf({ 'cobalt-heron': { android: { production: 'CH-U-310772-BBBB1111' } } }),
      },
    });
    const wrong = appId('CH-A-999999-QK4T8W2N', { variants: ['release'] });
    const reports = reportsOf(appIdDiffersFromRoster, contextOf([wrong], { title }));
    expect(reports.map(({ data }) => data?.expected)).toEqual([android]);
  });

  it('is said to be the one of the other platform where that is what it is', () => {
    const [keyAndroid, keyIos] = ['mrl1-0123456789abcdef01234567', 'mrl1-fedcba9876543210fedcba98'];
    const title = kelp({
      networks: {
        'cobalt-heron': { ios: { production: { app: ios } } },
        marlstone: {
          android: { production: { app: keyAndroid } },
          ios: { production: { app: keyIos } },
        },
      },
    });
    const inCode = (platform: string, value: string) =>
      fact('app-id', { network: 'marlstone', carrier: 'code', platform, value, variants: ['release'] });
    const facts = [inCode('android', keyIos), inCode('ios', keyAndroid)];
    expect(said(appIdDiffersFromRoster, contextOf(facts, { title }))).toEqual([
      [
        'elsewhere',
        {
          id: keyIos,
          stage: 'production',
          network: 'Marlstone',
          expected: keyAndroid,
          other: 'iOS',
          found: 'production',
        },
      ],
      [
        'elsewhere',
        {
          id: keyAndroid,
          stage: 'production',
          network: 'Marlstone',
          expected: keyIos,
          other: 'Android',
          found: 'production',
        },
      ],
    ]);
    const unknown = inCode('android', 'mrl1-aaaaaaaaaaaaaaaaaaaaaaaa');
    expect(told(appIdDiffersFromRoster, contextOf([unknown], { title }))).toEqual([['differs', ['release']]]);
  });
});

describe('an app ID that is declared twice', () => {
  const line = (at: number, more: object = {}) => appId(android, { place: place('m', at), ...more });

  it('is told at each further place, with the first, in the variants that have both', () => {
    const facts = [
      line(1, { variants: ['debug', 'release'] }),
      line(2, { variants: ['release'] }),
      line(3, { variants: ['beta', 'debug'] }),
    ];
    const reports = reportsOf(appIdDuplicated, contextOf(facts));
    expect(
      reports.map(({ message, variants, data, place }) => [message, variants, data, place?.line]),
    ).toEqual([
      ['twice', ['release'], { key, first: 'm:1:1' }, 2],
      ['twice', ['debug'], { key, first: 'm:1:1' }, 3],
    ]);
  });

  it('is called by its network where it has no name', () => {
    const facts = [line(1, { name: undefined }), line(2, { name: undefined })];
    expect(reportsOf(appIdDuplicated, contextOf(facts)).map(({ data }) => data?.key)).toEqual([
      'Cobalt Heron',
    ]);
  });

  it('is none at one place, of another module or network, where the build does not look, or in code', () => {
    for (const other of [
      line(1),
      line(2, { module: 'wear' }),
      line(2, { network: 'quincebury' }),
      line(2, { variants: ['release'] }),
      line(2, elsewhere),
      line(2, { carrier: 'code' }),
      line(2, { carrier: 'placebook' }),
    ]) {
      expect(reportsOf(appIdDuplicated, contextOf([line(1), other]))).toEqual([]);
      expect(reportsOf(appIdDuplicated, contextOf([other, line(1)]))).toEqual([]);
    }
    // Nor do texts run into each other.
    const facts = [line(1, { module: 'a', variants: ['bc'] }), line(2, { module: 'ab', variants: ['c'] })];
    expect(reportsOf(appIdDuplicated, contextOf(facts))).toEqual([]);
    for (const carrier of ['code', 'placebook'])
      expect(reportsOf(appIdDuplicated, contextOf([line(1, { carrier }), line(2, { carrier })]))).toEqual([]);
  });
});

describe('an app ID that is not one', () => {
  it('is told by what it is instead', () => {
    const facts = [` ${android}`, 'YOUR_APP_ID', 'CH-A-310772', android, 'CH-U-310772-BBBB1111', ios].map(
      (value) => appId(value),
    );
    const context = contextOf(facts);
    const network = 'Cobalt Heron';
    expect(said(appIdMalformed, context)).toEqual([
      ['whiteSpace', { value: `" ${android}"`, network }],
      ['placeholder', { value: '"YOUR_APP_ID"', network }],
      ['unknown', { value: '"CH-A-310772"', network }],
    ]);
    expect(said(appIdUnitIdInPlace, context)).toEqual([
      ['unit', { id: 'CH-U-310772-BBBB1111', kind: 'unit', network }],
    ]);
    expect(said(appIdWrongPlatform, context)).toEqual([
      ['other', { id: ios, other: 'iOS', platform: 'Android', network }],
    ]);
    expect(said(appIdWrongPlatform, contextOf([appId(android, { platform: 'ios' })]))).toEqual([
      ['other', { id: android, other: 'Android', platform: 'iOS', network }],
    ]);
  });

  it('is nothing where the build does not look', () => {
    const facts = ['YOUR_APP_ID', 'CH-U-310772-BBBB1111', ios].map((value) => appId(value, elsewhere));
    for (const rule of [appIdMalformed, appIdUnitIdInPlace, appIdWrongPlatform])
      expect(reportsOf(rule, contextOf(facts))).toEqual([]);
  });

  it('is told by where it is, when that is too deep', () => {
    const removed = { effective: { reason: 'removed', about: 'activity .Other' } };
    const unnamed = { effective: { reason: 'nested' } };
    const facts = [
      appId(android),
      appId(android, elsewhere),
      appId(android, removed),
      appId(android, unnamed),
    ];
    expect(said(appIdNestedTooDeep, contextOf(facts))).toEqual([
      ['nested', { network: 'Cobalt Heron', holder: 'activity .Main' }],
      ['nested', { network: 'Cobalt Heron', holder: '' }],
    ]);
  });
});

describe('an app ID that the roster lacks', () => {
  it('is told for each platform and stage; a unit ID is another rule’s', () => {
    const title = kelp({
      networks: { 'cobalt-heron': { android: { test: { app: sample } }, ios: { production: { app: ios } } } },
      placements: {
        footer: placementOf({ 'cobalt-heron': {} }),
      },
    });
    expect(said(appIdNotInRoster, contextOf([], { title }))).toEqual([
      ['hole', { stage: 'production', network: 'Cobalt Heron', platform: 'android' }],
    ]);
  });
});

describe('an app ID that is missing', () => {
  const only = { editions: { android: { identifier: 'example.brine.kelp' } } };
  const title = kelp({
    ...only,
    networks: { 'cobalt-heron': { android: { production: { app: android } } } },
  });
  const all = ['debug', 'beta', 'release'];
  const missing = (facts: Fact[], unresolved: Unresolved[] = []) =>
    reportsOf(appIdMissing, contextOf(facts, { title, unresolved })).filter(
      ({ platform }) => platform === 'android',
    );

  it('is told once for the variants that have none', () => {
    expect(missing([])).toEqual([
      {
        platform: 'android',
        module: 'app',
        variants: all,
        network: 'cobalt-heron',
        place: place(),
        message: 'declared',
        data: { network: 'Cobalt Heron', variants: 'debug, beta and release', key },
      },
    ]);
    expect(missing([appId(android, { variants: all })])).toEqual([]);
    expect(missing([appId(android, { variants: ['beta', 'release'] })])[0]?.variants).toEqual(['debug']);
  });

  it('is not made up for by another module, network or kind of fact', () => {
    for (const more of [{ module: 'wear' }, { network: 'quincebury' }, { kind: 'unit-id' }, elsewhere])
      expect(missing([appId(android, { variants: all, ...more })])[0]?.variants).toEqual(all);
  });

  it('is told at the directive that removes it, and of the other variants by itself', () => {
    const removed = appId('', {
      variants: ['release'],
      effective: { reason: 'removed', about: 'tools:node="remove"' },
      place: place('release.xml', 4),
    });
    const network = 'Cobalt Heron';
    expect(missing([removed, appId(android, { variants: ['debug'] })])).toMatchObject([
      {
        message: 'removed',
        mend: 'removed',
        variants: ['release'],
        place: { path: 'release.xml', line: 4 },
        data: { network, key, directive: 'tools:node="remove"', variants: 'release' },
      },
      { message: 'declared', variants: ['beta'] },
    ]);
    // What is removed of something else, or of another module, says nothing of it.
    for (const more of [{ kind: 'permission' }, { module: 'wear' }])
      expect(missing([{ ...removed, ...more } as Fact]).map(({ message }) => message)).toEqual(['declared']);
    expect(missing([{ ...removed, name: undefined } as Fact])[0]?.data?.key).toBe('');
  });

  it('is told where it has no value, once for all variants of a place', () => {
    const facts = [appId(android, { variants: ['beta'] })];
    const reports = missing(facts, [
      valueless({ variants: ['debug', 'beta'] }),
      valueless({ variants: ['debug', 'release'] }),
    ]);
    expect(reports).toEqual([
      {
        platform: 'android',
        module: 'app',
        network: 'cobalt-heron',
        place: place(),
        chain: [],
        variants: ['debug', 'release'],
        message: 'undefined',
        data: { network: 'Cobalt Heron', variants: 'debug and release', reason: 'nothing defines it' },
      },
    ]);
    expect(missing(facts, [valueless({ variants: ['beta'] })]).map(({ message }) => message)).toEqual([
      'declared',
    ]);
    const two = [valueless({ place: place('m', 1) }), valueless({ place: place('m', 2) })];
    expect(missing([], two).map(({ message }) => message)).toEqual(['undefined', 'undefined', 'declared']);
  });

  it('is told as a declaration without a value, and as a resource that is a number', () => {
    const empty = valueless({ cause: 'no-value', variants: all });
    expect(missing([], [empty])).toMatchObject([
      {
        message: 'noValue',
        data: { network: 'Cobalt Heron', key: 'meta-data APP_ID', variants: 'debug, beta and release' },
      },
    ]);
    const asResource = { reason: 'as-resource', about: 'android:resource' };
    const number = appId('@string/heron', { effective: asResource, variants: all });
    const attribute = 'android:resource';
    expect(missing([number])).toMatchObject([
      { message: 'asResource', data: { network: 'Cobalt Heron', key, attribute } },
    ]);
    const unnamed = { ...number, name: undefined, chain: [{ value: 'APP_ID', place: null }] };
    expect(missing([unnamed as unknown as Fact])[0]?.data?.key).toBe('APP_ID');
    expect(missing([{ ...number, name: undefined } as Fact])[0]?.data?.key).toBe('');
  });

  it('is looked for where the network declares it, in code as in manifests', () => {
    const marlstone = kelp({
      ...only,
      networks: { marlstone: { android: { production: { app: 'mrl1-0123456789abcdef01234567' } } } },
    });
    expect(said(appIdMissing, contextOf([], { title: marlstone }))).toEqual([
      ['inCode', { network: 'Marlstone', variants: 'debug, beta and release', label: 'app key' }],
    ]);
    const without = profiles.map((profile) =>
      profile.id === 'cobalt-heron'
        ? { ...profile, android: { ...profile.android, 'app-id': undefined } }
        : profile,
    );
    const bare = profiles.map((profile) =>
      profile.id === 'cobalt-heron' ? { ...profile, ids: { ...profile.ids, app: undefined } } : profile,
    );
    expect(profileOf('cobalt-heron').ids.app).toBeDefined();
    for (const changed of [without, bare])
      expect(reportsOf(appIdMissing, contextOf([], { title, profiles: changed as never }))).toEqual([]);
  });
});
