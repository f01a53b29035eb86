import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { binaryMissing } from '../../../src/core/checks/rules/build-binary-missing.js';
import { desugaringMissing } from '../../../src/core/checks/rules/build-desugaring-missing.js';
import { feedMissing } from '../../../src/core/checks/rules/build-feed-missing.js';
import { frameworkTooOld } from '../../../src/core/checks/rules/build-framework-too-old.js';
import { javaLevelTooLow } from '../../../src/core/checks/rules/build-java-level-too-low.js';
import { kotlinTooNew } from '../../../src/core/checks/rules/build-kotlin-too-new.js';
import { kotlinTooOld } from '../../../src/core/checks/rules/build-kotlin-too-old.js';
import { nativeFolderStale } from '../../../src/core/checks/rules/build-native-folder-stale.js';
import { nativeNotFetched } from '../../../src/core/checks/rules/build-native-not-fetched.js';
import { packageNotLinked } from '../../../src/core/checks/rules/build-package-not-linked.js';
import { platformLevelTooLow } from '../../../src/core/checks/rules/build-platform-level-too-low.js';
import { pluginEntryMissing } from '../../../src/core/checks/rules/build-plugin-entry-missing.js';
import { pluginMissing } from '../../../src/core/checks/rules/build-plugin-missing.js';
import { podsNotIncluded } from '../../../src/core/checks/rules/build-pods-not-included.js';
import { repositoryForbidden } from '../../../src/core/checks/rules/build-repository-forbidden.js';
import { repositoryMissing } from '../../../src/core/checks/rules/build-repository-missing.js';
import { repositoryPassedOver } from '../../../src/core/checks/rules/build-repository-passed-over.js';
import { shrinkerRuleMissing } from '../../../src/core/checks/rules/build-shrinker-rule-missing.js';
import { stockClient } from '../../../src/core/checks/rules/build-stock-client.js';
import { stringTwice } from '../../../src/core/checks/rules/build-string-twice.js';
import { symbolMissing } from '../../../src/core/checks/rules/build-symbol-missing.js';
import { templateSwitchedOff } from '../../../src/core/checks/rules/build-template-switched-off.js';
import type { Fact, Unresolved } from '../../../src/core/facts/model.js';
import { contextOf, edition, fact, needing, place, reportsOf } from '../../support/surveyed.js';
import { kelp, profileOf } from '../../support/titles.js';

const all = ['debug', 'beta', 'release'];
const allText = 'debug, beta and release';
const network = 'Cobalt Heron';
const why = 'It says so.';
const held = (kind: string, more: object = {}) =>
  fact(kind, { network: null, variants: all, place: place('build.gradle', 7), ...more });
/** What a report about an edition has, whatever it says. */
const ofEdition = { platform: 'android', module: 'app', network: 'cobalt-heron', place: place() };
/** What a report about one of these facts has. */
const ofFact = { platform: 'android', module: 'app', variants: all, place: place('build.gradle', 7) };
const told = (rule: Rule, context: CheckContext) =>
  reportsOf(rule, context).map(({ message, data }) => [message, data]);
/** A check of Cobalt Heron, which needs this of Android builds. */
const android = (needs: object, ...facts: Fact[]) => needing('android', needs, facts);
const onIos = (one: Fact) => ({ ...one, platform: 'ios' }) as Fact;

/** A check of editions of a stack, with what Cobalt Heron's package asks of it. */
function packaged(stack: string, part: object, facts: Fact[], unresolved: Unresolved[] = []): CheckContext {
  const heron = profileOf('cobalt-heron');
  const needs = { ...(heron.stacks as Record<string, object>)[stack], ...part };
  const profiles = [{ ...heron, stacks: { ...heron.stacks, [stack]: needs } }];
  const context = contextOf(facts, { profiles: profiles as never, unresolved });
  const editions = (['android', 'ios'] as const).map((platform) => ({ ...edition(platform), stack }));
  return { ...context, survey: { ...context.survey, editions } };
}

describe('a library that is handed out as a file', () => {
  const part = { binaries: [{ file: 'heron.aar', version: '6.2.0', why }] };
  const named = (more: object = {}) =>
    held('binary', { name: 'heron.aar', value: 'libs/heron.aar', network: 'cobalt-heron', ...more });
  const nowhere = { effective: { reason: 'no-such-file' } };

  it('is taken in by nothing, or is not there', () => {
    expect(reportsOf(binaryMissing, android(part))).toEqual([
      {
        ...ofEdition,
        variants: all,
        message: 'unnamed',
        data: { network, file: 'heron.aar', variants: allText },
      },
    ]);
    expect(told(binaryMissing, android(part, named({ variants: ['beta'] })))).toEqual([
      ['unnamed', { network, file: 'heron.aar', variants: 'debug and release' }],
    ]);
    expect(reportsOf(binaryMissing, android(part, named(nowhere)))).toMatchObject([
      {
        ...ofFact,
        message: 'absent',
        data: { network, file: 'heron.aar', path: 'libs/heron.aar' },
      },
    ]);
  });

  it('is there, or is another', () => {
    expect(told(binaryMissing, android(part, named()))).toEqual([]);
    expect(told(binaryMissing, android({}, named(nowhere)))).toEqual([]);
    for (const more of [{ name: 'other.aar' }, { kind: 'companion' }])
      expect(told(binaryMissing, android(part, named(more)))).toMatchObject([['unnamed', {}]]);
  });
});

describe('desugaring', () => {
  const library = 'com.android.tools:desugar_jdk_libs';
  const part = { desugaring: { version: '2.0.3', why } };
  const on = (more: object = {}) => held('desugaring', { name: 'switch', value: 'true', ...more });
  const lib = (value: string, more: object = {}) => held('desugaring', { name: library, value, ...more });
  const data = { network, library, why };

  it('is off, or lacks its library', () => {
    expect(reportsOf(desugaringMissing, android(part))).toEqual([
      { ...ofEdition, variants: all, message: 'off', data: { ...data, variants: allText } },
      { ...ofEdition, variants: all, message: 'library', data: { ...data, variants: allText } },
    ]);
    expect(
      told(
        desugaringMissing,
        android(part, on({ variants: ['beta'] }), lib('2.0.4', { variants: ['debug'] })),
      ),
    ).toEqual([
      ['off', { ...data, variants: 'debug and release' }],
      ['library', { ...data, variants: 'beta and release' }],
    ]);
    expect(told(desugaringMissing, android(part, on({ value: 'false' }), lib('2.0.4')))).toMatchObject([
      ['off', {}],
    ]);
    const context = android(part);
    const [first, ...rest] = context.survey.editions;
    const editions = [{ ...first!, dependencies: place('app/build.gradle', 30) }, ...rest];
    expect(
      reportsOf(desugaringMissing, { ...context, survey: { ...context.survey, editions } })[0]?.place,
    ).toEqual(place('app/build.gradle', 30));
  });

  it('has an older library', () => {
    expect(reportsOf(desugaringMissing, android(part, on(), lib('2.0.2')))).toMatchObject([
      {
        ...ofFact,
        network: 'cobalt-heron',
        message: 'older',
        mend: 'older',
        data: { ...data, needed: '2.0.3', value: '2.0.2' },
      },
    ]);
    for (const value of ['2.0.3', '2.1', ''])
      expect(told(desugaringMissing, android(part, on(), lib(value)))).toEqual([]);
  });

  it('is not needed, or is something else', () => {
    expect(told(desugaringMissing, android({}))).toEqual([]);
    expect(told(desugaringMissing, android(part, on({ kind: 'companion' }), lib('2.0.3')))).toHaveLength(1);
  });
});

describe('a level of the build', () => {
  const low = (rule: Rule, needs: object, one: Fact) => reportsOf(rule, android(needs, one));

  it('is too low for Java', () => {
    const java = { java: { min: 17, why } };
    const level = (value: string, name?: string) => held('java-level', { value, name });
    const data = { network, needed: '17', value: '11', why };
    expect(low(javaLevelTooLow, java, level('11', 'Kotlin'))).toMatchObject([
      { ...ofFact, network: 'cobalt-heron', message: 'low', data: { ...data, language: 'Kotlin' } },
    ]);
    expect(low(javaLevelTooLow, java, level('11'))[0]?.data).toEqual({ ...data, language: 'Java' });
    for (const one of [level('17'), level('21'), held('companion', { value: '11' })])
      expect(low(javaLevelTooLow, java, one)).toEqual([]);
    expect(low(javaLevelTooLow, { java: undefined }, level('8'))).toEqual([]);
  });

  it('is a Kotlin out of the range', () => {
    const range = { kotlin: { min: '1.8.0', below: '2.1.0', why } };
    const kotlin = (value: string) => held('kotlin', { value });
    expect(low(kotlinTooOld, range, kotlin('1.7.22'))).toMatchObject([
      {
        ...ofFact,
        network: 'cobalt-heron',
        message: 'outside',
        data: { network, bound: '1.8.0', value: '1.7.22', why },
      },
    ]);
    expect(low(kotlinTooNew, range, kotlin('2.1.0'))).toMatchObject([
      {
        ...ofFact,
        network: 'cobalt-heron',
        message: 'outside',
        data: { network, bound: '2.1.0', value: '2.1.0', why },
      },
    ]);
    for (const rule of [kotlinTooOld, kotlinTooNew]) {
      for (const value of ['1.8.0', '2.0.21']) expect(low(rule, range, kotlin(value))).toEqual([]);
      for (const value of ['0.1', '9.9']) {
        expect(low(rule, range, held('companion', { value }))).toEqual([]);
        expect(low(rule, { kotlin: undefined }, kotlin(value))).toEqual([]);
      }
    }
    expect(low(kotlinTooOld, { kotlin: { below: '2.1.0', why } }, kotlin('1.0'))).toEqual([]);
    expect(low(kotlinTooNew, { kotlin: { min: '1.8.0', why } }, kotlin('9.9'))).toEqual([]);
  });

  it('reaches back too far, on either platform', () => {
    const levels = { 'min-sdk': { value: 23, why }, 'compile-sdk': { value: 34, why: 'Newer.' } };
    const data = { network, needed: '23', value: '21', why };
    const chain = [{ what: 'minSdk', value: '21', place: place('gradle.properties', 3) }];
    const tooLow = (...facts: Fact[]) => reportsOf(platformLevelTooLow, android(levels, ...facts));
    const min = (variants: string[], more: object = {}) =>
      held('min-sdk', { value: '21', variants, chain, ...more });
    // Set by each variant for itself: one fault, at the place to change.
    expect(tooLow(min(['debug']), min(['release'], { chain: [] }))).toMatchObject([
      {
        platform: 'android',
        module: 'app',
        variants: ['debug', 'release'],
        network: 'cobalt-heron',
        place: place('gradle.properties', 3),
        chain,
        message: 'low',
        data: { ...data, what: 'minSdk' },
      },
    ]);
    expect(tooLow(min(['debug'], { chain: [] }))[0]?.place).toEqual(place('build.gradle', 7));
    const nowhere = [{ what: 'minSdk', value: '21', place: null }];
    expect(tooLow(min(['debug'], { chain: nowhere }))[0]?.place).toEqual(place('build.gradle', 7));
    expect(tooLow(min(['debug']), min(['release'], { value: '19' })).map((one) => one.data?.value)).toEqual([
      '21',
      '19',
    ]);
    expect(tooLow(held('compile-sdk', { value: '33' }))[0]?.data).toEqual({
      network,
      what: 'compileSdk',
      needed: '34',
      value: '33',
      why: 'Newer.',
    });
    expect(tooLow(held('min-sdk', { value: '23' }), held('compile-sdk', { value: '35' }))).toEqual([]);
    expect(tooLow(held('companion', { value: '1' }))).toEqual([]);
    const target = { 'deployment-target': { value: '13.0', why } };
    const ios = onIos(held('deployment-target', { value: '12.4' }));
    expect(reportsOf(platformLevelTooLow, needing('ios', target, [ios]))).toMatchObject([
      {
        platform: 'ios',
        message: 'low',
        data: { network, what: 'the deployment target', needed: '13.0', value: '12.4', why },
      },
    ]);
    const none = { 'min-sdk': undefined, 'compile-sdk': undefined };
    expect(reportsOf(platformLevelTooLow, android(none, min(['debug'])))).toEqual([]);
  });

  it('is a framework that the package does not run on', () => {
    const framework = (value: string, more: object = {}) =>
      held('framework', { name: 'the Dart SDK', value, place: place('pubspec.yaml', 5), ...more });
    const old = (...facts: Fact[]) =>
      reportsOf(frameworkTooOld, packaged('flutter', { sdk: '3.2.0' }, facts));
    const data = (value: string) => ({
      framework: 'the Dart SDK',
      value,
      package: 'cobalt_heron_ads',
      network,
      wanted: '3.2.0',
    });
    expect(old(framework('>=3.1.0 <4.0.0'))).toEqual([
      {
        platform: null,
        module: null,
        variants: [],
        network: 'cobalt-heron',
        placement: null,
        place: place('pubspec.yaml', 5),
        chain: [],
        message: 'old',
        data: data('>=3.1.0 <4.0.0'),
      },
    ]);
    // Both platforms have it: the file is one.
    expect(old(framework('^3.0.0'), onIos(framework('^3.0.0')))).toHaveLength(1);
    expect(old(framework('^3.0.0'), framework('^3.0.0', { place: place('pubspec.yaml', 9) }))).toHaveLength(
      2,
    );
    for (const value of ['3.1.9', 'v3.1', '> 3.1.0', '~3.1.0', '^3.1', '>= v3.1.0', '<4.0.0 >=3.1.0'])
      expect(old(framework(value)).map((one) => one.data?.value)).toEqual([value]);
    for (const value of ['3.2.0', '^3.2.0', '>=3.10.0 <4.0.0', '~3.12', '>3.2.0', 'v3.3'])
      expect(old(framework(value))).toEqual([]);
    expect(old(framework('3.0.0', { kind: 'companion' }))).toEqual([]);
    expect(reportsOf(frameworkTooOld, packaged('flutter', { sdk: undefined }, [framework('1.0')]))).toEqual(
      [],
    );
    expect(reportsOf(frameworkTooOld, contextOf([framework('1.0')]))).toEqual([]);
  });
});

describe('where a package comes from', () => {
  const url = 'https://unity.cobaltheron.example';
  const name = 'example.cobaltheron.ads';
  const asked = held('dependency', { name, network: 'cobalt-heron', place: place('manifest.json', 4) });
  const missing = (...facts: Fact[]) => reportsOf(feedMissing, packaged('unity', {}, facts));

  it('is a feed that the project does not name', () => {
    expect(missing(asked)).toEqual([
      {
        platform: null,
        module: null,
        variants: [],
        network: 'cobalt-heron',
        placement: null,
        place: place('manifest.json', 4),
        chain: [],
        message: 'missing',
        data: { package: name, network, url },
        changing: { feeds: 'scopedRegistries in Packages/manifest.json' },
      },
    ]);
    expect(missing(asked, onIos(asked))).toHaveLength(1);
    expect(missing(asked, held('repository', { value: 'https://other.example' }))).toHaveLength(1);
    const source = { package: name, source: url };
    expect(reportsOf(feedMissing, packaged('maui', source, [asked]))).toMatchObject([
      { changing: { feeds: 'packageSources in nuget.config' } },
    ]);
  });

  it('is named, or nobody needs it', () => {
    expect(missing(asked, held('repository', { value: `${url}//` }))).toEqual([]);
    expect(missing(held('repository', { value: url, effective: true }), asked)).toEqual([]);
    expect(missing(asked, held('companion', { value: url }))).toHaveLength(1);
    expect(missing()).toEqual([]);
    expect(missing({ ...asked, kind: 'companion' } as never)).toEqual([]);
    expect(missing({ ...asked, name: 'example.other' } as never)).toEqual([]);
    expect(reportsOf(feedMissing, packaged('unity', { registry: undefined }, [asked]))).toEqual([]);
    expect(reportsOf(feedMissing, contextOf([asked]))).toEqual([]);
  });

  const repository = 'https://maven.cobaltheron.example/release';
  const sdk = (more: object = {}) =>
    held('dependency', { name: 'example.cobaltheron:ads-sdk', network: 'cobalt-heron', ...more });

  it('is a repository that no script names', () => {
    const lacking = (...facts: Fact[]) => reportsOf(repositoryMissing, contextOf(facts));
    const data = { network, dependency: 'example.cobaltheron:ads-sdk', url: repository };
    expect(
      lacking(
        sdk({ variants: ['debug'] }),
        sdk({ variants: ['release', 'debug'], place: place('b.gradle', 2) }),
      ),
    ).toMatchObject([
      {
        ...ofFact,
        variants: ['debug', 'release'],
        message: 'missing',
        data: { ...data, variants: 'debug and release' },
      },
    ]);
    expect(lacking(sdk(), held('repository', { value: 'https://other.example' }))).toHaveLength(1);
    expect(lacking(sdk(), held('companion', { value: repository }))).toHaveLength(1);
    expect(lacking(sdk(), held('repository', { value: `${repository}//` }))).toEqual([]);
    expect(lacking(sdk({ name: 'other:sdk' }))).toEqual([]);
    expect(lacking({ ...sdk(), kind: 'companion' } as never)).toEqual([]);
    expect(lacking(onIos(sdk()))).toEqual([]);
    expect(reportsOf(repositoryMissing, android({ repositories: [] }, sdk()))).toEqual([]);
    const slashed = android({ repositories: [{ url: `${repository}/`, why }] }, sdk());
    expect(reportsOf(repositoryMissing, slashed)).toHaveLength(1);
    const both = [sdk(), held('repository', { value: repository })];
    expect(
      reportsOf(repositoryMissing, android({ repositories: [{ url: `${repository}//`, why }] }, ...both)),
    ).toEqual([]);
  });

  it('is a repository that the build forbids, or passes over', () => {
    const at = (reason: string | null, scope: string, more: object = {}) =>
      held('repository', {
        value: repository,
        network: 'cobalt-heron',
        scope,
        ...(reason ? { effective: { reason } } : {}),
        ...more,
      });
    const forbidden = (...facts: Fact[]) => told(repositoryForbidden, contextOf(facts));
    const passed = (...facts: Fact[]) => told(repositoryPassedOver, contextOf(facts));
    expect(reportsOf(repositoryForbidden, contextOf([at('repository-forbidden', 'project')]))).toMatchObject([
      { ...ofFact, message: 'found', data: { url: repository } },
    ]);
    expect(forbidden(at('repository-ignored', 'project'), at(null, 'project'))).toEqual([]);
    expect(forbidden(at('repository-forbidden', 'project', { kind: 'companion' }))).toEqual([]);
    const why = (scope: string) => passed(at('repository-ignored', scope))[0]?.[1];
    expect(why('project')).toEqual({
      url: repository,
      why: 'the settings use only their own repositories',
    });
    expect(why('settings')).toEqual({
      url: repository,
      why: 'the project declares repositories of its own, and Gradle uses only those',
    });
    expect(reportsOf(repositoryPassedOver, contextOf([at('repository-ignored', 'project')]))).toMatchObject([
      { ...ofFact, message: 'found' },
    ]);
    expect(passed(at('repository-ignored', 'project'), at(null, 'settings'))).toEqual([]);
    for (const other of [
      at('repository-ignored', 'settings'),
      at(null, 'settings', { network: 'marlstone' }),
      at(null, 'settings', { kind: 'companion' }),
    ])
      expect(passed(at('repository-ignored', 'project'), other).length).toBeGreaterThan(0);
    expect(passed(at('repository-forbidden', 'project'))).toEqual([]);
    expect(passed(at('repository-ignored', 'project', { kind: 'companion' }))).toEqual([]);
  });
});

describe('what a package asks of its project', () => {
  const entry = held('plugin-entry', { network: 'cobalt-heron', platform: 'android' });

  it('is a plugin in the configuration', () => {
    const expo = (facts: Fact[], unresolved: object[] = []) =>
      told(pluginEntryMissing, packaged('expo', {}, facts, unresolved as Unresolved[]));
    const plugin = '@cobaltheron.example/react-native';
    const missing = (variants: string) => ['missing', { network, plugin, variants }];
    expect(reportsOf(pluginEntryMissing, packaged('expo', {}, []))).toEqual([
      { ...ofEdition, variants: all, message: 'missing', data: { network, plugin, variants: allText } },
      {
        ...ofEdition,
        platform: 'ios',
        variants: all,
        message: 'missing',
        data: { network, plugin, variants: allText },
      },
    ]);
    expect(expo([entry, onIos(entry)])).toEqual([]);
    expect(expo([{ ...entry, variants: ['beta'] }, onIos(entry)])).toEqual([missing('debug and release')]);
    // What cannot be read may be it.
    expect(expo([onIos(entry)], [entry])).toEqual([]);
    for (const more of [{ network: 'marlstone' }, { kind: 'companion' }])
      expect(expo([{ ...entry, ...more } as never, onIos(entry)])).toEqual([missing(allText)]);
    expect(expo([onIos(entry)], [{ ...entry, module: 'other' }])).toEqual([missing(allText)]);
    expect(told(pluginEntryMissing, packaged('expo', { plugin: undefined }, []))).toEqual([]);
    expect(told(pluginEntryMissing, contextOf())).toEqual([]);
  });

  it('is a plugin of the build', () => {
    const part = { plugin: { id: 'example.heron', version: '1.2', why } };
    const applied = held('build-plugin', { name: 'example.heron' });
    expect(reportsOf(pluginMissing, android(part))).toEqual([
      {
        ...ofEdition,
        variants: all,
        message: 'missing',
        data: { network, id: 'example.heron', version: '1.2', module: 'app', why },
      },
    ]);
    expect(told(pluginMissing, android(part, applied))).toEqual([]);
    expect(told(pluginMissing, android(part, { ...applied, name: 'other' } as never))).toHaveLength(1);
    expect(told(pluginMissing, android(part, { ...applied, kind: 'companion' } as never))).toHaveLength(1);
    expect(told(pluginMissing, android({}))).toEqual([]);
  });

  it('is a symbol', () => {
    const symbol = held('symbol', { name: 'COBALT_HERON' });
    const lacking = (...facts: Fact[]) => reportsOf(symbolMissing, packaged('unity', {}, facts));
    const base = {
      ...ofEdition,
      variants: all,
      message: 'missing',
      data: { network, symbol: 'COBALT_HERON' },
    };
    expect(lacking()).toEqual([base, { ...base, platform: 'ios' }]);
    expect(lacking(symbol)).toEqual([{ ...base, platform: 'ios' }]);
    expect(lacking(symbol, onIos(symbol))).toEqual([]);
    expect(lacking({ ...symbol, kind: 'companion' } as never)).toHaveLength(2);
    expect(lacking({ ...symbol, name: 'OTHER' } as never)).toHaveLength(2);
    expect(reportsOf(symbolMissing, contextOf())).toEqual([]);
  });

  it('is its native libraries, fetched', () => {
    const libraries = (state: string, more: object = {}) =>
      held('native-libraries', {
        network: 'cobalt-heron',
        name: 'Assets/android.json',
        value: '3.2.0',
        state,
        ...more,
      });
    const fetched = (...facts: Fact[]) => reportsOf(nativeNotFetched, packaged('unity', {}, facts));
    const data = { network, command: 'Cobalt Heron > Fetch native libraries' };
    expect(fetched(libraries('not-fetched'))).toMatchObject([
      { ...ofFact, message: 'missing', data: { ...data, file: 'Assets/android.json' } },
    ]);
    expect(fetched(libraries('not-fetched', { name: undefined }))[0]?.data).toEqual({ ...data, file: '' });
    expect(fetched(libraries('older'))).toMatchObject([
      { ...ofFact, message: 'older', data: { ...data, value: '3.2.0' } },
    ]);
    expect(fetched(libraries('fetched'))).toEqual([]);
    expect(fetched(libraries('older', { network: 'marlstone' }))).toEqual([]);
    expect(fetched(libraries('older', { kind: 'companion' }))).toEqual([]);
    const unheard = packaged('unity', { native: undefined }, [libraries('older')]);
    expect(told(nativeNotFetched, unheard)).toEqual([['older', { network, command: '', value: '3.2.0' }]]);
    expect(told(nativeNotFetched, contextOf([libraries('older')]))).toEqual([
      ['older', { network, command: '', value: '3.2.0' }],
    ]);
  });

  it('is being linked', () => {
    const linking = (value: string, more: object = {}) =>
      held('linking', { network: 'cobalt-heron', name: 'heron', value, ...more });
    const data = { package: 'heron', platform: 'Android' };
    expect(reportsOf(packageNotLinked, contextOf([linking('left out')]))).toMatchObject([
      { ...ofFact, message: 'excluded', data },
    ]);
    expect(told(packageNotLinked, contextOf([linking('none')]))).toEqual([['unlinked', data]]);
    expect(told(packageNotLinked, contextOf([onIos(linking('none', { name: undefined }))]))).toEqual([
      ['unlinked', { package: '', platform: 'iOS' }],
    ]);
    for (const more of [{ network: 'marlstone' }, { kind: 'companion' }, { network: null }])
      expect(told(packageNotLinked, contextOf([linking('none', more)]))).toEqual([]);
  });

  it('is a client to develop with', () => {
    const client = (more: object = {}) => held('client', { value: 'the stock client is used', ...more });
    expect(reportsOf(stockClient, contextOf([client(), onIos(client())]))).toMatchObject([
      {
        platform: null,
        module: null,
        variants: [],
        place: place('build.gradle', 7),
        message: 'none',
        data: { network, why: 'the stock client is used' },
      },
    ]);
    expect(told(stockClient, contextOf([client(), client({ place: place('eas.json', 2) })]))).toHaveLength(2);
    expect(told(stockClient, contextOf([client({ kind: 'companion' })]))).toEqual([]);
    const alone = { title: kelp({ networks: {} }) };
    expect(told(stockClient, contextOf([client()], alone))).toEqual([]);
  });
});

describe('what is told of each fact', () => {
  it('a native folder that says something else', () => {
    const stale = (more: object = {}) =>
      held('stale-folder', { name: 'the app ID', value: 'A', expected: 'B', ...more });
    expect(reportsOf(nativeFolderStale, contextOf([stale()]))).toMatchObject([
      { ...ofFact, message: 'differs', data: { name: 'the app ID', value: 'A', said: 'B' } },
    ]);
    expect(told(nativeFolderStale, contextOf([stale({ name: undefined, expected: null })]))).toEqual([
      ['differs', { name: '', value: 'A', said: 'nothing' }],
    ]);
    expect(told(nativeFolderStale, contextOf([stale({ kind: 'companion' })]))).toEqual([]);
  });

  it('a configuration without the settings of the pods', () => {
    const base = (includesPods: boolean, more: object = {}) =>
      held('base-configuration', { pods: 'Pods/Kelp.xcconfig', includesPods, platform: 'ios', ...more });
    expect(reportsOf(podsNotIncluded, contextOf([base(false)]))).toMatchObject([
      {
        ...ofFact,
        platform: 'ios',
        message: 'absent',
        data: { target: 'app', pods: 'Pods/Kelp.xcconfig' },
      },
    ]);
    expect(told(podsNotIncluded, contextOf([base(true), base(false, { kind: 'companion' })]))).toEqual([]);
  });

  it('a string that is defined twice', () => {
    const twice = (chain: object[], more: object = {}) =>
      held('string-twice', { name: 'heron_id', network: 'cobalt-heron', chain, ...more });
    const first = [{ what: 'string', value: 'x', place: place('strings.xml', 3) }];
    const data = { name: 'heron_id', network };
    const said = (...facts: Fact[]) =>
      reportsOf(stringTwice, contextOf(facts)).map((one) => [one.message, one.data, one.changing]);
    expect(said(twice(first))).toEqual([['twice', data, { first: 'strings.xml:3' }]]);
    expect(said(twice([]))).toEqual([['twice', data, { first: 'another place' }]]);
    expect(said(twice([{ place: null }], { name: undefined }))).toEqual([
      ['twice', { name: '', network }, { first: 'another place' }],
    ]);
    expect(reportsOf(stringTwice, contextOf([twice([])]))).toMatchObject([ofFact]);
    expect(said(twice(first, { kind: 'companion' }))).toEqual([]);
  });

  it('a template that is switched off', () => {
    const template = (more: object = {}) =>
      held('template', { name: 'Custom Manifest', file: 'Assets/M.xml', isOn: false, ...more });
    const data = { file: 'Assets/M.xml', name: 'Custom Manifest' };
    expect(reportsOf(templateSwitchedOff, contextOf([template()]))).toMatchObject([
      { ...ofFact, message: 'off', data },
    ]);
    expect(told(templateSwitchedOff, contextOf([template({ name: undefined })]))).toEqual([
      ['off', { ...data, name: '' }],
    ]);
    for (const more of [{ isOn: true }, { kind: 'companion' }])
      expect(told(templateSwitchedOff, contextOf([template(more)]))).toEqual([]);
    const alone = { title: kelp({ networks: {} }) };
    expect(told(templateSwitchedOff, contextOf([template()], alone))).toEqual([]);
  });

  it('a build that shrinks without a rule', () => {
    const part = { shrinker: [{ rule: '-keep class heron.**', why }] };
    const shrinking = (more: object = {}) => held('shrinking', { variants: ['beta', 'release'], ...more });
    const rule = (more: object = {}) =>
      held('shrinker-rule', { network: 'cobalt-heron', name: '-keep class heron.**', ...more });
    const lacking = (...facts: Fact[]) => reportsOf(shrinkerRuleMissing, android(part, ...facts));
    expect(lacking(shrinking())).toMatchObject([
      {
        ...ofFact,
        network: 'cobalt-heron',
        variants: ['beta', 'release'],
        message: 'missing',
        data: { network, rule: '-keep class heron.**', why },
      },
    ]);
    expect(lacking(shrinking(), rule({ variants: ['beta'] }))).toMatchObject([{ variants: ['release'] }]);
    expect(lacking(shrinking(), rule())).toEqual([]);
    for (const more of [{ network: 'marlstone' }, { name: '-keep x' }, { kind: 'companion' }])
      expect(lacking(shrinking(), rule(more))).toHaveLength(1);
    expect(lacking(rule({ variants: [] }))).toEqual([]);
    expect(lacking(shrinking({ kind: 'companion' }))).toEqual([]);
    expect(reportsOf(shrinkerRuleMissing, android({}, shrinking()))).toEqual([]);
  });
});
