import { describe, expect, it } from 'vitest';
import {
  answers,
  callbackNames,
  callbacksOf,
  callsOf,
  firstInMethods,
  isBelow,
  isView,
  languagesFor,
  oncePerPlace,
  placementsOf,
  readyNames,
  sitesOf,
} from '../../../src/core/checks/code.js';
import { earlyLoads } from '../../../src/core/checks/gates.js';
import { isCalledLater } from '../../../src/core/checks/lifecycles.js';
import type { EditionScope } from '../../../src/core/checks/scope.js';
import { onlyAsks } from '../../../src/core/checks/show-conditions.js';
import type { Fact, FactOf } from '../../../src/core/facts/model.js';
import type { Profile } from '../../../src/core/network/model.js';
import { kelp, placement, profileOf } from '../../support/titles.js';

type Call = FactOf<'call'>;
const place = (line: number, column = 1, path = 'Ads.kt') => ({ path, line, column });
const call = (
  action: string,
  line: number,
  more: Partial<Call> = {},
  methods: string[] = ['onCreate'],
): Call =>
  ({
    kind: 'call',
    action,
    network: 'cobalt-heron',
    platform: 'android',
    value: action,
    variants: ['debug'],
    place: place(line),
    code: { methods, conditions: [] },
    ...more,
  }) as unknown as Call;
const scopeOf = (...facts: Fact[]) => ({ facts, platform: 'android' }) as unknown as EditionScope;
const heron = profileOf('cobalt-heron');

describe('the calls of a network', () => {
  it('are those that do one of some things, and the same list when they are asked for again', () => {
    const [load, show, other] = [call('load', 1), call('show', 2), call('load', 3, { network: 'marlstone' })];
    const scope = scopeOf(load, show, other, { ...load, kind: 'callback' } as unknown as Fact);
    expect(callsOf(scope, 'cobalt-heron', 'load')).toEqual([load]);
    expect(callsOf(scope, 'cobalt-heron', 'load', 'show')).toEqual([load, show]);
    expect(callsOf(scope, 'marlstone', 'load')).toEqual([other]);
    expect(callsOf(scope, 'quincebury', 'load')).toEqual([]);
    expect(callsOf(scope, 'cobalt-heron', 'load')).toBe(callsOf(scope, 'cobalt-heron', 'load'));
    expect(callsOf(scopeOf(show), 'cobalt-heron', 'load')).toEqual([]);
  });

  it('may be views', () => {
    expect(isView(call('view', 1))).toBe(true);
    expect(isView(call('load', 1))).toBe(false);
    expect(isView({ kind: 'banner-view' } as Fact)).toBe(true);
  });

  it('are made where they are, and wherever the method around them is called', () => {
    const calledAt = [
      { methods: ['onStart'], conditions: [], line: 9, column: 2, follows: ['consent' as const] },
    ];
    const one = call('load', 4, {
      follows: ['start'],
      code: { methods: ['load'], conditions: [], calledAt } as unknown as Call['code'],
    });
    expect(sitesOf(one)).toEqual([
      { methods: ['load'], conditions: [], follows: ['start'], line: 4, column: 1 },
      { methods: ['onStart'], conditions: [], follows: ['consent', 'start'], line: 9, column: 2 },
    ]);
    expect(sitesOf(call('load', 4, { code: undefined }))).toEqual([
      { methods: [], conditions: [], follows: [], line: 4, column: 1 },
    ]);
  });

  it('are below one another in one method', () => {
    const at = (line: number, column: number, ...methods: string[]) => ({
      methods,
      conditions: [],
      follows: [],
      line,
      column,
    });
    expect(isBelow(at(2, 1, 'a'), at(1, 9, 'a'))).toBe(true);
    expect(isBelow(at(1, 9, 'a'), at(1, 2, 'a'))).toBe(true);
    expect(isBelow(at(1, 2, 'a'), at(1, 2, 'a'))).toBe(false);
    expect(isBelow(at(1, 1, 'a'), at(2, 9, 'a'))).toBe(false);
    expect(isBelow(at(2, 1, 'b'), at(1, 1, 'a'))).toBe(false);
    expect(isBelow(at(2, 1, 'a', 'b'), at(1, 1, 'a'))).toBe(false);
    expect(isBelow(at(2, 1, 'a'), at(1, 1, 'a', 'b'))).toBe(false);
    expect(isBelow(at(1, 9, 'a'), at(2, 1, 'a'))).toBe(false);
    expect(isBelow(at(2, 1), at(1, 1))).toBe(true);
  });

  it('are the first in their method', () => {
    const [late, early, beside] = [call('load', 5), call('load', 3), call('load', 3, { place: place(3, 9) })];
    const [other, typed] = [
      call('load', 9, {}, ['onStart']),
      call('load', 8, { code: { type: 'Main', methods: ['onCreate'] } as Call['code'] }),
    ];
    const elsewhere = call('load', 1, { place: place(1, 1, 'Other.kt') });
    expect(firstInMethods([late, beside, early, other, typed, elsewhere])).toEqual([
      early,
      other,
      typed,
      elsewhere,
    ]);
    expect(firstInMethods([early, beside, late])).toEqual([early]);
    expect(firstInMethods([beside, early])).toEqual([early]);
    expect(firstInMethods([early, call('load', 4, { place: place(4, 0) })])).toEqual([early]);
    const twin = call('load', 3);
    expect(firstInMethods([early, twin])[0]).toBe(early);
    expect(firstInMethods([])).toEqual([]);
  });

  it('are told once for each place', () => {
    const [one, again, other] = [call('load', 5), call('show', 5), call('load', 5, { place: place(5, 2) })];
    expect(oncePerPlace([one, again, other])).toEqual([one, other]);
  });

  it('name placements by their IDs, or through the placebook', () => {
    const [footer, header] = ['CH-U-310772-AAAA1111', 'CH-U-310772-BBBB1111'];
    const title = kelp({
      placements: {
        'tide-footer': placement('banner', footer, 'CH-U-310772-AAAA2222'),
        header: placement('banner', header, 'CH-U-310772-BBBB2222'),
      },
    });
    const of = (argument: object) =>
      placementsOf(call('load', 1, { code: { argument } as unknown as Call['code'] }), title);
    expect(of({ ids: [header], written: '' })).toEqual(['header']);
    expect(of({ ids: ['CH-U-310772-AAAA2222'], written: '' })).toEqual(['tide-footer']);
    expect(of({ ids: [], written: 'Placebook.tideFooter' })).toEqual(['tide-footer']);
    expect(of({ ids: [], written: 'Placebook.TIDE_FOOTER.id' })).toEqual(['tide-footer']);
    expect(of({ ids: [], written: 'Placebook.HEADERS' })).toEqual([]);
    expect(of({ ids: [], written: 'PlacebookXheader' })).toEqual([]);
    expect(of({ ids: [header, footer], written: '' })).toEqual(['tide-footer', 'header']);
    expect(placementsOf(call('load', 1), title)).toEqual([]);
    const foreign = call('load', 1, {
      network: 'marlstone',
      code: { argument: { ids: [header] } } as unknown as Call['code'],
    });
    expect(placementsOf(foreign, title)).toEqual([]);
  });
});

describe('the callbacks of a network', () => {
  const callback = (name: string, path: string, empty?: boolean) =>
    ({
      kind: 'callback',
      network: 'cobalt-heron',
      name,
      place: place(1, 1, path),
      code: { empty },
    }) as unknown as Fact;

  it('are those of an event', () => {
    const [closed, failed] = [callback('onClosed', 'Ads.kt'), callback('onFailed', 'Ads.kt')];
    const scope = scopeOf(closed, failed, { ...closed, network: 'marlstone' } as Fact);
    expect(callbacksOf(scope, 'cobalt-heron', 'onClosed')).toEqual([closed]);
    expect(callbacksOf(scope, 'quincebury', 'onClosed')).toEqual([]);
  });

  it.each([
    ['in its file', [callback('onFailed', 'Ads.kt')], true],
    ['by nothing', [callback('onFailed', 'Ads.kt', true)], false],
    ['elsewhere, where its file answers nothing', [callback('onFailed', 'Other.kt')], true],
    [
      'elsewhere, where its file answers something else',
      [callback('onFailed', 'Other.kt'), callback('onClosed', 'Ads.kt')],
      false,
    ],
    ['nowhere', [], false],
  ])('answer an event %s', (_, callbacks, does) => {
    expect(answers(scopeOf(...callbacks), call('load', 1), 'onFailed')).toBe(does);
  });

  it('have the names that the profile gives them, and no name without a format', () => {
    const code = {
      kotlin: { formats: { rewarded: { callbacks: { failed: 'onFailed' }, ready: 'RewardedAd.isReady' } } },
      java: {
        formats: { rewarded: { callbacks: { closed: 'onClosed', failed: 'other' }, ready: 'isLoaded' } },
      },
      swift: { formats: { rewarded: { callbacks: { closed: 'adDidClose' }, ready: 'ready' } } },
    };
    const profile = { ...heron, code } as unknown as Profile;
    expect(callbackNames(profile, 'android', 'rewarded')).toEqual({ closed: 'onClosed', failed: 'onFailed' });
    expect(callbackNames(profile, 'ios', 'rewarded')).toEqual({ closed: 'adDidClose', failed: undefined });
    expect(callbackNames(profile, 'android', undefined)).toEqual({ closed: undefined, failed: undefined });
    expect(callbackNames(profile, 'android', 'banner')).toEqual({ closed: undefined, failed: undefined });
    expect(readyNames(profile, 'android', 'rewarded')).toEqual(['isReady', 'isLoaded']);
    expect(readyNames(profile, 'ios', 'rewarded')).toEqual(['ready']);
    expect(readyNames(profile, 'android', 'banner')).toEqual([]);
    expect(readyNames(profile, 'android', undefined)).toEqual([]);
    expect(languagesFor(profile, 'ios')).toEqual([code.swift]);
  });
});

describe('loads before a gate is passed', () => {
  const gate = (more: object) =>
    ({
      ...heron,
      code: { kotlin: { start: { why: 'w', ...more } }, swift: { start: { why: 'w', ...more } }, java: {} },
    }) as unknown as Profile;
  const early = (profile: Profile, ...facts: Fact[]) =>
    earlyLoads(scopeOf(...facts), profile, 'start').map(({ load, gate: at, completed, why }) => [
      load.place.line,
      at.place.line,
      completed,
      why,
    ]);
  const [start, load] = [call('start', 2), call('load', 5)];

  it('are told with what completes it', () => {
    expect(early(gate({ completed: 'onReady' }), start, load)).toEqual([[5, 2, 'onReady is called', 'w']]);
    expect(early(gate({ completes: 'closure' }), start, load)).toEqual([
      [5, 2, 'the closure that it is given runs', 'w'],
    ]);
  });

  it('are none where the language waits by itself, or the code does', () => {
    const awaiting = gate({ completes: 'await' });
    expect(early(awaiting, start, load)).toEqual([]);
    const swift = (one: Call, more: Partial<Call> = {}) =>
      ({ ...one, ...more, place: { ...one.place, path: 'Ads.swift' } }) as Call;
    expect(early(awaiting, swift(start), swift(load))).toEqual([[5, 2, null, 'w']]);
    expect(early(awaiting, swift(start, { awaited: true }), swift(load))).toEqual([]);
    expect(early(gate({}), start, load)).toEqual([]);
  });

  it.each<[string, Fact[]]>([
    ['above it', [call('start', 6), load]],
    ['once it is done', [start, call('load', 5, { follows: ['start'] })]],
    ['in another method', [start, call('load', 5, {}, ['onStart'])]],
    ['beside one outside of all methods', [call('start', 2, {}, []), call('load', 5, {}, [])]],
    ['of another network', [start, call('load', 5, { network: 'marlstone' })]],
    ['without any gate', [load]],
    [
      'in a language that the profile says nothing of',
      [
        { ...start, place: place(2, 1, 'Ads.java') },
        { ...load, place: place(5, 1, 'Ads.java') },
      ],
    ],
    [
      'in a file of no language',
      [
        { ...start, place: place(2, 1, 'Ads.txt') },
        { ...load, place: place(5, 1, 'Ads.txt') },
      ],
    ],
  ])('are none %s', (_, facts) => {
    expect(early(gate({ completed: 'onReady' }), ...facts)).toEqual([]);
  });

  it('are told once for a place, and where the method around them is called', () => {
    const profile = gate({ completed: 'onReady' });
    expect(early(profile, start, load, { ...load })).toHaveLength(1);
    const calledAt = [{ methods: ['onCreate'], conditions: [], line: 4, column: 1 }];
    const away = call('load', 20, {
      code: { methods: ['fill'], conditions: [], calledAt } as unknown as Call['code'],
    });
    expect(early(profile, start, away)).toEqual([[20, 2, 'onReady is called', 'w']]);
    expect(early(profile, start, call('start', 3), load)).toEqual([[5, 2, 'onReady is called', 'w']]);
  });

  it('may be those of the question for consent', () => {
    const profile = {
      ...heron,
      code: { kotlin: { consent: { why: 'w', completed: 'onAnswer' } } },
    } as unknown as Profile;
    const facts = [call('consent', 1), load];
    expect(earlyLoads(scopeOf(...facts), profile, 'consent')).toHaveLength(1);
    expect(earlyLoads(scopeOf(...facts), profile, 'start')).toEqual([]);
  });
});

describe('the order of a lifecycle', () => {
  it.each([
    ['onStart', 'onCreate', true],
    ['onCreate', 'onStart', false],
    ['onCreate', 'onCreate', false],
    ['viewDidAppear', 'loadView', true],
    ['Start', 'Awake', true],
    ['componentDidMount', 'render', true],
    ['onViewCreated', 'onAttach', true],
    ['onViewCreated', 'viewDidLoad', false],
    ['mine', 'onCreate', false],
    ['onCreate', 'mine', false],
  ])('%s comes after %s: %s', (method, than, isLater) => {
    expect(isCalledLater(method, than)).toBe(isLater);
  });
});

describe('a condition of showing an ad', () => {
  it.each([
    ['ad.isReady', true],
    ['!ad.isReady()', true],
    ['ad != null && ad.isReady', true],
    ['ad !== undefined', true],
    ['rewarded is not null', true],
    ['ad is { }', true],
    ['ad && ad.isReady()', true],
    ['hasFocus', true],
    ['focused && ad.isReady', true],
    ['!paused', true],
    ['state == AppLifecycleState.resumed', true],
    ["state === 'active'", true],
    ['scenePhase == .active', true],
    ['score > 3 && ad.isReady', false],
    ['ad.isReady && isPremium()', false],
    ['ad.isReady || forced', false],
    ['count == null + 1', false],
    ['level', false],
  ])('%s asks for nothing else: %s', (text, only) => {
    expect(onlyAsks(text, ['isReady'])).toBe(only);
  });
});
