import { describe, expect, it } from 'vitest';
import { carriesId, readAppId } from '../../../src/core/checks/app-ids.js';
import { unitsOfOtherPlatform } from '../../../src/core/checks/both-platforms.js';
import { isInItsFolder } from '../../../src/core/checks/companions.js';
import { installCommand } from '../../../src/core/checks/install.js';
import type { CheckContext } from '../../../src/core/checks/model.js';
import { misplacedIn } from '../../../src/core/checks/misplaced.js';
import { nearUnit } from '../../../src/core/checks/near-ids.js';
import { fromView, partnerApps, partnerUnits } from '../../../src/core/checks/partner-scope.js';
import { isInfoKey, withoutKey } from '../../../src/core/checks/plist-keys.js';
import {
  fromRehearsed,
  rehearsedOnNetworks,
  rehearsedPlacements,
  timeIn,
} from '../../../src/core/checks/rehearsed.js';
import { isSample, oneEditApart, refusedSettings } from '../../../src/core/checks/roster.js';
import {
  editionScopes,
  fromFact,
  fromValue,
  lackingVariants,
  listed,
  networkName,
  removalsAmong,
  stagedVariants,
  variantsAt,
  type EditionScope,
} from '../../../src/core/checks/scope.js';
import { sameLine, sharedVersions, wantedVersion } from '../../../src/core/checks/versions.js';
import type { Fact, FactOf } from '../../../src/core/facts/model.js';
import type { InventoryReading } from '../../../src/core/inventory/model.js';
import type { Profile } from '../../../src/core/network/model.js';
import { recogniser } from '../../../src/core/network/recognise.js';
import type { Platform } from '../../../src/core/words/words.js';
import { contextOf as surveyed, edition, fact, place } from '../../support/surveyed.js';
import { kelp, placement, profileOf } from '../../support/titles.js';

const [footerId, footerIos] = ['CH-U-310772-AAAA1111', 'CH-U-310772-AAAA2222'];
const [headerId, headerIos] = ['CH-U-310772-BBBB1111', 'CH-U-310772-BBBB2222'];
const title = kelp({
  placements: {
    footer: placement('banner', footerId, footerIos),
    header: placement('banner', headerId, headerIos),
  },
});
const contextOf = (facts: Fact[] = [], more: Partial<CheckContext> = {}): CheckContext =>
  surveyed(facts, { title, ...more });
const android = (context: CheckContext): EditionScope => editionScopes(context)[0]!;

describe('the editions of a run', () => {
  it('are those of the title that the tree builds, with its networks and facts', () => {
    const [mine, ios, other] = [
      fact('app-id'),
      fact('app-id', { platform: 'ios' }),
      fact('app-id', { module: 'wear' }),
    ];
    const context = contextOf([mine, ios, other]);
    const scopes = editionScopes(context);
    expect(scopes.map(({ platform, facts }) => [platform, facts])).toEqual([
      ['android', [mine]],
      ['ios', [ios]],
    ]);
    expect(scopes[0]?.networks.map(({ id }) => id)).toEqual(['cobalt-heron']);
    expect(scopes[0]?.expected.map(({ platform }) => platform)).not.toContain('ios');
    expect(editionScopes(context)).toBe(scopes);
    expect(editionScopes({ ...context, title: null })).toEqual([]);
    const bare = { ...context.survey, editions: [edition('ios')] };
    expect(editionScopes({ ...context, survey: bare }).map(({ platform }) => platform)).toEqual(['ios']);
  });

  it('have variants by stage', () => {
    const scope = android(contextOf());
    expect(variantsAt(scope, ['debug', 'release'], 'production')).toEqual(['release']);
    expect(variantsAt(scope, ['debug'], 'production')).toEqual([]);
    expect(stagedVariants(scope, 'test').map(({ name }) => name)).toEqual(['debug']);
  });

  it('lack what no fact that counts gives them', () => {
    const scope = android(contextOf());
    expect(lackingVariants(scope, [])).toEqual(['debug', 'beta', 'release']);
    expect(lackingVariants(scope, [fact('x'), { variants: ['release'] }])).toEqual(['beta']);
    const removed = { variants: ['beta'], effective: { reason: 'removed', about: 'x' } as const };
    expect(lackingVariants(scope, [removed, { variants: ['debug'], cause: 'undefined' }])).toEqual([
      'debug',
      'beta',
      'release',
    ]);
  });

  it('lack what a directive removes', () => {
    const removed = (about: string | undefined, variants: string[], line = 1) =>
      fact('component', { effective: { reason: 'removed', about }, variants, place: place('m', line) });
    const [one, again, other] = [
      removed('tools:node="remove"', ['debug']),
      removed('x', ['debug', 'release']),
      removed(undefined, ['release'], 2),
    ];
    const all = [
      one,
      again,
      other,
      removed('x', ['beta'], 3),
      fact('component'),
      fact('component', { effective: { reason: 'nested' }, variants: ['debug'], place: place('m', 9) }),
    ];
    expect(removalsAmong(all, ['debug', 'release'])).toEqual([
      { fact: one, directive: 'tools:node="remove"', variants: ['debug', 'release'] },
      { fact: other, directive: '', variants: ['release'] },
    ]);
  });
});

describe('what a report takes over', () => {
  it('from a fact', () => {
    expect(fromFact(fact('unit-id', { placement: 'footer' }))).toEqual({
      platform: 'android',
      module: 'app',
      variants: ['debug'],
      network: 'cobalt-heron',
      placement: 'footer',
      place: place(),
      chain: [],
    });
    expect(fromFact(fact('unit-id')).placement).toBe(null);
  });

  it('from a value: the place where it is written last', () => {
    const step = (value: string | null, line: number | null) => ({
      what: 's',
      value,
      place: line === null ? null : place('b', line),
    });
    const of = (...chain: ReturnType<typeof step>[]) =>
      fromValue(fact('app-id', { value: 'X ', chain })).place;
    expect(of(step('X', 1), step(' X', 2), step('other', 3), step('X', null), step(null, 4))).toEqual(
      place('b', 2),
    );
    expect(of(step('other', 3))).toEqual(place());
  });

  it('from a rehearsal', () => {
    const rehearsed = { ...fact('rehearsed', { place: place('') }) } as FactOf<'rehearsed'>;
    expect(fromRehearsed(rehearsed)).toEqual({
      platform: 'android',
      module: 'app',
      variants: ['debug'],
      network: 'cobalt-heron',
      placement: null,
      place: null,
    });
    expect(fromRehearsed({ ...rehearsed, place: place('b'), placement: 'footer' })).toMatchObject({
      placement: 'footer',
      place: place('b'),
    });
  });
});

describe('words of a message', () => {
  it.each([
    [[], ''],
    [['a'], 'a'],
    [['a', 'b'], 'a and b'],
    [['a', 'b', 'c'], 'a, b and c'],
    [['a', 'b', 'c', 'd', 'e', 'f'], 'a, b, c, d, e and f'],
    [['a', 'b', 'c', 'd', 'e', 'f', 'g'], 'a, b, c, d and 3 more'],
  ])('list %j as %s', (names, text) => {
    expect(listed(names)).toBe(text);
  });

  it('name networks, platforms and times', () => {
    expect(listed(['a', 'b', 'c', 'd', 'e'], 4)).toBe('a, b, c, d and 1 more');
    expect([
      networkName(contextOf(), 'marlstone'),
      networkName(contextOf(), 'nowhere'),
      networkName(contextOf(), null),
    ]).toEqual(['Marlstone', 'nowhere', 'no network']);
    expect([0, 1_240, 59_999, 60_000, 65_400, 3_600_000].map(timeIn)).toEqual([
      '0.0 s',
      '1.2 s',
      '60.0 s',
      '1 min',
      '1 min 5 s',
      '60 min',
    ]);
  });

  it.each([
    ['Podfile.lock', 'pod install'],
    ['pubspec.lock', 'flutter pub get'],
    ['yarn.lock', 'yarn install'],
    ['package-lock.json', 'npm install'],
    ['other.lock', 'npm install'],
    ['constructor', 'npm install'],
  ])('say what brings %s up to date: %s', (lock, command) => {
    expect(installCommand(lock)).toBe(command);
  });
});

describe('the value of an app ID', () => {
  const read = (value: string, more: object = {}) =>
    readAppId(fact('app-id', { value, ...more }), contextOf());
  it.each([
    ['CH-A-310772-QK4T8W2N', 'right-kind'],
    ['CH-A-100001-SAMPLE0A', 'right-kind'],
    ['CH-I-310772-M6R9V3XC', 'other-platform'],
    ['CH-I-100001-SAMPLE0I', 'other-platform'],
    [footerId, 'other-kind'],
    [' CH-A-310772-QK4T8W2N', 'white-space'],
    ['YOUR_APP_ID', 'placeholder'],
    ['', 'placeholder'],
    [' ', 'placeholder'],
    ['${APP_ID}', 'placeholder'],
    ['null', 'placeholder'],
    ['TODO', 'placeholder'],
    ['<id>', 'placeholder'],
    ['not-null', 'unknown'],
    ['hello', 'unknown'],
    ['mrl1-0123456789abcdef01234567', 'unknown'],
  ])('%j is %s', (value, is) => {
    expect(read(value).is).toBe(is);
  });

  it('may be a sample that says itself of which platform it is', () => {
    const heron = profileOf('cobalt-heron');
    const app = { ...heron.ids.app!, platforms: {}, pattern: 'CH-[AI]-(?<account>\\d{6})-[A-Z0-9]{8}' };
    const open = { ...heron, ids: { ...heron.ids, app } } as Profile;
    const readOf = (value: string) =>
      readAppId(fact('app-id', { value }), contextOf([], { recogniser: recogniser([open]) })).is;
    expect(['CH-A-100001-SAMPLE0A', 'CH-I-100001-SAMPLE0I', 'CH-I-310772-M6R9V3XC'].map(readOf)).toEqual([
      'right-kind',
      'other-platform',
      'right-kind',
    ]);
  });

  it('counts where the build looks, when it is of the right kind; a unit ID counts whatever it is', () => {
    const carries = (kind: string, more: object = {}) => carriesId(fact(kind, more), contextOf());
    expect(carries('app-id', { value: 'CH-A-310772-QK4T8W2N' })).toBe(true);
    expect(carries('app-id', { value: footerId })).toBe(false);
    expect(carries('app-id', { value: 'CH-A-310772-QK4T8W2N', effective: { reason: 'nested' } })).toBe(false);
    expect(carries('unit-id', { value: 'anything' })).toBe(true);
    expect(carries('unit-id', { effective: { reason: 'outside-target' } })).toBe(false);
    expect(carries('dependency')).toBe(false);
  });
});

describe('IDs that look alike', () => {
  it.each([
    ['CH-A-QK4T', 'CH-A-QK4X', true],
    ['CH-A-QK4T', 'CH-A-KQ4T', true],
    ['CH-A-1', 'CH-A-2', false],
    ['CH-A-1', 'CH-A-B', true],
    ['CH-A-12', 'CH-A-21', true],
    ['CH-A', 'CH-A', false],
    ['CH-A', 'CH-AB', false],
    ['abcd', 'bacde', false],
    ['abcd', 'cbad', false],
    ['abcd', 'badc', false],
    ['abcd', 'axyd', false],
    ['abcd', 'acxd', false],
    ['abcd', 'axbd', false],
  ])('%s and %s: %s', (a, b, alike) => {
    expect(oneEditApart(a, b)).toBe(alike);
    expect(oneEditApart(b, a)).toBe(alike);
  });

  it('lead to the nearest unit on record', () => {
    const near = (id: string, network = 'cobalt-heron') => nearUnit(id, network, title);
    expect(near('CH-U-310772-AAAA111X')).toEqual({ id: footerId, placement: 'footer' });
    expect(near('CH-U-310772-BBBB2223')).toEqual({ id: headerIos, placement: 'header' });
    expect(near(footerId)).toEqual(undefined);
    expect(near('CH-U-310772-ZZZZ9999')).toBe(undefined);
    expect(near('CH-U-310772-AAAA111X', 'marlstone')).toBe(undefined);
    const two = kelp({
      placements: {
        a: placement('banner', 'CH-U-1', 'CH-U-22'),
        b: placement('banner', 'CH-U-3', 'CH-U-2233'),
      },
    });
    expect(nearUnit('CH-U-223', 'cobalt-heron', two)?.id).toBe('CH-U-22');
  });

  it('may be samples', () => {
    expect([
      isSample(contextOf(), 'CH-A-100001-SAMPLE0A'),
      isSample(contextOf(), footerId),
      isSample(contextOf(), 'x'),
    ]).toEqual([true, false, false]);
  });
});

describe('settings that a network refuses', () => {
  it('are told for each placement and network', () => {
    const refused = (
      settings: object,
      units: object = { 'cobalt-heron': {} },
      of: CheckContext['title'] = title,
    ) => [
      ...refusedSettings(
        contextOf([], {
          title: of && kelp({ placements: { spot: { format: 'banner', settings, units } as never } }),
        }),
        'refresh',
      ),
    ];
    expect(refused({ refresh: '10s' })).toEqual([
      {
        placement: 'spot',
        network: 'cobalt-heron',
        message: 'refused',
        data: {
          placement: 'spot',
          value: '"10s"',
          why: 'Cobalt Heron does not support a refresh time of 10s.',
          fix: 'Use a time from 30s to 120s.',
        },
      },
    ]);
    expect(refused({ refresh: '60s' })).toEqual([]);
    expect(refused({ timeout: '90s' })).toEqual([]);
    expect(refused({ refresh: '10s' }, { marlstone: {} })).toEqual([]);
    expect(refused({ refresh: '10s' }, {})).toEqual([]);
    expect(refused({}, {}, null)).toEqual([]);
  });
});

it('a unit that stands where another belongs is one of a network that the title uses', () => {
  const load = (network: string) =>
    fact('call', {
      network,
      action: 'load',
      format: 'rewarded',
      place: { ...place('Ads.kt'), endLine: 2 },
      code: { argument: { ids: [footerId], written: 'FOOTER' } },
    });
  const unit = (network: string) =>
    fact('unit-id', {
      network,
      carrier: 'code',
      value: footerId,
      placement: 'footer',
      place: place('Ids.kt'),
    });
  const isMisplaced = (network: string) => {
    const context = contextOf([load(network), unit(network)]);
    return misplacedIn(android(context))(unit(network));
  };
  expect([isMisplaced('cobalt-heron'), isMisplaced('marlstone')]).toEqual([true, false]);
  const context = contextOf([load('cobalt-heron')]);
  expect(misplacedIn(android(context))({ ...unit('cobalt-heron'), value: headerId } as Fact)).toBe(false);
});

describe('unit IDs in the build of the other platform', () => {
  const unit = (value: string, platform: Platform, line: number, more: object = {}) =>
    fact('unit-id', {
      value,
      platform,
      carrier: 'code',
      placement: value.includes('AAAA') ? 'footer' : 'header',
      place: place('Ads.dart', line),
      ...more,
    });
  const found = (...facts: Fact[]) =>
    unitsOfOtherPlatform(contextOf(facts)).map(({ scope, fact: one, holder, how }) => [
      scope.platform,
      one.value,
      holder,
      how,
    ]);
  const when = (text: string, holds: boolean) => ({
    code: {
      conditions: [
        { text: 'outer', holds: true },
        { text, holds },
      ],
    },
  });

  it('are those that only the other platform holds', () => {
    expect(found(unit(footerId, 'android', 1), unit(footerIos, 'ios', 2))).toEqual([]);
    expect(found(unit(footerIos, 'android', 1))).toEqual([['android', footerIos, 'ios', 'other']]);
    expect(found(unit('CH-U-310772-ELSE0000', 'android', 1))).toEqual([]);
    expect(
      found(
        unit(footerIos, 'android', 1, { placement: undefined }),
        unit(footerIos, 'android', 1, { network: null }),
      ),
    ).toEqual([]);
    expect(found({ ...unit(footerIos, 'android', 1), kind: 'call' } as Fact)).toEqual([]);
  });

  it('may be one for both platforms', () => {
    expect(found(unit(footerId, 'android', 1), unit(footerId, 'ios', 1))).toEqual([
      ['ios', footerId, 'android', 'one for both'],
    ]);
    for (const other of [
      unit(footerId, 'android', 2),
      { ...unit(footerId, 'android', 1), place: place('Ads.dart', 1, 2) } as Fact,
      { ...unit(footerId, 'android', 1), place: place('Other.dart') } as Fact,
    ])
      expect(found(other, unit(footerId, 'ios', 1))).toEqual([['ios', footerId, 'android', 'other']]);
  });

  it('may be exchanged in the branches of a choice', () => {
    const swapped = (a: object, b: object, value = footerId) =>
      found(unit(footerIos, 'android', 1, a), unit(value, 'ios', 2, b)).map(([, , , how]) => how);
    expect(swapped(when('isIOS', false), when('isIOS', true))).toEqual(['swapped', 'swapped']);
    expect(swapped(when('isIOS', true), when('isIOS', true))).toEqual(['other', 'other']);
    expect(swapped(when('isAndroid', true), when('isIOS', true))).toEqual(['swapped', 'swapped']);
    expect(swapped(when('isAndroid', false), when('isIOS', true))).toEqual(['other', 'other']);
    expect(swapped(when('isAndroid', true), when('isIOS', false))).toEqual(['other', 'other']);
    expect(swapped(when('isAndroid', true), when('isIOS', true), headerId)).toEqual(['other', 'other']);
    expect(swapped(when('isIOS', false), { ...when('isIOS', true), place: place('Other.dart', 2) })).toEqual([
      'other',
      'other',
    ]);
    expect(swapped({}, {})).toEqual(['other', 'other']);
  });
});

describe('what the list of a network says', () => {
  const inventory = (more: Partial<InventoryReading>): InventoryReading => ({
    network: 'cobalt-heron',
    source: 'http',
    readAt: '',
    apps: [],
    units: [],
    knownAs: {},
    ...more,
  });
  const context = (more: Partial<InventoryReading>) =>
    contextOf([], { inventories: [inventory({ network: 'marlstone' }), inventory(more)] });

  it('of units of the roster’s own', () => {
    const units = [
      { id: footerId, status: 'active' },
      { id: headerId, status: 'removed' },
    ] as InventoryReading['units'];
    const views = [...partnerUnits(context({ units }))];
    expect(views.map(({ expected, item, profile }) => [expected.id, item?.id, profile.id])).toEqual([
      [footerId, footerId, 'cobalt-heron'],
      [headerId, undefined, 'cobalt-heron'],
      [footerIos, undefined, 'cobalt-heron'],
      [headerIos, undefined, 'cobalt-heron'],
    ]);
    expect(fromView(views[0]!)).toEqual({
      platform: 'android',
      module: 'app',
      variants: ['release'],
      network: 'cobalt-heron',
      placement: 'footer',
    });
    expect([...partnerUnits(contextOf())]).toEqual([]);
  });

  it('of apps, where it lists any', () => {
    const apps = [{ id: 'CH-A-310772-QK4T8W2N' }] as InventoryReading['apps'];
    const views = [...partnerApps(context({ apps }))];
    expect(views.map(({ expected, item }) => [expected.id, item?.id])).toEqual([
      ['CH-A-310772-QK4T8W2N', 'CH-A-310772-QK4T8W2N'],
      ['CH-I-310772-M6R9V3XC', undefined],
    ]);
    expect(fromView(views[0]!).placement).toBe(null);
    expect([...partnerApps(context({}))]).toEqual([]);
  });
});

describe('keys of a property list', () => {
  const key = (more: object = {}) =>
    fact('plist-key', { name: 'Key', list: 'info', ...more }) as FactOf<'plist-key'>;
  it('count in the list of the app, where the build looks', () => {
    expect(isInfoKey(key())).toBe(true);
    expect(isInfoKey(key({ list: 'privacy' }))).toBe(false);
    expect(isInfoKey(key({ effective: { reason: 'outside-target' } }))).toBe(false);
  });

  it('lack in the variants that have none', () => {
    const lacking = (...facts: Fact[]) => withoutKey(android(contextOf(facts)), 'Key');
    expect(lacking(key())).toEqual(['beta', 'release']);
    expect(lacking(key({ variants: ['debug', 'beta', 'release'] }))).toEqual([]);
    expect(
      lacking(key({ name: 'Other' }), key({ list: 'privacy' }), {
        ...key(),
        kind: 'plist-list',
      } as unknown as Fact),
    ).toEqual(['debug', 'beta', 'release']);
  });

  it('a companion file is in its folder, built in or not', () => {
    expect(
      [{}, { effective: true as const }, { effective: { reason: 'outside-target' as const } }].map(
        isInItsFolder,
      ),
    ).toEqual([true, true, true]);
    expect(isInItsFolder({ effective: { reason: 'wrong-folder' } })).toBe(false);
  });
});

describe('what a rehearsal saw', () => {
  const seen = (network: string, more: object = {}) =>
    fact('rehearsed', { network, placement: 'footer', events: [], ...more });
  const event = (at: number) => ({ at });

  it('is one for a placement in a variant, with the events of all networks in order', () => {
    const [a, b] = [
      seen('cobalt-heron', { events: [event(1), event(5)] }),
      seen('marlstone', { events: [event(3)] }),
    ];
    const [other, header] = [
      seen('cobalt-heron', { variants: ['release'] }),
      seen('cobalt-heron', { placement: 'header' }),
    ];
    expect(rehearsedPlacements(contextOf([a, other, b, header, fact('app-id')]))).toEqual([
      { facts: [a, b], events: [event(1), event(3), event(5)] },
      { facts: [other], events: [] },
      { facts: [header], events: [] },
    ]);
  });

  it('is told by network, of those that the title uses', () => {
    const [a, b] = [seen('cobalt-heron'), seen('marlstone')];
    expect(
      rehearsedOnNetworks(contextOf([a, b, fact('app-id')])).map(({ fact: one, profile }) => [
        one,
        profile.id,
      ]),
    ).toEqual([[a, 'cobalt-heron']]);
  });
});

describe('the versions of a profile', () => {
  const profile = (android: object[], pods: object[] = [], packages: object[] = [], stacks: object = {}) =>
    ({
      ...profileOf('cobalt-heron'),
      android: { dependencies: android },
      ios: { pods, packages },
      stacks,
    }) as unknown as Profile;
  const dep = (coordinate: string, version: string, together?: string) => ({ coordinate, version, together });

  it('are those of a library, a pod, a package or what a stack publishes', () => {
    const all = profile(
      [dep('a:one', '6.2.0')],
      [{ name: 'One', version: '5.1' }],
      [{ product: 'OneKit', version: '5.2' }],
      {
        flutter: { package: 'one_ads', version: '3.0.0' },
        unity: {},
      },
    );
    expect(
      ['a:one', 'One', 'One/Banner', 'OneKit', 'one_ads', 'other'].map((name) => wantedVersion(all, name)),
    ).toEqual(['6.2.0', '5.1', '5.1', '5.2', '3.0.0', undefined]);
    expect(wantedVersion({ ...all, android: undefined, ios: undefined }, 'a:one')).toBe(undefined);
  });

  it('are of one line when both platforms have the same first number', () => {
    const [one] = [[dep('a:one', '6.2.0')]];
    expect(sameLine(profile(one, [{ name: 'One', version: '6.9' }]))).toBe(true);
    expect(
      sameLine(profile(one, [{ name: 'One', version: '7.0' }], [{ product: 'x', version: '6.0' }])),
    ).toBe(false);
    expect(sameLine(profile(one, [], [{ product: 'x', version: '6.0' }]))).toBe(true);
    expect(sameLine(profile([], []))).toBe(false);
    expect(sameLine(profile(one))).toBe(false);
  });

  it('are published together by group and version, or as the profile says', () => {
    const shared = (platform: Platform, of: Profile) =>
      sharedVersions(of, platform).map((names) => [...names]);
    const some = [dep('a:one', '1'), dep('a:two', '1'), dep('a:three', '2'), dep('b:four', '1')];
    expect(shared('android', profile(some))).toEqual([['a:one', 'a:two']]);
    expect(
      shared('android', profile([dep('a:one', '1', 'x'), dep('b:two', '2', 'x'), dep('a:three', '1')])),
    ).toEqual([['a:one', 'b:two']]);
    const pods = [
      { name: 'One', version: '1' },
      { name: 'Two', version: '1' },
      { name: 'Three', version: '2' },
    ];
    expect(shared('ios', profile(some, pods))).toEqual([['One', 'Two']]);
    expect(shared('ios', { ...profile(some), ios: undefined })).toEqual([]);
    expect(shared('android', { ...profile(some), android: undefined })).toEqual([]);
  });
});
