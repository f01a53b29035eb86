import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { generatedKeyIgnored } from '../../../src/core/checks/rules/plist-generated-key-ignored.js';
import { plistKeyMissing } from '../../../src/core/checks/rules/plist-key-missing.js';
import { plistKeyWrongType } from '../../../src/core/checks/rules/plist-key-wrong-type.js';
import { linkerFlagMissing } from '../../../src/core/checks/rules/plist-linker-flag-missing.js';
import { plistSharedByTargets } from '../../../src/core/checks/rules/plist-shared-by-targets.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, edition, fact, needing, place, reportsOf } from '../../support/surveyed.js';
import { kelp, profileOf } from '../../support/titles.js';

const all = ['debug', 'beta', 'release'];
const onIos = (kind: string, more: object = {}) =>
  fact(kind, { platform: 'ios', network: null, variants: all, ...more });
const key = (name: string, type: string, value: string, more: object = {}) =>
  onIos('plist-key', { name, type, value, list: 'info', ...more });
const said = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data }) => [message, data]);

/** A check of a title on Cobalt Heron, whose profile wants these keys. */
const wanting = (keys: object[], facts: Fact[]) => needing('ios', { keys }, facts);

describe('a key that a network wants', () => {
  const wanted = { key: 'HeronNotices', type: 'boolean', value: true, why: 'It asks for leave.' };
  const common = { platform: 'ios', module: 'app', network: 'cobalt-heron', place: place() };

  it('is told where it is missing, with the reason', () => {
    const held = key('HeronNotices', 'boolean', 'true', { variants: ['beta'] });
    expect(reportsOf(plistKeyMissing, wanting([wanted], [held]))).toEqual([
      {
        ...common,
        variants: ['debug', 'release'],
        message: 'missing',
        data: {
          network: 'Cobalt Heron',
          key: 'HeronNotices',
          variants: 'debug and release',
          why: 'It asks for leave.',
        },
      },
    ]);
    const everywhere = key('HeronNotices', 'boolean', 'true');
    expect(reportsOf(plistKeyMissing, wanting([wanted], [everywhere]))).toEqual([]);
    // The tracking text has a rule of its own.
    const text = { key: 'NSUserTrackingUsageDescription', type: 'string', why: 'x' };
    expect(reportsOf(plistKeyMissing, wanting([text], []))).toEqual([]);
    expect(reportsOf(plistKeyMissing, wanting([], []))).toEqual([]);
  });

  it('is told where it has another type or another value', () => {
    const told = (one: Fact) => said(plistKeyWrongType, wanting([wanted], [one]));
    const data = { network: 'Cobalt Heron', key: 'HeronNotices' };
    expect(told(key('HeronNotices', 'string', 'true'))).toEqual([
      ['type', { ...data, wanted: 'boolean', found: 'string' }],
    ]);
    expect(told(key('HeronNotices', 'boolean', 'false'))).toEqual([
      ['value', { ...data, wanted: 'true', found: 'false' }],
    ]);
    const [type] = reportsOf(
      plistKeyWrongType,
      wanting([wanted], [key('HeronNotices', 'string', 'x', { place: place('Info.plist', 7) })]),
    );
    expect([type?.network, type?.place?.line]).toEqual(['cobalt-heron', 7]);
    const [value] = reportsOf(
      plistKeyWrongType,
      wanting([wanted], [key('HeronNotices', 'boolean', 'false', { place: place('Info.plist', 8) })]),
    );
    expect([value?.network, value?.place?.line]).toEqual(['cobalt-heron', 8]);
  });

  it('is nothing where it is right, another key, or where the build does not look', () => {
    for (const one of [
      key('HeronNotices', 'boolean', 'true'),
      key('Other', 'string', 'x'),
      key('HeronNotices', 'string', 'x', { list: 'privacy' }),
      { ...key('HeronNotices', 'string', 'x'), kind: 'linker-flag' } as unknown as Fact,
    ])
      expect(said(plistKeyWrongType, wanting([wanted], [one]))).toEqual([]);
    const any = { ...wanted, value: undefined };
    expect(said(plistKeyWrongType, wanting([any], [key('HeronNotices', 'boolean', 'false')]))).toEqual([]);
    const number = { key: 'HeronRate', type: 'real', value: 2, why: 'x' };
    expect(said(plistKeyWrongType, wanting([number], [key('HeronRate', 'integer', '2')]))).toEqual([]);
  });

  it('is told with what it lacks where it holds several things', () => {
    const dictionary = {
      key: 'HeronHosts',
      type: 'dict',
      value: { hosts: ['a.example'], rules: { strict: true } },
      why: 'x',
    };
    const told = (content: unknown) =>
      said(plistKeyWrongType, wanting([dictionary], [key('HeronHosts', 'dict', '…', { content })]));
    const data = { network: 'Cobalt Heron', key: 'HeronHosts' };
    expect(told({ hosts: ['a.example', 'b.example'], rules: { strict: true } })).toEqual([]);
    expect(told({ hosts: ['b.example'], rules: {} })).toEqual([
      ['content', { ...data, wanted: 'hosts: ["a.example"], rules › strict: true' }],
    ]);
    expect(told([])).toEqual([
      ['content', { ...data, wanted: '{"hosts":["a.example"],"rules":{"strict":true}}' }],
    ]);
  });
});

describe('a setting of a project', () => {
  it('that generates nothing is told', () => {
    const ignored = { effective: { reason: 'setting-ignored' } };
    const facts = [
      key('HeronAppID', 'string', 'x', ignored),
      key('', 'string', 'x', { ...ignored, name: undefined, variants: ['debug'] }),
      key('Other', 'string', 'x'),
      key('Other', 'string', 'x', { effective: { reason: 'nested' } }),
    ];
    expect(said(generatedKeyIgnored, contextOf(facts))).toEqual([
      ['ignored', { key: 'HeronAppID', variants: 'debug, beta and release' }],
      ['ignored', { key: '', variants: 'debug' }],
    ]);
  });

  it('lacks a linker flag where a package is linked without it', () => {
    const [{ flag, why } = { flag: '', why: '' }] = profileOf('cobalt-heron').ios?.['linker-flags'] ?? [];
    expect(flag).not.toBe('');
    const linked = (more: object = {}) =>
      onIos('dependency', {
        network: 'cobalt-heron',
        variants: ['debug', 'release'],
        place: place('Kelp.xcodeproj/project.pbxproj', 5),
        ...more,
      });
    const set = (value: string, variants: string[]) => onIos('linker-flag', { value, variants });
    const lacking = (...facts: Fact[]) => reportsOf(linkerFlagMissing, contextOf(facts));
    expect(lacking(linked())).toEqual([
      {
        platform: 'ios',
        module: 'app',
        variants: ['debug', 'release'],
        network: 'cobalt-heron',
        place: place('Kelp.xcodeproj/project.pbxproj', 5),
        message: 'missing',
        data: { network: 'Cobalt Heron', flag, variants: 'debug and release', why },
      },
    ]);
    expect(lacking(linked(), set(flag, ['debug']))[0]?.variants).toEqual(['release']);
    expect(lacking(linked(), set(flag, all))).toEqual([]);
    expect(lacking(linked(), set('-other', all))).toHaveLength(1);
    expect(lacking(linked(), onIos('symbol', { value: flag }))).toHaveLength(1);
    // Pods bring the flag in a file that is part of no checkout.
    expect(lacking(linked({ place: place('Podfile') }))).toEqual([]);
    expect(lacking(linked({ place: place('ios/Podfile') }))).toEqual([]);
    expect(lacking(linked({ place: place('NoPodfile') }))).toHaveLength(1);
    expect(lacking(linked({ place: place('Podfile/x') }))).toHaveLength(1);
    for (const other of [
      linked({ network: 'marlstone' }),
      { ...linked(), kind: 'symbol' } as unknown as Fact,
    ])
      expect(lacking(other)).toEqual([]);
    expect(lacking()).toEqual([]);
  });
});

describe('a property list of several targets', () => {
  const declared = (module: string, more: object = {}) =>
    onIos('app-id', {
      carrier: 'property-list',
      network: 'cobalt-heron',
      module,
      value: 'CH-I-310772-M6R9V3XC',
      variants: ['release'],
      place: place('Info.plist', 9),
      chain: [{ value: 'CH-I-310772-M6R9V3XC', place: null }],
      ...more,
    });
  const shared = (facts: Fact[], identifiers = ['example.brine.kelp', 'example.brine.lite']) => {
    const context = contextOf(facts, { title: kelp() });
    const editions = ['Kelp', 'Lite'].map((module, at) => ({
      ...edition('ios', module),
      identifier: identifiers[at] ?? null,
    }));
    return reportsOf(plistSharedByTargets, { ...context, survey: { ...context.survey, editions } });
  };

  it('gives all of them one app ID, which is told', () => {
    expect(shared([declared('Kelp'), declared('Lite', { variants: ['debug'] })])).toMatchObject([
      {
        message: 'shared',
        module: null,
        platform: 'ios',
        variants: ['release', 'debug'],
        data: { targets: 'Kelp and Lite', value: 'CH-I-310772-M6R9V3XC' },
      },
    ]);
  });

  it('is nothing with one target, one identifier, two lists, or a setting for each', () => {
    expect(shared([declared('Kelp'), declared('Kelp')])).toEqual([]);
    const same = ['example.brine.kelp', 'example.brine.kelp'];
    expect(shared([declared('Kelp'), declared('Lite')], same)).toEqual([]);
    for (const more of [
      { place: place('Lite.plist', 9) },
      { place: place('Info.plist', 10) },
      { network: 'marlstone' },
      { platform: 'android' },
      {
        chain: [
          { value: '$(HERON)', place: null },
          { value: 'CH-I-310772-M6R9V3XC', place: null },
        ],
      },
    ])
      expect(shared([declared('Kelp'), declared('Lite', more)])).toEqual([]);
    const other = { ...declared('Lite'), kind: 'plist-key' } as unknown as Fact;
    expect(shared([declared('Kelp'), other])).toEqual([]);
  });
});
