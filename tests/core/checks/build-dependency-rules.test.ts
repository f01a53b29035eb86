import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { dependencyMissing } from '../../../src/core/checks/rules/build-dependency-missing.js';
import { dependencyTooOld } from '../../../src/core/checks/rules/build-dependency-too-old.js';
import { dependencyTwice } from '../../../src/core/checks/rules/build-dependency-twice.js';
import { installNotRun } from '../../../src/core/checks/rules/build-install-not-run.js';
import { locksDisagree } from '../../../src/core/checks/rules/build-locks-disagree.js';
import { notLocked } from '../../../src/core/checks/rules/build-not-locked.js';
import { versionForced } from '../../../src/core/checks/rules/build-version-forced.js';
import { versionHeldBack } from '../../../src/core/checks/rules/build-version-held-back.js';
import { versionsDifferAcrossPlatforms } from '../../../src/core/checks/rules/build-versions-differ-across-platforms.js';
import { versionsMixed } from '../../../src/core/checks/rules/build-versions-mixed.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, edition, fact, needing, place, reportsOf } from '../../support/surveyed.js';

const all = ['debug', 'beta', 'release'];
const allText = 'debug, beta and release';
const network = 'Cobalt Heron';
const sdk = 'example.cobaltheron:ads-sdk';
const pod = 'CobaltHeronAds';
/** A dependency on the SDK for Android, with what matters to a test put in. */
const declared = (more: object = {}) =>
  fact('dependency', {
    name: sdk,
    value: '6.2.0',
    variants: all,
    place: place('app/build.gradle', 12),
    chain: [{ what: 'implementation', value: `${sdk}:6.2.0`, place: place('app/build.gradle', 12) }],
    ...more,
  });
const onIos = (more: object = {}) =>
  declared({
    platform: 'ios',
    name: pod,
    value: '6.2',
    place: place('ios/Podfile', 4),
    chain: [{ what: 'Podfile', value: `${pod} 6.2`, place: place('ios/Podfile', 4) }],
    ...more,
  });
const told = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data, variants }) => [message, data, variants]);
const of = (rule: Rule, ...facts: Fact[]) => told(rule, contextOf(facts));
/** What a report about the Android edition has, and about a fact of it. */
const ofEdition = { platform: 'android', module: 'app', network: 'cobalt-heron' };

describe('a dependency that is missing', () => {
  const android = (...facts: Fact[]) => reportsOf(dependencyMissing, contextOf([...facts, onIos()]));
  const text = `${sdk}:6.2.0`;

  it('is told for the variants without it, at the dependencies', () => {
    const missing = (variants: string[], names: string) => ({
      ...ofEdition,
      variants,
      place: place(),
      message: 'missing',
      data: { network, variants: names, dependency: text },
    });
    expect(android()).toEqual([missing(all, allText)]);
    expect(android(declared())).toEqual([]);
    expect(android(declared({ name: 'other:sdk' }))).toEqual([missing(all, allText)]);
    expect(android(declared({ kind: 'companion' }))).toEqual([missing(all, allText)]);
    const context = contextOf([onIos()]);
    const [first, ...rest] = context.survey.editions;
    const editions = [{ ...first!, dependencies: place('app/build.gradle', 9) }, ...rest];
    expect(
      reportsOf(dependencyMissing, { ...context, survey: { ...context.survey, editions } })[0]?.place,
    ).toEqual(place('app/build.gradle', 9));
  });

  it('is declared for less than what ships: told there, with the line for all of it', () => {
    const narrow = (more: object = {}) =>
      declared({ kind: 'narrow-dependency', value: 'testImplementation', ...more });
    const one = narrow();
    const data = { network, variants: allText, dependency: text };
    expect(android(one)).toEqual([
      {
        ...ofEdition,
        variants: all,
        place: one.place,
        chain: one.chain,
        message: 'narrow',
        mend: 'widen',
        data: { ...data, configuration: 'testImplementation', line: `implementation '${text}'` },
      },
    ]);
    const kts = narrow({ place: place('app/build.gradle.kts', 3) });
    expect(android(kts)[0]?.data?.line).toBe(`implementation("${text}")`);
    expect(android(narrow({ chain: [] }))[0]?.data?.line).toBe(`implementation '${sdk}'`);
    // Only debug builds have it: what it is declared by is in the chain.
    const debug = declared({
      variants: ['debug'],
      chain: [{ what: 'debugImplementation', value: 'libs.heron', place: null }],
    });
    expect(android(debug)).toMatchObject([
      {
        variants: ['beta', 'release'],
        message: 'narrow',
        data: { configuration: 'debugImplementation', line: `implementation '${text}'` },
      },
    ]);
    expect(android(declared({ variants: ['debug'], value: '' }))[0]?.data?.line).toBe(
      `implementation '${text}'`,
    );
    expect(android(declared({ variants: ['debug'], chain: [] }))[0]?.data?.configuration).toBe('dependency');
    // A narrow one that concerns the variants goes before one that does not.
    expect(
      android(
        debug,
        narrow({ variants: ['debug'] }),
        narrow({ variants: ['release'], value: 'releaseOnly' }),
      )[0]?.data?.configuration,
    ).toBe('releaseOnly');
    expect(android(debug, narrow({ variants: ['debug'] }))[0]?.data?.configuration).toBe(
      'debugImplementation',
    );
  });

  it('is a pod or a package on iOS: of the form that the tree has', () => {
    const part = {
      pods: [
        { name: 'HeronCore', version: '6.2', why: 'x' },
        { name: 'HeronVideo', version: '6.2', why: 'x' },
      ],
      packages: [{ product: 'HeronAds', url: 'https://p.example', version: '6.2.0', why: 'x' }],
    };
    const ios = (needs: object, ...facts: Fact[]) =>
      reportsOf(dependencyMissing, needing('ios', needs, [declared(), ...facts])).map(
        ({ platform, message, data }) => [platform, message, data?.dependency, data?.line],
      );
    expect(ios(part)).toEqual([
      ['ios', 'missing', 'the pod HeronCore 6.2 (or the Swift package)', undefined],
    ]);
    expect(ios(part, onIos({ name: 'HeronCore' }))).toEqual([
      ['ios', 'missing', 'the pod HeronVideo 6.2', undefined],
    ]);
    expect(ios(part, onIos({ name: 'HeronCore' }), onIos({ name: 'HeronVideo' }))).toEqual([]);
    // A part of a pod brings the pod.
    expect(ios(part, onIos({ name: 'HeronCore/Small' }), onIos({ name: 'HeronVideo' }))).toEqual([]);
    expect(ios(part, onIos({ name: 'HeronAds' }))).toEqual([]);
    const twoProducts = {
      ...part,
      packages: [...part.packages, { ...part.packages[0]!, product: 'HeronVideo2' }],
    };
    expect(ios(twoProducts, onIos({ name: 'HeronAds' }))).toEqual([
      ['ios', 'missing', 'the Swift package product HeronVideo2 6.2.0', undefined],
    ]);
    expect(ios({ ...part, pods: [] })).toEqual([['ios', 'missing', 'the Swift package HeronAds', undefined]]);
    expect(ios({ ...part, packages: [] })).toHaveLength(1);
    expect(ios({ pods: [], packages: [] })).toEqual([]);
    // Taken in as that of another network: it is there, and says nothing of the form.
    expect(ios(part, onIos({ name: 'HeronCore', network: 'marlstone' }))).toEqual([]);
    const narrow = (value: string, path = 'ios/Podfile') =>
      onIos({ kind: 'narrow-dependency', name: 'HeronCore', value, place: place(path, 4) });
    const line = (one: Fact) => ios(part, one).map(([, message, , widened]) => [message, widened]);
    expect(line(narrow('6.2'))).toEqual([['narrow', "pod 'HeronCore', '6.2'"]]);
    expect(line(narrow('', 'Podfile'))).toEqual([['narrow', "pod 'HeronCore'"]]);
    for (const path of ['OtherPodfile', 'Podfile.txt'])
      expect(line(narrow('', path))).toEqual([['narrow', 'HeronCore']]);
  });

  it('is the package of a stack', () => {
    const context = (facts: Fact[]) => {
      const { survey, ...rest } = contextOf(facts);
      const editions = [{ ...edition('android'), stack: 'flutter' }, edition('ios')];
      return { ...rest, survey: { ...survey, editions } };
    };
    const name = 'cobalt_heron_ads';
    const missing = (...facts: Fact[]) => reportsOf(dependencyMissing, context([onIos(), ...facts]));
    expect(missing(declared())).toMatchObject([
      { message: 'missing', data: { dependency: `the package ${name} 4.1.0` } },
    ]);
    expect(missing(declared({ name }))).toEqual([]);
    const dev = declared({
      kind: 'narrow-dependency',
      name,
      value: 'dev_dependencies',
      place: place('pubspec.yaml', 9),
      chain: [{ what: 'dev_dependencies', value: `${name}: ^4.1.0`, place: null }],
    });
    expect(missing(dev)).toMatchObject([
      {
        message: 'narrow',
        data: { configuration: 'dev_dependencies', line: `${name}: ^4.1.0 below dependencies` },
      },
    ]);
    expect(missing({ ...dev, chain: [] } as Fact)[0]?.data?.line).toBe(`${name} below dependencies`);
  });
});

describe('a dependency that is too old', () => {
  const old = (value: string, more: object = {}) => of(dependencyTooOld, declared({ value, ...more }));

  it('is told with the version of the profile', () => {
    const one = declared({ value: '6.1.9' });
    expect(reportsOf(dependencyTooOld, contextOf([one]))).toMatchObject([
      {
        ...ofEdition,
        variants: all,
        place: one.place,
        message: 'old',
        data: { name: sdk, value: '6.1.9', network, wanted: '6.2.0' },
      },
    ]);
    for (const value of ['6.1', '^6.1.0', '~> 6.1', '5']) expect(old(value)).toHaveLength(1);
  });

  it('is not told of what is new enough, only allowed, unknown, or no dependency of the network', () => {
    for (const value of ['6.2.0', '6.2', '6', '7.0', '>= 5.0', '< 6', '>=5.0 <6.0', '', 'latest'])
      expect([value, old(value)]).toEqual([value, []]);
    for (const more of [{ name: 'other:sdk' }, { network: 'marlstone' }, { kind: 'companion' }])
      expect(old('5.0', more)).toEqual([]);
    expect(of(dependencyTooOld, declared({ name: undefined, value: '5.0' }))).toEqual([]);
  });
});

describe('a dependency that is there twice', () => {
  const other = (more: object = {}) =>
    declared({ value: '6.3.0', place: place('app/build.gradle', 20), ...more });
  const twice = (...facts: Fact[]) => of(dependencyTwice, ...facts);

  it('is told once, for the variants that have both', () => {
    const data = {
      name: sdk,
      network,
      first: `${sdk} 6.2.0 (app/build.gradle:12)`,
      second: `${sdk} 6.3.0 (app/build.gradle:20)`,
    };
    expect(reportsOf(dependencyTwice, contextOf([declared(), other()]))).toMatchObject([
      {
        ...ofEdition,
        variants: all,
        place: place('app/build.gradle', 20),
        message: 'twice',
        data: { ...data, variants: allText },
      },
    ]);
    expect(twice(declared({ variants: ['debug', 'beta'] }), other())).toEqual([
      ['twice', { ...data, variants: 'debug and beta' }, ['debug', 'beta']],
    ]);
    // Each of the earlier ones is named where it is the one that clashes.
    expect(
      twice(
        declared({ variants: ['debug'] }),
        declared({ variants: ['release'], value: '6.1.0', place: place('app/build.gradle', 15) }),
        other(),
      ).map(([, said, variants]) => [(said as typeof data).first, variants]),
    ).toEqual([
      [data.first, ['debug']],
      [`${sdk} 6.1.0 (app/build.gradle:15)`, ['release']],
    ]);
  });

  it('is a pod beside a Swift package, of whatever version', () => {
    const product = onIos({ place: place('Kelp.xcodeproj/project.pbxproj', 40) });
    const clash = (...facts: Fact[]) => twice(...facts).length;
    expect(twice(onIos(), product)).toEqual([
      [
        'twice',
        {
          name: pod,
          network,
          variants: allText,
          first: `${pod} 6.2 (ios/Podfile:4)`,
          second: `${pod} 6.2 (Kelp.xcodeproj/project.pbxproj:40)`,
        },
        all,
      ],
    ]);
    expect(clash(product, onIos())).toBe(1);
    expect(clash(product, onIos({ place: place('Podfile', 4) }))).toBe(1);
    expect(clash(onIos(), { ...product, network: 'marlstone' })).toBe(0);
    expect(clash(onIos(), { ...product, name: 'heron_package' } as Fact)).toBe(0);
    expect(clash(product, product)).toBe(0);
    expect(clash(onIos({ place: place('MyPodfile') }), onIos({ place: place('Podfile.txt') }))).toBe(0);
  });

  it('is nothing where both say the same, or belong together', () => {
    expect(twice(declared(), declared({ place: place('b.gradle', 3) }))).toEqual([]);
    expect(twice(declared(), other({ name: 'example.cobaltheron:video' }))).toEqual([]);
    expect(twice(declared({ variants: ['debug'] }), other({ variants: ['release'] }))).toEqual([]);
    expect(twice(declared(), other({ network: 'marlstone' }))).toEqual([]);
    expect(twice(declared({ network: null }), other({ network: null }))).toEqual([]);
    expect(twice(declared(), other({ kind: 'companion' }))).toEqual([]);
    expect(twice(onIos({ name: `${pod}/Core` }), onIos({ name: `${pod}/Video` }))).toEqual([]);
    expect(twice(onIos(), onIos({ name: 'CobaltHeronVideo', value: '2.0' }))).toEqual([]);
    expect(
      twice(declared({ name: undefined, chain: [] }), other({ name: undefined })).map((one) => one[1]),
    ).toMatchObject([{ name: '', first: ' 6.2.0 (app/build.gradle:12)' }]);
    // A network that no profile describes any more.
    expect(twice(onIos({ network: 'gone' }), onIos({ network: 'gone', value: '7' }))).toHaveLength(1);
  });
});

describe('what a lock says', () => {
  const locked = (more: object = {}) =>
    declared({
      kind: 'resolved-version',
      lock: 'pubspec.lock',
      state: 'locked',
      place: place('pubspec.lock', 8),
      ...more,
    });

  it('lacks a package, or there is none', () => {
    const said = (rule: Rule, one: Fact) =>
      reportsOf(rule, contextOf([one])).map(({ message, data, changing }) => [message, data, changing]);
    const run = { command: 'flutter pub get' };
    expect(said(installNotRun, locked({ state: 'missing' }))).toEqual([
      ['stale', { name: sdk, lock: 'pubspec.lock' }, run],
    ]);
    expect(said(notLocked, locked({ state: 'no-lock' }))).toEqual([
      ['open', { name: sdk, lock: 'no pubspec.lock' }, run],
    ]);
    for (const [rule, state] of [
      [installNotRun, 'missing'],
      [notLocked, 'no-lock'],
    ] as const) {
      expect(reportsOf(rule, contextOf([locked({ state })]))).toMatchObject([
        { ...ofEdition, place: place('pubspec.lock', 8) },
      ]);
      expect(said(rule, locked({ state, name: undefined }))[0]?.[1]).toMatchObject({ name: '' });
      expect(said(rule, locked())).toEqual([]);
      expect(said(rule, locked({ state, kind: 'companion' }))).toEqual([]);
    }
    expect(said(installNotRun, locked({ state: 'no-lock' }))).toEqual([]);
    expect(said(notLocked, locked({ state: 'missing' }))).toEqual([]);
  });

  it('is something else than another lock says', () => {
    const yarn = (value: string, more: object = {}) =>
      locked({ lock: 'yarn.lock', value, place: place('yarn.lock', 3), ...more });
    const npm = (value: string, more: object = {}) =>
      locked({ lock: 'package-lock.json', value, place: place('package-lock.json', 9), ...more });
    const differ = (...facts: Fact[]) => of(locksDisagree, ...facts);
    const data = { lock: 'package-lock.json', name: sdk, value: '6.3.0', other: 'yarn.lock', held: '6.2.0' };
    expect(reportsOf(locksDisagree, contextOf([yarn('6.2.0'), npm('6.3.0')]))).toEqual([
      {
        platform: null,
        module: null,
        variants: [],
        network: 'cobalt-heron',
        placement: null,
        place: place('package-lock.json', 9),
        chain: npm('6.3.0').chain,
        message: 'differ',
        data,
      },
    ]);
    // Both platforms see the same files.
    const ios = { platform: 'ios' };
    expect(differ(yarn('6.2.0'), npm('6.3.0'), yarn('6.2.0', ios), npm('6.3.0', ios))).toHaveLength(1);
    expect(differ(yarn('6.2.0'), npm('6.2.0'))).toEqual([]);
    expect(differ(yarn(''), npm('6.2.0'))).toEqual([]);
    expect(differ(yarn('6.2.0'), yarn('6.3.0'))).toEqual([]);
    expect(differ(yarn('6.2.0'), npm('6.3.0', { name: 'other' }))).toEqual([]);
    expect(differ(yarn('6.2.0'), npm('6.3.0', { kind: 'companion' }))).toEqual([]);
  });

  it('holds an SDK back', () => {
    const held = (value: string, ...facts: Fact[]) => of(versionHeldBack, locked({ value }), ...facts);
    const data = { name: sdk, value: '6.1.0', asked: '6.2.0' };
    expect(reportsOf(versionHeldBack, contextOf([locked({ value: '6.1.0' })]))).toMatchObject([
      { ...ofEdition, place: place('pubspec.lock', 8), message: 'held', data },
    ]);
    expect(held('6.1.0', declared({ value: '~> 6.1.5' }))[0]?.[1]).toEqual({ ...data, asked: '~> 6.1.5' });
    expect(held('6.1.0', declared({ value: '^6.0' }))[0]?.[1]).toEqual(data);
    expect(held('6.2.0', declared({ value: '6.3.0' }))[0]?.[1]).toEqual({
      ...data,
      value: '6.2.0',
      asked: '6.3.0',
    });
    for (const value of ['6.2.0', '7.0', '', 'main', 'v6.1.0']) expect(held(value)).toEqual([]);
    for (const more of [
      { network: 'marlstone' },
      { kind: 'companion' },
      { name: 'other' },
      { name: undefined },
    ])
      expect(of(versionHeldBack, locked({ value: '6.1.0', ...more }))).toEqual([]);
    expect(held('6.2.0', declared({ value: '6.3.0', name: 'other' }))).toEqual([]);
    expect(held('6.2.0', declared({ value: '6.3.0', kind: 'companion' }))).toEqual([]);
  });
});

describe('a version that is forced', () => {
  const force = (value: string, more: object = {}) =>
    declared({ kind: 'forced-version', value, by: 'force', place: place('build.gradle', 30), ...more });
  const forced = (...facts: Fact[]) => of(versionForced, ...facts);
  const data = { name: sdk, value: '6.1.0', by: 'force' };

  it('is not the declared one, or older than the profile wants', () => {
    expect(reportsOf(versionForced, contextOf([force('6.1.0'), declared()]))).toMatchObject([
      {
        ...ofEdition,
        variants: all,
        place: place('build.gradle', 30),
        message: 'forced',
        data: { ...data, asked: '6.2.0' },
      },
    ]);
    const narrow = { variants: ['release'] };
    expect(forced(force('6.1.0', narrow), declared())).toMatchObject([['forced', {}, ['release']]]);
    expect(forced(force('6.1.0'), declared({ value: '6.1.0' }))).toEqual([
      ['old', { ...data, network, asked: '6.2.0' }, all],
    ]);
    // What a range allows is not what is taken.
    for (const value of ['', '>=6.0', '6.+*', '<7'])
      expect(forced(force('6.1.0'), declared({ value }))).toMatchObject([['old', { asked: '6.2.0' }, all]]);
    expect(forced(force('6.3.0'), declared())).toMatchObject([['forced', {}, all]]);
  });

  it('is the declared one, of nothing that is declared, or no version', () => {
    expect(forced(force('6.2.0'), declared())).toEqual([]);
    expect(forced(force('6.2'), declared())).toEqual([]);
    expect(forced(force('6.3.0'), declared({ value: '>=6.0' }))).toEqual([]);
    expect(forced(force('6.1.0'))).toEqual([]);
    expect(forced(force('6.1.0'), declared({ name: 'other:sdk' }))).toEqual([]);
    expect(forced(force('6.1.0'), declared({ kind: 'companion' }))).toEqual([]);
    expect(forced(force('6.1.0', { variants: ['debug'] }), declared({ variants: ['release'] }))).toEqual([]);
    expect(forced(force('latest'), declared())).toEqual([]);
    expect(forced(force('v6.1.0'), declared())).toEqual([]);
    expect(forced(force('6.1.0', { network: 'marlstone' }), declared())).toEqual([]);
    expect(forced(force('6.1.0', { kind: 'companion' }), declared())).toEqual([]);
    const unknown = { name: 'other:sdk' };
    expect(forced(force('6.1.0', unknown), declared({ ...unknown, value: '6.1.0' }))).toEqual([]);
    expect(
      forced(force('6.1.0', { name: undefined }), declared({ name: undefined })).map((one) => one[1]),
    ).toEqual([{ ...data, name: '', asked: '6.2.0' }]);
  });
});

describe('versions that do not belong together', () => {
  it('are a generation apart on the two platforms', () => {
    const apart = (android: object, ios: object) =>
      reportsOf(versionsDifferAcrossPlatforms, contextOf([declared(android), onIos(ios)]));
    expect(apart({}, { value: '~> 5.4' })).toEqual([
      {
        platform: null,
        module: null,
        variants: [],
        network: 'cobalt-heron',
        placement: null,
        place: place('ios/Podfile', 4),
        chain: onIos().chain,
        message: 'differ',
        data: { network, android: '6.2.0', ios: '~> 5.4' },
      },
    ]);
    for (const [one, other] of [
      [{}, {}],
      [{}, { value: '' }],
      [{ value: 'latest' }, { value: '5.4' }],
      [{}, { value: '5.4', network: 'marlstone' }],
      [{ kind: 'companion' }, { value: '5.4' }],
      [{}, { value: '5.4', kind: 'companion' }],
    ] as const)
      expect(apart(one, other)).toEqual([]);
    expect(apart({ value: '16.2' }, { value: '16.9' })).toEqual([]);
    expect(apart({ value: '16.2' }, { value: '1.6' })).toHaveLength(1);
    // The first version that is written counts.
    const open = contextOf([declared({ value: '' }), declared({ value: '6.2.0' }), onIos({ value: '5.4' })]);
    expect(reportsOf(versionsDifferAcrossPlatforms, open)).toHaveLength(1);
    const ownLine = needing('ios', { pods: [{ name: pod, version: '3.1', why: 'x' }] }, [
      declared(),
      onIos({ value: '3.1' }),
    ]);
    expect(reportsOf(versionsDifferAcrossPlatforms, ownLine)).toEqual([]);
  });

  it('are those of artifacts that are published together', () => {
    const part = {
      dependencies: [
        { coordinate: sdk, version: '6.2.0', why: 'x' },
        { coordinate: 'example.cobaltheron:video', version: '6.2.0', why: 'x' },
        { coordinate: 'example.cobaltheron:maps', version: '2.0.0', why: 'x' },
      ],
    };
    const video = (value: string, more: object = {}) =>
      declared({ name: 'example.cobaltheron:video', value, place: place('app/build.gradle', 14), ...more });
    const mixed = (...facts: Fact[]) => told(versionsMixed, needing('android', part, facts));
    const data = { name: 'example.cobaltheron:video', value: '6.1.0', other: sdk, newer: '6.2.0' };
    expect(mixed(declared(), video('6.1.0', { variants: ['debug', 'release'] }))).toEqual([
      ['mixed', data, ['debug']],
      ['mixed', data, ['release']],
    ]);
    expect(reportsOf(versionsMixed, needing('android', part, [video('6.1.0'), declared()]))[0]).toMatchObject(
      {
        ...ofEdition,
        place: place('app/build.gradle', 14),
      },
    );
    expect(mixed(declared({ value: '6.0.0' }), video('6.1.0'))).toHaveLength(3);
    expect(mixed(declared(), video('6.2'))).toEqual([]);
    for (const more of [
      { value: '^6.1.0' },
      { value: '' },
      { name: 'example.cobaltheron:maps' },
      { effective: { reason: 'wrong-folder' } },
      { kind: 'companion' },
    ])
      expect(mixed(declared(), video('6.1.0', more))).toEqual([]);
    expect(mixed(declared({ variants: ['debug'] }), video('6.1.0', { variants: ['release'] }))).toEqual([]);
    expect(
      mixed(
        declared({ variants: ['debug'] }),
        video('6.1.0', { variants: ['debug'] }),
        video('6.0.0', { variants: ['debug'] }),
      ),
    ).toHaveLength(2);
  });
});
