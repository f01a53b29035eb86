import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { consentNotAsked } from '../../../src/core/checks/rules/code-consent-not-asked.js';
import { failureNotHandled } from '../../../src/core/checks/rules/code-failure-not-handled.js';
import { hardCodedId } from '../../../src/core/checks/rules/code-hard-coded-id.js';
import { keptBeyondScreen } from '../../../src/core/checks/rules/code-kept-beyond-screen.js';
import { listenerKept } from '../../../src/core/checks/rules/code-listener-kept.js';
import { loadBeforeConsent } from '../../../src/core/checks/rules/code-load-before-consent.js';
import { loadBeforeStart } from '../../../src/core/checks/rules/code-load-before-start.js';
import { madeWhileBuilding } from '../../../src/core/checks/rules/code-made-while-building.js';
import { neverReleased } from '../../../src/core/checks/rules/code-never-released.js';
import { neverStarted } from '../../../src/core/checks/rules/code-never-started.js';
import { noWayOn } from '../../../src/core/checks/rules/code-no-way-on.js';
import { showOnReturn } from '../../../src/core/checks/rules/code-show-on-return.js';
import { showWithoutCheck } from '../../../src/core/checks/rules/code-show-without-check.js';
import { startAfterLoad } from '../../../src/core/checks/rules/code-start-after-load.js';
import { startBeforeReady } from '../../../src/core/checks/rules/code-start-before-ready.js';
import { startInUnusedClass } from '../../../src/core/checks/rules/code-start-in-unused-class.js';
import { startWithoutLimit } from '../../../src/core/checks/rules/code-start-without-limit.js';
import { startedTwice } from '../../../src/core/checks/rules/code-started-twice.js';
import { testDeviceInProduction } from '../../../src/core/checks/rules/code-test-device-in-production.js';
import { unitOfAnotherPlacement } from '../../../src/core/checks/rules/code-unit-of-another-placement.js';
import { wrongFormat } from '../../../src/core/checks/rules/code-wrong-format.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, edition, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf, profileOf } from '../../support/titles.js';

const network = 'Cobalt Heron';
const all = ['debug', 'beta', 'release'];
const why = 'It says so.';

/** The SDK of these tests: the same names in every language. */
const formats = {
  interstitial: {
    load: { call: 'Ad.load' },
    show: { call: 'Ad.show' },
    ready: 'Ad.isReady',
    release: { call: 'Ad.release' },
    callbacks: { loaded: 'onLoaded', failed: 'onFailed', closed: 'onClosed' },
  },
  native: { load: { call: 'Native.load' }, callbacks: { loaded: 'onLoaded' } },
  banner: {
    load: { call: 'Banner.load' },
    show: { call: 'Banner.show' },
    callbacks: { loaded: 'onLoaded', failed: 'onFailed', closed: 'onClosed' },
  },
  splash: {
    load: { call: 'Splash.load' },
    show: { call: 'Splash.show' },
    callbacks: { loaded: 'onLoaded', failed: 'onFailed' },
  },
};
const start = { call: 'Sdk.start', why };
const consent = { call: 'Sdk.ask', example: 'Sdk.ask(this)', why };
const listeners = { add: 'Events.add', remove: 'Events.remove' };
const sdk = (more: object = {}) => ({ imports: [], start, consent, formats, listeners, ...more });

const [pageUnit, footerUnit] = ['CH-U-310772-AAAA1111', 'CH-U-310772-BBBB1111'];
const sample = 'CH-U-100001-BANNER0A';
const on = (unit: string, format: string) =>
  placementOf({ 'cobalt-heron': { android: { production: unit } } }, format);
const title = kelp({
  placements: { page: on(pageUnit, 'interstitial'), footer: on(footerUnit, 'banner') },
});

interface Setting {
  /** What the profile has for a language. */
  code?: object;
  stack?: string;
}

/** A check of a title on that SDK alone. */
function checked(facts: Fact[], { code, stack = 'android' }: Setting = {}): CheckContext {
  const languages = ['kotlin', 'java', 'swift', 'dart', 'typescript', 'csharp'];
  const changed = {
    ...profileOf('cobalt-heron'),
    code: code ?? Object.fromEntries(languages.map((one) => [one, sdk()])),
  };
  const context = contextOf(facts, { title, profiles: [changed] as never });
  const editions = [{ ...edition('android'), stack }, edition('ios')];
  return { ...context, survey: { ...context.survey, editions } };
}

interface CallPart {
  /** What is put into the place in code; null for a call that has none. */
  code?: object | null;
  [field: string]: unknown;
}

/** A call in a method of a class, with what matters to a test put in. */
const call = (action: string, line: number, { code = {}, ...more }: CallPart = {}) =>
  fact('call', {
    action,
    format: ['start', 'consent', 'listen', 'stop-listening'].includes(action) ? undefined : 'interstitial',
    value: `Ad.${action}`,
    variants: all,
    place: place('K.kt', line, 9),
    code: code === null ? undefined : { type: 'K', methods: ['onCreate'], conditions: [], ...code },
    ...more,
  });
const callback = (event: string, more: object = {}) =>
  fact('callback', { name: event, value: `on${event}`, place: place('K.kt', 90), variants: all, ...more });
const reports = (rule: Rule, facts: Fact[], setting: Setting = {}) =>
  reportsOf(rule, checked(facts, setting));
const told = (rule: Rule, facts: Fact[], setting: Setting = {}) =>
  reports(rule, facts, setting).map(({ message, data }) => [message, data]);
/** What a report has of the call that it is about. */
const at = (line: number) => ({ platform: 'android', module: 'app', place: place('K.kt', line, 9) });
/** As `at`, of a fault that is the same on both platforms. */
const anywhere = (line: number) => ({
  platform: null,
  module: null,
  variants: [],
  place: place('K.kt', line, 9),
});

/** Every rule about calls leaves alone what another network does, and what another kind of fact says. */
const ofCalls: [Rule, Fact[]][] = [
  [consentNotAsked, [call('load', 4)]],
  [failureNotHandled, [call('load', 4)]],
  [listenerKept, [call('listen', 4, { value: 'Events.add' })]],
  [loadBeforeConsent, [call('consent', 3), call('load', 4)]],
  [neverReleased, [call('load', 4)]],
  [neverStarted, [call('load', 4)]],
  [noWayOn, [call('show', 4)]],
  [showOnReturn, [call('show', 4, { code: { methods: ['onResume'] } })]],
  [showWithoutCheck, [call('show', 4)]],
  [startAfterLoad, [call('load', 3), call('start', 4)]],
  [startedTwice, [call('start', 3), call('start', 4)]],
  [testDeviceInProduction, [call('test-devices', 4)]],
  [wrongFormat, [call('load', 4, { code: { argument: { ids: [sample], written: 'x' } } })]],
];
describe('a rule about calls', () => {
  const awaited = {
    code: { kotlin: sdk({ consent: { ...consent, completed: 'onAsked' } }) },
  };

  it.each(ofCalls)('tells once what two formats share, and nothing of other networks', (rule, facts) => {
    const one = reports(rule, facts, awaited);
    expect(one).toHaveLength(1);
    expect(one[0]).toMatchObject({ network: 'cobalt-heron' });
    expect(reports(rule, [...facts, ...facts], awaited)).toHaveLength(1);
    const others = facts.map((each) => ({ ...each, network: 'marlstone' }) as Fact);
    expect(reports(rule, others, awaited)).toEqual([]);
    const kinds = facts.map((each) => ({ ...each, kind: 'companion' }) as unknown as Fact);
    expect(reports(rule, kinds, awaited)).toEqual([]);
  });
});

describe('consent', () => {
  it('is asked for nowhere, and ads are loaded', () => {
    const data = { network, ask: 'Sdk.ask', why, example: 'Sdk.ask(this)' };
    expect(reports(consentNotAsked, [call('load', 4), call('load', 9)])).toMatchObject([
      { ...at(4), message: 'never', data },
    ]);
    expect(told(consentNotAsked, [call('view', 4)])).toEqual([['never', data]]);
  });

  it('is no matter where it is asked for, nothing is loaded, or the network does not want it', () => {
    expect(told(consentNotAsked, [call('load', 4), call('consent', 8)])).toEqual([]);
    expect(told(consentNotAsked, [call('show', 4)])).toEqual([]);
    expect(told(consentNotAsked, [call('load', 4, { place: place('K.md', 4) })])).toEqual([]);
    const without = { code: { kotlin: sdk({ consent: undefined }) } };
    expect(told(consentNotAsked, [call('load', 4)], without)).toEqual([]);
    expect(told(consentNotAsked, [call('load', 4)], { code: { java: sdk() } })).toEqual([]);
  });
});

describe('a failure', () => {
  const data = { call: 'Ad.load', failed: 'onFailed' };
  const failing = (...more: Fact[]) => told(failureNotHandled, [call('load', 4), ...more]);
  const elsewhere = { place: place('Other.kt', 5) };

  it('is answered by nothing, or by a method that does nothing', () => {
    expect(reports(failureNotHandled, [call('load', 4)])).toMatchObject([
      { ...at(4), message: 'open', data },
    ]);
    expect(failing(callback('failed', { code: { empty: true } }))).toEqual([['empty', data]]);
    expect(failing(callback('failed', { code: { empty: true }, ...elsewhere }))).toEqual([['empty', data]]);
    // The class answers something else: it is the one that is asked.
    expect(failing(callback('loaded'), callback('failed', elsewhere))).toEqual([['open', data]]);
    expect(failing(callback('loaded'), callback('failed', { ...elsewhere, code: { empty: true } }))).toEqual([
      ['empty', data],
    ]);
    expect(failing(callback('failed', { code: { empty: false }, ...elsewhere }), callback('loaded'))).toEqual(
      [['open', data]],
    );
  });

  it('is answered in the file, or elsewhere where the file answers nothing', () => {
    expect(failing(callback('failed'))).toEqual([]);
    expect(failing(callback('failed', elsewhere))).toEqual([]);
    expect(told(failureNotHandled, [call('load', 4, { format: 'native' })])).toEqual([]);
    expect(told(failureNotHandled, [call('load', 4, { format: undefined })])).toEqual([]);
    expect(told(failureNotHandled, [call('view', 4)])).toEqual([]);
  });
});

describe('an ID in code', () => {
  const unit = (more: object = {}) =>
    fact('unit-id', { carrier: 'code', value: pageUnit, placement: 'page', ...more });

  it('is told as a literal of its placement, or as an app key', () => {
    expect(reports(hardCodedId, [unit()])).toMatchObject([
      { placement: 'page', message: 'literal', data: { id: pageUnit, network, placement: 'page' } },
    ]);
    expect(reports(hardCodedId, [unit()])[0]).not.toHaveProperty('mend');
    const key = fact('app-id', { carrier: 'code', value: 'CH-A-310772-QK4T8W2N' });
    expect(reports(hardCodedId, [key])).toMatchObject([
      { message: 'app', mend: 'app', data: { id: 'CH-A-310772-QK4T8W2N', network } },
    ]);
  });

  it('is advised otherwise where another belongs', () => {
    const banner = call('load', 4, {
      format: 'banner',
      code: { argument: { ids: [pageUnit], written: 'PAGE' } },
    });
    expect(reports(hardCodedId, [unit(), banner])).toMatchObject([{ mend: 'misplaced' }]);
    expect(reports(hardCodedId, [unit({ network: 'marlstone' }), banner])[0]).not.toHaveProperty('mend');
  });

  it('is nothing where it is elsewhere, or of no placement', () => {
    for (const more of [{ carrier: 'resource' }, { placement: undefined }, { kind: 'companion' }])
      expect(reports(hardCodedId, [unit(more)])).toEqual([]);
  });
});

describe('an ad beyond its screen', () => {
  const screen = (path: string, action: string, method: string, more: object = {}) =>
    call(action, 4, {
      place: place(path, action === 'load' ? 4 : 40, 9),
      code: { methods: [method], ...more },
    });
  const kept = (path: string, stack: string, released: string, more: object = {}) =>
    told(keptBeyondScreen, [screen(path, 'load', 'open', more), screen(path, 'release', released, more)], {
      stack,
    });

  it('is released, and not where the screen goes away', () => {
    const data = (leaving: string, type = 'K', where = 'onTap') => [
      ['kept', { type, network, where, leaving }],
    ];
    expect(kept('k.dart', 'flutter', 'onTap')).toEqual(data('dispose'));
    expect(kept('K.cs', 'unity', 'onTap')).toEqual(
      data('what runs when it goes away (OnDestroy, OnDisappearing)'),
    );
    for (const path of ['k.tsx', 'k.jsx', 'k.ts', 'k.js'])
      expect(kept(path, 'react-native', 'onTap')).toEqual(data('what its effect gives back'));
    // A screen that is a function.
    expect(
      told(
        keptBeyondScreen,
        [
          screen('k.tsx', 'load', 'Page', { type: null }),
          screen('k.tsx', 'release', 'Page', { type: null, methods: ['Page', 'onTap'] }),
        ],
        { stack: 'react-native' },
      ),
    ).toEqual(data('what its effect gives back', 'Page'));
    expect(kept('k.dart', 'flutter', 'onTap', {})).toHaveLength(1);
    const [report] = reports(
      keptBeyondScreen,
      [screen('k.dart', 'load', 'open'), screen('k.dart', 'release', 'onTap')],
      { stack: 'flutter' },
    );
    expect(report).toMatchObject({
      platform: null,
      module: null,
      variants: [],
      place: place('k.dart', 4, 9),
    });
  });

  it('is released where the screen goes away, somewhere else, or nowhere', () => {
    for (const [path, stack, method] of [
      ['k.dart', 'flutter', 'dispose'],
      ['K.cs', 'unity', 'OnDestroy'],
      ['K.cs', 'unity', 'OnDisable'],
      ['K.cs', 'maui', 'OnDisappearing'],
      ['K.cs', 'maui', 'OnNavigatedFrom'],
      ['K.cs', 'maui', 'OnUnloaded'],
      ['K.cs', 'maui', 'Dispose'],
      ['K.cs', 'maui', 'DisposeAsync'],
      ['k.tsx', 'react-native', 'cleanup'],
      ['k.tsx', 'react-native', 'componentWillUnmount'],
      // Kotlin has the rule that says where nothing is released.
      ['K.kt', 'android', 'onTap'],
    ] as const)
      expect(kept(path, stack, method)).toEqual([]);
    for (const [path, stack, method] of [
      ['k.dart', 'flutter', 'disposeLater'],
      ['k.dart', 'flutter', 'mayDispose'],
      ['K.cs', 'unity', 'BeforeOnDestroy'],
      ['K.cs', 'unity', 'OnDestroyed'],
      ['k.tsx', 'react-native', 'cleanupLater'],
      ['k.tsx', 'react-native', 'noCleanup'],
      ['k.tsx', 'react-native', 'mycleanup'],
      ['k.dart', 'flutter', 'my.dispose'],
    ] as const)
      expect(kept(path, stack, method)).toHaveLength(1);
    const flutter = { stack: 'flutter' };
    const load = screen('k.dart', 'load', 'open');
    expect(told(keptBeyondScreen, [load], flutter)).toEqual([]);
    for (const more of [{ format: 'banner' }, { place: place('l.dart', 40) }])
      expect(
        told(keptBeyondScreen, [load, { ...screen('k.dart', 'release', 'onTap'), ...more } as Fact], flutter),
      ).toEqual([]);
    expect(
      told(keptBeyondScreen, [load, screen('k.dart', 'release', 'onTap', { type: 'L' })], flutter),
    ).toEqual([]);
    const bare = { type: null, methods: [] };
    expect(
      told(
        keptBeyondScreen,
        [screen('k.dart', 'load', '', bare), screen('k.dart', 'release', '', bare)],
        flutter,
      ),
    ).toEqual([]);
    for (const path of ['k.dart.txt', 'K.cs.txt', 'k.tsx.txt', 'k.txs'])
      expect(kept(path, 'flutter', 'onTap')).toEqual([]);
  });

  it('is released by several methods', () => {
    const load = screen('k.dart', 'load', 'open');
    const release = (...methods: string[]) => screen('k.dart', 'release', '', { methods });
    const flutter = { stack: 'flutter' };
    expect(told(keptBeyondScreen, [load, release('a'), release('dispose', 'closure')], flutter)).toEqual([]);
    expect(told(keptBeyondScreen, [load, release('a', 'b'), release('c')], flutter)).toMatchObject([
      ['kept', { where: 'b' }],
    ]);
    expect(told(keptBeyondScreen, [load, release()], flutter)).toMatchObject([['kept', { where: 'K' }]]);
  });
});

describe('a listener', () => {
  const added = (more: object = {}) => call('listen', 4, { value: 'Events.add', ...more });

  it('is added and never taken back in its file', () => {
    const data = { call: 'Events.add', network, file: 'K.kt', remove: 'Events.remove' };
    expect(reports(listenerKept, [added()])).toMatchObject([{ ...anywhere(4), message: 'kept', data }]);
    expect(told(listenerKept, [added({ place: place('app/src/K.kt', 4) })])).toEqual([['kept', data]]);
    const elsewhere = call('stop-listening', 9, { place: place('L.kt', 9) });
    expect(told(listenerKept, [added(), elsewhere])).toHaveLength(1);
  });

  it('is taken back, or another call', () => {
    expect(told(listenerKept, [added(), call('stop-listening', 9)])).toEqual([]);
    expect(told(listenerKept, [added({ value: 'Other.add' })])).toEqual([]);
    expect(told(listenerKept, [added()], { code: { kotlin: sdk({ listeners: undefined }) } })).toEqual([]);
  });
});

describe('a load before its time', () => {
  const gates = [
    {
      rule: loadBeforeConsent,
      action: 'consent',
      part: { consent },
      ask: { ask: 'Ad.consent', why },
      unheard: 'start',
    },
    { rule: loadBeforeStart, action: 'start', part: { start }, ask: { network }, unheard: 'consent' },
  ] as const;

  it.each(gates)('is told after a call of $action that reports later', ({ rule, action, part, ask }) => {
    const by = (more: object, ...facts: Fact[]) => {
      const [[name, said]] = Object.entries(part) as [[string, object]];
      return reports(rule, facts.length > 0 ? facts : [call(action, 3), call('load', 4)], {
        code: { kotlin: sdk({ [name]: { ...said, ...more } }), java: sdk({ [name]: { ...said, ...more } }) },
      });
    };
    const data = { call: 'Ad.load', ...ask };
    expect(by({ completed: 'onDone' })).toMatchObject([
      { ...at(4), message: 'early', data: { ...data, completed: 'onDone is called' } },
    ]);
    expect(by({ completes: 'closure' })).toMatchObject([
      { message: 'early', data: { ...data, completed: 'the closure that it is given runs' } },
    ]);
    // Kotlin waits for a call that suspends; nothing is reported where nothing has to be waited for.
    expect(by({ completes: 'await' })).toEqual([]);
    expect(by({})).toEqual([]);
    const java = { place: place('K.java', 3, 9) };
    const load = call('load', 4, { place: place('K.java', 4, 9) });
    const [late] = by({ completes: 'await' }, call(action, 3, java), load);
    expect(late).toMatchObject({ message: 'unawaited', data });
    expect(late?.data).not.toHaveProperty('completed');
    expect(by({ completes: 'await' }, call(action, 3, { ...java, awaited: true }), load)).toEqual([]);
    expect(by({ completed: 'onDone' }, call('load', 2), call(action, 3))).toEqual([]);
    expect(by({ completed: 'onDone' }, call(action, 3), call('load', 4, { follows: [action] }))).toEqual([]);
  });
});

describe('an ad in what draws', () => {
  const drawn = (
    path: string,
    stack: string,
    methods: string[],
    action = 'load',
    type: string | null = 'K',
  ) =>
    reports(madeWhileBuilding, [call(action, 4, { place: place(path, 4, 9), code: { methods, type } })], {
      stack,
    });

  it('is requested with each draw', () => {
    for (const [path, stack, method] of [
      ['k.dart', 'flutter', 'build'],
      ['K.cs', 'unity', 'Update'],
      ['K.cs', 'unity', 'LateUpdate'],
      ['K.cs', 'unity', 'FixedUpdate'],
      ['K.cs', 'unity', 'OnGUI'],
      ['K.cs', 'maui', 'OnDraw'],
      ['k.tsx', 'react-native', 'Page'],
      ['k.jsx', 'react-native', 'P'],
      ['k.js', 'react-native', 'render'],
    ] as const)
      for (const action of ['load', 'start'])
        expect(drawn(path, stack, [method], action)).toMatchObject([
          {
            platform: null,
            module: null,
            variants: [],
            place: place(path, 4, 9),
            message: 'drawn',
            data: { call: `Ad.${action}`, network, where: 'K' },
          },
        ]);
    expect(drawn('k.tsx', 'react-native', ['Page'], 'load', null)[0]?.data).toMatchObject({ where: 'Page' });
    expect(drawn('k.dart', 'flutter', ['other', 'build'])).toHaveLength(1);
  });

  it('is requested for each row', () => {
    for (const [path, stack, ...methods] of [
      ['k.dart', 'flutter', 'build', 'builder'],
      ['k.dart', 'flutter', 'build', 'itemBuilder'],
      ['k.dart', 'flutter', 'build', 'separatorBuilder'],
      ['k.dart', 'flutter', 'build', 'tabBuilder'],
      ['k.dart', 'flutter', 'build', 'pageBuilder'],
      ['K.cs', 'maui', 'OnDraw', 'OnBindingContextChanged'],
      ['K.xaml', 'maui', 'Page', 'DataTemplate'],
      ['k.tsx', 'react-native', 'Page', 'renderRow'],
      ['k.tsx', 'react-native', 'Page', 'itemComponent'],
    ] as const)
      for (const action of ['load', 'view'])
        expect(drawn(path, stack, [...methods], action)).toMatchObject([{ message: 'row' }]);
  });

  it('is a view that is drawn, or requested elsewhere', () => {
    for (const [path, stack, ...methods] of [
      ['k.dart', 'flutter', 'initState'],
      ['k.dart', 'flutter', 'rebuild'],
      ['k.dart', 'flutter', 'builder'],
      ['k.dart', 'flutter', 'build', 'onTap'],
      ['k.dart', 'flutter', 'build', 'myBuilder'],
      ['k.dart', 'flutter', 'build', 'builders'],
      ['k.dart', 'flutter'],
      ['K.cs', 'unity', 'Start'],
      ['K.cs', 'unity', 'UpdateAds'],
      ['K.cs', 'unity', 'MyUpdate'],
      ['K.cs', 'maui', 'OnDraw', 'AfterOnBindingContextChanged'],
      ['K.cs', 'maui', 'OnDraw', 'OnBindingContextChangedLater'],
      ['k.tsx', 'react-native', 'useAds'],
      ['k.tsx', 'react-native', 'Page', 'useEffect'],
      ['k.tsx', 'react-native', 'Page', 'prerenderRow'],
      ['k.tsx', 'react-native', 'Page', 'renderrow'],
      ['k.tsx', 'react-native', 'renders'],
      ['k.tsx', 'react-native', 'Page', 'itemComponents'],
      ['k.dart.txt', 'flutter', 'build'],
      ['K.cs.txt', 'unity', 'Update'],
      ['k.tsx.txt', 'react-native', 'Page'],
      ['k.ts', 'react-native', 'Page'],
      ['K.kt', 'android', 'build'],
    ] as const)
      expect([path, methods, drawn(path, stack, [...methods])]).toEqual([path, methods, []]);
    expect(drawn('k.dart', 'flutter', ['build'], 'view')).toEqual([]);
    expect(drawn('K.xaml', 'maui', ['Page'], 'view')).toEqual([]);
    expect(drawn('K.xaml', 'maui', ['DataTemplate'], 'view')).toEqual([]);
    expect(drawn('k.dart', 'flutter', ['build'], 'show')).toEqual([]);
  });
});

describe('an ad object', () => {
  it('is made and never released', () => {
    const data = { call: 'Ad.load', release: 'Ad.release' };
    expect(reports(neverReleased, [call('load', 4)])).toMatchObject([{ ...at(4), message: 'kept', data }]);
    expect(told(neverReleased, [call('load', 4), call('release', 9, { format: 'banner' })])).toHaveLength(1);
    expect(told(neverReleased, [call('load', 4), call('release', 9)])).toEqual([]);
    expect(told(neverReleased, [call('load', 4, { format: 'native' })])).toEqual([]);
    expect(told(neverReleased, [call('load', 4, { format: undefined })])).toEqual([]);
    expect(told(neverReleased, [call('view', 4)])).toEqual([]);
  });
});

describe('a start-up', () => {
  it('is called by nothing, in variants that have the SDK', () => {
    const base = { platform: 'android', module: 'app', network: 'cobalt-heron' };
    const used = fact('dependency', { place: place('build.gradle', 3), variants: ['debug', 'release'] });
    const never = (variants: string[], text: string) => ({
      ...base,
      variants,
      place: place('build.gradle', 3),
      message: 'never',
      data: { network, variants: text, call: 'Sdk.start' },
    });
    expect(reports(neverStarted, [used])).toEqual([never(['debug', 'release'], 'debug and release')]);
    expect(reports(neverStarted, [{ ...used, kind: 'binary' } as never])).toHaveLength(1);
    expect(reports(neverStarted, [used, call('start', 4, { variants: ['debug'] })])).toEqual([
      never(['release'], 'release'),
    ]);
    expect(reports(neverStarted, [used, call('load', 4)])).toEqual([never(all, 'debug, beta and release')]);
    expect(reports(neverStarted, [used, call('start', 4)])).toEqual([]);
    expect(reports(neverStarted, [call('start', 4, { variants: ['debug'] })])).toEqual([]);
    expect(reports(neverStarted, [used], { code: { swift: sdk() } })).toEqual([]);
    expect(reports(neverStarted, [used], { code: {} })).toEqual([]);
    expect(reports(neverStarted, [])).toEqual([]);
  });

  it('is called twice in one run', () => {
    const twice = (...starts: Fact[]) => told(startedTwice, starts);
    const under = (text: string, holds = true) => ({ code: { conditions: [{ text, holds }] } });
    expect(reports(startedTwice, [call('start', 3), call('start', 4), call('start', 5)])).toMatchObject([
      { ...at(4), message: 'twice', data: { network, other: 'K.kt:3' } },
      { ...at(5), message: 'twice', data: { network, other: 'K.kt:3' } },
    ]);
    const [debug, release] = [['debug'], ['release']].map((variants) => ({ variants }));
    expect(twice(call('start', 3, debug), call('start', 4, release))).toEqual([]);
    expect(twice(call('start', 3, { variants: ['beta', 'debug'] }), call('start', 4, debug))).toHaveLength(1);
    expect(twice(call('start', 3, under('eu')), call('start', 4, under('eu', false)))).toEqual([]);
    expect(twice(call('start', 3, under('eu')), call('start', 4, under('us', false)))).toHaveLength(1);
    expect(twice(call('start', 3, under('eu')), call('start', 4, under('eu')))).toHaveLength(1);
    const bare = call('start', 4, { code: null });
    expect(twice(bare, call('start', 5, { code: null }))).toHaveLength(1);
    // The first that may run before it is named, and not one that never does.
    expect(
      twice(call('start', 3, release), call('start', 4, debug), call('start', 5, debug)).map((one) => one[1]),
    ).toEqual([{ network, other: 'K.kt:4' }]);
  });

  it('is waited for without a limit', () => {
    const waiting = (waits?: string) => call('start', 4, { code: { waits } });
    expect(reports(startWithoutLimit, [waiting('open')])).toMatchObject([
      { ...anywhere(4), message: 'open', data: { network } },
    ]);
    expect(reports(startWithoutLimit, [waiting('open'), waiting('open')])).toHaveLength(1);
    expect(told(startWithoutLimit, [waiting('limited'), waiting()])).toEqual([]);
    expect(told(startWithoutLimit, [call('load', 4, { code: { waits: 'open' } })])).toEqual([]);
    expect(told(startWithoutLimit, [call('start', 4, { code: null })])).toEqual([]);
  });
});

describe('an ad that covers the screen', () => {
  const data = { call: 'Ad.show', closed: 'onClosed', failed: 'onFailed' };
  const shown = (more: CallPart, ...facts: Fact[]) => told(noWayOn, [call('show', 4, more), ...facts]);

  it('goes on neither when it is closed nor when it fails', () => {
    expect(reports(noWayOn, [call('show', 4)])).toMatchObject([{ ...at(4), message: 'stuck', data }]);
    expect(shown({}, callback('closed', { code: { empty: true } }))).toEqual([['stuck', data]]);
    expect(shown({}, callback('loaded'))).toEqual([['stuck', data]]);
  });

  it('goes on, covers nothing, or has no way to say so', () => {
    expect(shown({}, callback('closed'))).toEqual([]);
    expect(shown({}, callback('failed'))).toEqual([]);
    for (const format of ['banner', 'splash', undefined]) expect(shown({ format })).toEqual([]);
    expect(told(noWayOn, [call('load', 4)])).toEqual([]);
  });
});

describe('an ad on return', () => {
  const again = (show: Fact) => told(showOnReturn, [show]);
  const inMethod = (method: string, more: object = {}) =>
    call('show', 4, { code: { methods: [method], ...more } });
  const under = (text: string) => ({ conditions: [{ text, holds: true }] });

  it('is shown each time that the screen comes back', () => {
    expect(reports(showOnReturn, [inMethod('onResume')])).toMatchObject([
      { ...at(4), message: 'again', data: { call: 'Ad.show', method: 'onResume' } },
    ]);
    for (const text of ['ad.isReady', 'ad != null', 'focused'])
      expect(again(inMethod('onResume', under(text)))).toHaveLength(1);
    expect(again(call('show', 4, { code: { methods: ['onCreate', 'onStart'] } }))).toHaveLength(1);
    expect(again(call('show', 4, { format: 'rewarded', code: { methods: ['onStart'] } }))).toHaveLength(1);
    expect(again(call('show', 4, { format: 'video', code: { methods: ['onStart'] } }))).toHaveLength(1);
  });

  it('is held by something, or shown when the user does something', () => {
    expect(again(inMethod('onTap'))).toEqual([]);
    expect(again(inMethod('onResume', under('count > 3')))).toEqual([]);
    expect(again(call('show', 4, { code: { methods: ['onResume', 'onTap'] } }))).toEqual([]);
    expect(again(call('show', 4, { code: { methods: [] } }))).toEqual([]);
    for (const format of ['banner', 'splash', undefined])
      expect(again(call('show', 4, { format, code: { methods: ['onResume'] } }))).toEqual([]);
    expect(told(showOnReturn, [call('load', 4, { code: { methods: ['onResume'] } })])).toEqual([]);
  });

  it('is shown by a method that is called there', () => {
    const site = (method: string, text?: string) => ({
      methods: [method],
      conditions: text === undefined ? [] : [{ text, holds: true }],
      line: 20,
      column: 5,
    });
    const calledAt = (...sites: object[]) => inMethod('maybeShow', { calledAt: sites });
    expect(again(calledAt(site('onTap'), site('onResume')))).toEqual([
      ['again', { call: 'Ad.show', method: 'onResume' }],
    ]);
    // Two ways to it are one report.
    expect(again(calledAt(site('onStart'), site('onResume')))).toEqual([
      ['again', { call: 'Ad.show', method: 'onStart' }],
    ]);
    expect(again(calledAt(site('onResume', 'count > 3')))).toEqual([]);
    expect(again(calledAt(site('onResume', 'count > 3'), site('onStart')))).toHaveLength(1);
    const held = inMethod('maybeShow', { ...under('count > 3'), calledAt: [site('onResume')] });
    expect(again(held)).toEqual([]);
  });
});

describe('an ad without a check', () => {
  const blind = (more: CallPart = {}) => told(showWithoutCheck, [call('show', 4, more)]);
  const data = { call: 'Ad.show', ready: 'isReady' };

  it('is shown without asking whether it is loaded', () => {
    expect(reports(showWithoutCheck, [call('show', 4)])).toMatchObject([
      { ...at(4), message: 'blind', data },
    ]);
    expect(blind({ code: { conditions: [{ text: 'ad != null', holds: true }] } })).toEqual([['blind', data]]);
    expect(blind({ code: null })).toEqual([['blind', data]]);
  });

  it('is asked, shown where it is reported, or has nothing to ask', () => {
    expect(blind({ code: { conditions: [{ text: 'ad?.isReady == true', holds: true }] } })).toEqual([]);
    const both = [
      { text: 'isOpen', holds: true },
      { text: 'ad.isReady', holds: true },
    ];
    expect(blind({ code: { conditions: both } })).toEqual([]);
    expect(blind({ code: { methods: ['onLoaded', 'post'] } })).toEqual([]);
    expect(blind({ format: 'banner' })).toEqual([]);
    expect(blind({ format: undefined })).toEqual([]);
    expect(told(showWithoutCheck, [call('load', 4)])).toEqual([]);
  });
});

describe('a start-up after a load', () => {
  const after = (...facts: Fact[]) => told(startAfterLoad, facts);
  const method = (name: string, ...outer: string[]) => ({ code: { methods: [...outer, name] } });

  it('is below it in one method', () => {
    expect(reports(startAfterLoad, [call('load', 3), call('start', 7)])).toMatchObject([
      { ...at(3), message: 'below', data: { call: 'Ad.load', network }, changing: { line: '7' } },
    ]);
    expect(after(call('view', 3), call('start', 7))).toHaveLength(1);
    expect(after(call('load', 7, { place: place('K.kt', 7, 1) }), call('start', 7))).toHaveLength(1);
  });

  it('is in a method that is called later', () => {
    const late = [call('load', 20, method('onCreate')), call('start', 3, method('onResume'))];
    expect(reports(startAfterLoad, late)).toMatchObject([
      {
        ...at(20),
        message: 'later',
        data: { call: 'Ad.load', network, method: 'onCreate', other: 'onResume' },
      },
    ]);
    expect(after(call('load', 20, method('onResume')), call('start', 3, method('onCreate')))).toEqual([]);
    // In a closure, nobody knows when it runs.
    expect(after(call('load', 20, method('post', 'onCreate')), call('start', 3, method('onResume')))).toEqual(
      [],
    );
    expect(after(call('load', 20, method('onCreate')), call('start', 3, method('post', 'onResume')))).toEqual(
      [],
    );
  });

  it('may run first, or cannot be told', () => {
    expect(after(call('load', 7), call('start', 3))).toEqual([]);
    expect(after(call('load', 3))).toEqual([]);
    expect(after(call('show', 3), call('start', 7))).toEqual([]);
    expect(after(call('load', 3), call('start', 7, { place: place('L.kt', 7) }))).toEqual([]);
    expect(after(call('load', 3), call('start', 7, { code: { type: 'L' } }))).toEqual([]);
    expect(after(call('load', 3), call('start', 7, method('onTap')))).toEqual([]);
    // Another start, in a method that may run before.
    expect(after(call('load', 3), call('start', 7), call('start', 9, method('onTap')))).toEqual([]);
    expect(after(call('load', 3), call('start', 7), call('start', 9, method('onResume')))).toHaveLength(1);
  });

  it('is in the field of a class, or at the top of a file', () => {
    const bare = { code: { methods: [] } };
    expect(after(call('load', 3, bare), call('start', 7, bare))).toEqual([]);
    const top = { code: { type: null, methods: [] } };
    expect(after(call('load', 3, top), call('start', 7, top))).toMatchObject([['below', {}]]);
  });

  it('comes after a load that a method makes which is called before it', () => {
    const site = { methods: ['onCreate'], conditions: [], line: 5, column: 1 };
    const load = call('load', 40, { code: { methods: ['loadAd'], calledAt: [site] } });
    expect(after(load, call('start', 7))).toEqual([['below', { call: 'Ad.load', network }]]);
    expect(after(load, call('start', 4))).toEqual([]);
  });
});

describe('a start-up in a framework', () => {
  const flutter = { stack: 'flutter' };
  const main = (line: number, column = 3, path = 'main.dart', methods = ['main']) => ({
    place: place(path, line, column),
    code: { type: null, methods, conditions: [] },
  });
  const moment = (name: string, line: number, column = 3, path = 'main.dart', methods = ['main']) =>
    fact('framework-call', {
      network: null,
      name,
      value: name === 'run' ? 'runApp' : 'ensureInitialized',
      variants: all,
      ...main(line, column, path, methods),
    });
  const started = (line: number, ...facts: Fact[]) =>
    told(startBeforeReady, [call('start', line, main(line)), ...facts], flutter);
  const ready = 'WidgetsFlutterBinding.ensureInitialized';

  it('comes before the framework is ready, or after the app runs', () => {
    expect(started(3, moment('ready', 5), moment('run', 9))).toEqual([['early', { network, ready }]]);
    expect(started(3, moment('run', 9))).toEqual([['without', { network, ready, run: 'runApp' }]]);
    expect(started(12, moment('ready', 5), moment('run', 9))).toEqual([['late', { network, run: 'runApp' }]]);
    expect(started(12, moment('run', 9))).toEqual([['late', { network, run: 'runApp' }]]);
    const [report] = reports(startBeforeReady, [call('start', 3, main(3)), moment('run', 9)], flutter);
    expect(report).toMatchObject({
      platform: null,
      module: null,
      variants: [],
      network: 'cobalt-heron',
      place: place('main.dart', 3, 3),
    });
  });

  it('is in its place, by line and column', () => {
    expect(started(7, moment('ready', 5), moment('run', 9))).toEqual([]);
    expect(started(5, moment('ready', 5, 1), moment('run', 5, 9))).toEqual([]);
    expect(started(5, moment('ready', 5, 9), moment('run', 9))).toHaveLength(1);
    expect(started(5, moment('ready', 5, 3), moment('run', 9))).toEqual([]);
    expect(started(5, moment('ready', 4), moment('run', 5, 1))).toMatchObject([['late', {}]]);
  });

  it('is in code that does not run the app', () => {
    expect(started(3)).toEqual([]);
    expect(started(3, moment('ready', 5))).toEqual([]);
    expect(started(3, moment('run', 9, 3, 'other.dart'))).toEqual([]);
    expect(started(3, moment('run', 9, 3, 'main.dart', ['other']))).toEqual([]);
    expect(started(3, { ...moment('run', 9), kind: 'companion' } as never)).toEqual([]);
    expect(told(startBeforeReady, [call('load', 3, main(3)), moment('run', 9)], flutter)).toEqual([]);
  });

  it('needs the call that its framework has', () => {
    const builder = (path: string, stack: string) =>
      told(startBeforeReady, [call('start', 3, main(3, 3, path)), moment('run', 9, 3, path)], { stack });
    expect(builder('App.cs', 'maui')).toEqual([
      ['without', { network, ready: 'MauiApp.CreateBuilder', run: 'runApp' }],
    ]);
    expect(builder('index.ts', 'react-native')).toEqual([]);
    expect(builder('App.cs.txt', 'maui')).toEqual([]);
    expect(builder('main.dart.txt', 'flutter')).toEqual([]);
  });
});

describe('a start-up in a class', () => {
  const inApp = (more: object = {}) => call('start', 4, { code: { type: 'KelpApp' }, ...more });
  const known = (value: string, more: object = {}) =>
    fact('application-class', {
      network: null,
      name: 'extends Application',
      value,
      variants: all,
      place: place('K.kt', 2),
      ...more,
    });
  const declared = (value: string, more: object = {}) =>
    known(value, { name: undefined, place: place('AndroidManifest.xml', 6), ...more });
  const unused = (...facts: Fact[]) => reports(startInUnusedClass, [inApp(), known('KelpApp'), ...facts]);
  const data = { network, class: 'KelpApp', name: '.KelpApp' };

  it('is never made: the manifest names none, or another', () => {
    expect(unused()).toMatchObject([
      {
        platform: 'android',
        module: 'app',
        variants: all,
        network: 'cobalt-heron',
        place: place(),
        message: 'unnamed',
        data: { ...data, variants: 'debug, beta and release' },
      },
    ]);
    const other = declared('example.brine.Other', { variants: ['debug', 'release'] });
    expect(unused(other, declared('.KelpApp', { variants: ['debug'] }))).toMatchObject([
      {
        variants: ['beta', 'release'],
        place: other.place,
        message: 'other',
        data: { ...data, variants: 'beta and release', found: 'example.brine.Other' },
      },
    ]);
    expect(unused(declared('.KelpApp', { variants: ['debug', 'beta'] }))).toMatchObject([
      { variants: ['release'], message: 'unnamed' },
    ]);
  });

  it('is made: named, nested, or extended by the one that is named', () => {
    for (const value of ['KelpApp', '.KelpApp', 'example.brine.KelpApp', 'example.brine.Outer$KelpApp'])
      expect(unused(declared(value))).toEqual([]);
    const extending = known('Inner', { name: 'extends example.brine.KelpApp' });
    expect(unused(declared('.Inner'), extending)).toEqual([]);
    const further = known('Innermost', { name: 'extends Inner' });
    expect(unused(declared('.Innermost'), extending, further)).toEqual([]);
    expect(unused(declared('.Innermost'), further)).toHaveLength(1);
    // Classes that extend each other in a circle.
    const circle = [known('A', { name: 'extends B' }), known('B', { name: 'extends A' })];
    expect(unused(declared('.A'), ...circle)).toHaveLength(1);
  });

  it('is no matter where the class is none of these, or another start counts', () => {
    expect(reports(startInUnusedClass, [inApp()])).toEqual([]);
    expect(reports(startInUnusedClass, [inApp(), known('Other')])).toEqual([]);
    expect(
      reports(startInUnusedClass, [call('load', 4, { code: { type: 'KelpApp' } }), known('KelpApp')]),
    ).toEqual([]);
    expect(unused(inApp({ code: { type: 'Screen' }, place: place('S.kt', 3) }))).toEqual([]);
    expect(unused(inApp({ place: place('K.kt', 30) }))).toHaveLength(2);
    expect(reports(startInUnusedClass, [call('start', 4, { code: null }), known('KelpApp')])).toEqual([]);
    expect(
      reports(startInUnusedClass, [inApp(), { ...known('KelpApp'), kind: 'companion' } as never]),
    ).toEqual([]);
  });

  it('is a delegate that nothing gives to the app', () => {
    const ios = (one: Fact) => ({ ...one, platform: 'ios' }) as Fact;
    const delegate = ios(known('Delegate', { kind: 'app-delegate', place: place('D.swift', 3) }));
    const begin = ios(call('start', 4, { code: { type: 'Delegate' } }));
    const said = { network, class: 'Delegate', name: 'Delegate', variants: 'debug, beta and release' };
    expect(reports(startInUnusedClass, [begin, delegate])).toMatchObject([
      {
        platform: 'ios',
        variants: all,
        place: place('D.swift', 3),
        mend: 'delegate',
        message: 'noDelegate',
        data: said,
      },
    ]);
    const given = (value: string) =>
      ios(declared(value, { kind: 'app-delegate', place: place('App.swift', 2) }));
    expect(reports(startInUnusedClass, [begin, delegate, given('Other')])).toMatchObject([
      {
        place: place('D.swift', 3),
        mend: 'delegate',
        message: 'otherDelegate',
        data: { ...said, found: 'Other' },
      },
    ]);
    expect(reports(startInUnusedClass, [begin, delegate, given('Delegate')])).toEqual([]);
    // An application class is nothing to iOS, and a delegate nothing to Android.
    expect(reports(startInUnusedClass, [begin, ios(known('Delegate'))])).toEqual([]);
    expect(reports(startInUnusedClass, [inApp(), known('KelpApp', { kind: 'app-delegate' })])).toEqual([]);
  });
});

describe('devices for testing', () => {
  const named = (variants: string[], written?: string) =>
    call('test-devices', 4, { variants, code: { argument: written && { ids: [], written } } });

  it('are named in what ships', () => {
    expect(reports(testDeviceInProduction, [named(all, 'listOf("x")')])).toMatchObject([
      {
        ...at(4),
        variants: ['release'],
        message: 'ships',
        data: { call: 'Ad.test-devices', variants: 'release' },
      },
    ]);
    expect(told(testDeviceInProduction, [named(['release'])])).toHaveLength(1);
    expect(told(testDeviceInProduction, [named(['release'], 'MyPlacebooks.devices')])).toHaveLength(1);
    expect(told(testDeviceInProduction, [call('test-devices', 4, { code: null })])).toHaveLength(1);
  });

  it('are named for testing alone, or by the placebook', () => {
    expect(told(testDeviceInProduction, [named(['debug', 'beta'])])).toEqual([]);
    expect(told(testDeviceInProduction, [named(all, 'Placebook.testDevices')])).toEqual([]);
    expect(told(testDeviceInProduction, [call('load', 4)])).toEqual([]);
  });
});

describe('a unit ID under another name', () => {
  const twin = 'CH-U-310772-CCCC1111';
  const two = kelp({ placements: { page: on(pageUnit, 'banner'), shelf: on(twin, 'banner') } });
  const held = (name: string, more: object = {}) =>
    fact('unit-id', {
      carrier: 'code',
      value: pageUnit,
      placement: 'page',
      place: place('K.kt', 5),
      code: { type: 'Units', methods: [], conditions: [], flow: { into: 'constant', name } },
      ...more,
    });
  const swapped = (...facts: Fact[]) => reportsOf(unitOfAnotherPlacement, { ...checked(facts), title: two });

  it('is told where it is written', () => {
    const chain = [{ what: 'constant', value: pageUnit, place: place('Units.kt', 8) }];
    expect(swapped(held('SHELF_UNIT', { chain }))).toMatchObject([
      {
        platform: 'android',
        placement: 'page',
        place: place('Units.kt', 8),
        message: 'swapped',
        data: { name: 'SHELF_UNIT', says: 'shelf', id: pageUnit, network, placement: 'page' },
      },
    ]);
  });

  it('is nothing under its own name, or no ID in code', () => {
    for (const one of [
      held('PAGE_UNIT'),
      held('WHATEVER'),
      held('SHELF_UNIT', { carrier: 'resource' }),
      held('SHELF_UNIT', { network: 'marlstone' }),
      held('SHELF_UNIT', { placement: undefined }),
    ])
      expect(swapped(one)).toEqual([]);
  });
});

describe('a unit of another format', () => {
  const loads = (ids: string[], written = 'X', more: object = {}) =>
    call('load', 4, { code: { argument: { ids, written } }, ...more });
  const format = (...facts: Fact[]) => told(wrongFormat, facts);
  const wrong = (unit: string, is: string, formats = 'interstitial') => [
    ['format', { call: 'Ad.load', loads: formats, unit, format: is }],
  ];

  it('is of a placement, named by one, or a sample', () => {
    expect(reports(wrongFormat, [loads([footerUnit])])).toMatchObject([
      {
        ...at(4),
        message: 'format',
        data: { call: 'Ad.load', loads: 'interstitial', unit: footerUnit, format: 'banner' },
      },
    ]);
    expect(format(loads([], 'Placebook.footer'))).toEqual(wrong('footer', 'banner'));
    expect(format(loads([sample]))).toEqual(wrong(sample, 'banner'));
    for (const action of ['view', 'identify'])
      expect(format(loads([footerUnit], 'X', { action, value: 'Ad.load' }))).toHaveLength(1);
    expect(format(loads([footerUnit, pageUnit, footerUnit]))).toEqual(wrong(footerUnit, 'banner'));
  });

  it('is right for one of the formats that the call loads', () => {
    const [one, other] = ['native', 'interstitial'].map((name) => loads([footerUnit], 'X', { format: name }));
    expect(format(one!, other!)).toEqual(wrong(footerUnit, 'banner', 'native and interstitial'));
    expect(format(one!, loads([footerUnit], 'X', { format: 'banner' }))).toEqual([]);
    // What another of them is given is given to the call, too.
    expect(format(loads([pageUnit]), loads([footerUnit]))).toEqual(wrong(footerUnit, 'banner'));
  });

  it('is nothing where it fits, or nobody knows the unit', () => {
    expect(format(loads([pageUnit]))).toEqual([]);
    expect(format(loads([], 'Placebook.page'))).toEqual([]);
    expect(format(loads([], 'Placebook.footers'))).toEqual([]);
    expect(format(loads([], 'PlacebookXfooter'))).toEqual([]);
    expect(format(loads(['CH-U-310772-ZZZZ9999']))).toEqual([]);
    expect(format(loads(['CH-A-100001-SAMPLE0A']))).toEqual([]);
    expect(format(call('load', 4))).toEqual([]);
    expect(format(call('load', 4, { code: null }))).toEqual([]);
    expect(format(loads([footerUnit], 'X', { action: 'show' }))).toEqual([]);
  });
});
