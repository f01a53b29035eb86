import { describe, expect, it } from 'vitest';
import type { Rule } from '../../../src/core/checks/model.js';
import { bannerDoesNotFit } from '../../../src/core/checks/rules/rehearsal-banner-does-not-fit.js';
import { capNotKept } from '../../../src/core/checks/rules/rehearsal-cap-not-kept.js';
import { fallbackTooLate } from '../../../src/core/checks/rules/rehearsal-fallback-too-late.js';
import { keptAfterScreen } from '../../../src/core/checks/rules/rehearsal-kept-after-screen.js';
import { listAdsMeet } from '../../../src/core/checks/rules/rehearsal-list-ads-meet.js';
import { listFirstTooEarly } from '../../../src/core/checks/rules/rehearsal-list-first-too-early.js';
import { listLoadedAtOnce } from '../../../src/core/checks/rules/rehearsal-list-loaded-at-once.js';
import { listRowReused } from '../../../src/core/checks/rules/rehearsal-list-row-reused.js';
import { neverRequested } from '../../../src/core/checks/rules/rehearsal-never-requested.js';
import { neverShown } from '../../../src/core/checks/rules/rehearsal-never-shown.js';
import { noWayForward } from '../../../src/core/checks/rules/rehearsal-no-way-forward.js';
import { productionClicked } from '../../../src/core/checks/rules/rehearsal-production-clicked.js';
import { refreshTooFast } from '../../../src/core/checks/rules/rehearsal-refresh-too-fast.js';
import { refusedRequest } from '../../../src/core/checks/rules/rehearsal-refused.js';
import { requestedTooEarly } from '../../../src/core/checks/rules/rehearsal-requested-too-early.js';
import { rewardWithoutCompletion } from '../../../src/core/checks/rules/rehearsal-reward-without-completion.js';
import { shownOnReturn } from '../../../src/core/checks/rules/rehearsal-shown-on-return.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp } from '../../support/titles.js';

/** What a rehearsal saw of the placement `page` on Cobalt Heron: nothing, with what matters to a test put in. */
const seen = (more: object = {}) =>
  fact('rehearsed', {
    placement: 'page',
    stage: 'production',
    format: 'interstitial',
    settings: {},
    verdict: { is: 'shown' },
    events: [],
    screen: { width: 360, height: 640 },
    place: place('Screen.kt', 4),
    ...more,
  });
const event = (at: number, what: string, more: object = {}) => ({ at, what, ...more });
/** Events of one kind at these times. */
const events = (what: string, ...times: number[]) => ({ events: times.map((at) => event(at, what)) });
const title = kelp({
  networks: {
    'cobalt-heron': { android: {}, ios: {} },
    marlstone: { android: {}, ios: {} },
  } as never,
});
const reports = (rule: Rule, ...facts: Fact[]) => reportsOf(rule, contextOf(facts, { title }));
/** What is said, with what changes by itself and the advice that was chosen. */
const told = (rule: Rule, ...facts: Fact[]) =>
  reports(rule, ...facts).map(({ message, data, changing, mend }) => [
    message,
    data,
    ...(changing || mend ? [changing ?? {}] : []),
    ...(mend ? [mend] : []),
  ]);
const page = { placement: 'page' };
/** What a report has of the placement, whatever it says. */
const where = {
  platform: 'android',
  module: 'app',
  variants: ['debug'],
  network: 'cobalt-heron',
  placement: 'page',
  place: place('Screen.kt', 4),
};

describe('what a rehearsal reports', () => {
  /** For each rule, a placement that it has something to say of. */
  const spoken: [Rule, object][] = [
    [bannerDoesNotFit, { format: 'banner', covers: 'tabs' }],
    [capNotKept, { settings: { cap: { count: 1 } }, ...events('impression', 1, 2) }],
    [keptAfterScreen, events('kept', 1)],
    [listFirstTooEarly, { format: 'native', settings: { first: 0 } }],
    [listLoadedAtOnce, { events: [1, 2, 3].map((row) => event(1, 'load', { row })) }],
    [listRowReused, events('row-reused', 1)],
    [neverRequested, { verdict: { is: 'never-requested' } }],
    [neverShown, { verdict: { is: 'never-shown' } }],
    [noWayForward, events('stuck', 1)],
    [productionClicked, { stage: 'test', events: [event(1, 'click', { test: false })] }],
    [refreshTooFast, { format: 'banner', ...events('refresh', 0, 1) }],
    [refusedRequest, events('refused', 1)],
    [requestedTooEarly, { events: [event(1, 'request', { before: ['start'] })] }],
    [rewardWithoutCompletion, events('reward', 1)],
    [shownOnReturn, { events: [1, 2].map((at) => event(at, 'show', { because: 'return' })) }],
  ];

  it.each(spoken)('has the placement and its place', (rule, more) => {
    expect(reports(rule, seen(more))).toMatchObject([where]);
    const [nowhere] = reports(rule, seen({ ...more, place: place('', 1) }));
    expect(nowhere?.place).toBeNull();
  });

  it.each(spoken)('is nothing where nothing happened, and of other facts', (rule, more) => {
    expect(reports(rule, seen({ ...more, format: 'interstitial', ...quiet }))).toEqual([]);
    expect(reports(rule, { ...seen(more), kind: 'companion' } as never)).toEqual([]);
    expect(
      reports(rule, seen({ ...more, network: 'unknown' })).every((one) => one.network === 'unknown'),
    ).toBe(true);
  });
  const quiet = { events: [], settings: {}, verdict: { is: 'shown' }, covers: undefined };
});

describe('a banner', () => {
  const banner = (settings: object, more: object = {}) =>
    told(bannerDoesNotFit, seen({ format: 'banner', settings, ...more }));

  it('is told where it is wider than the screen', () => {
    const wide = ['wide', { ...page, width: '320', screen: '300' }];
    expect(banner({}, { screen: { width: 300, height: 640 } })).toEqual([wide]);
    expect(banner({ size: 'large' }, { screen: { width: 300, height: 640 } })).toEqual([wide]);
    expect(banner({}, { screen: { width: 320, height: 640 } })).toEqual([]);
    expect(banner({ size: 'adaptive' }, { screen: { width: 300, height: 640 } })).toEqual([]);
  });

  it('is told where it takes more than a fifth of the height and stays in view', () => {
    const high = (anchor: string) => ['high', { ...page, anchor, height: '250', screen: '640' }];
    expect(banner({ size: 'medium-rectangle', anchor: 'top' })).toEqual([high('top')]);
    expect(banner({ size: 'medium-rectangle' }, { heldAt: 'bottom-edge' })).toEqual([high('bottom')]);
    expect(banner({ size: 'medium-rectangle' })).toEqual([]);
    expect(banner({ size: 'medium-rectangle', anchor: 'inline' })).toEqual([]);
    const fifth = { screen: { width: 640, height: 500 } };
    expect(banner({ size: 'large', anchor: 'top' }, fifth)).toEqual([]);
    expect(banner({ size: 'large', anchor: 'top' }, { screen: { width: 640, height: 499 } })).toHaveLength(1);
  });

  it('is told where it covers the navigation', () => {
    expect(banner({}, { covers: 'the tab bar' })).toEqual([
      ['covers', { ...page, navigation: 'the tab bar' }, {}, 'layout'],
    ]);
    expect(told(bannerDoesNotFit, seen({ covers: 'the tab bar' }))).toEqual([]);
  });
});

describe('a cap', () => {
  const capped = (cap: object | undefined, ...times: number[]) =>
    told(capNotKept, seen({ settings: { cap }, ...events('impression', ...times) }));

  it('is told where more is shown in any stretch of its length', () => {
    const over = (shown: string, per: string) => ['over', { ...page, per, cap: '2' }, { shown }];
    expect(capped({ count: 2, per: '1m' }, 0, 70_000, 90_000, 129_999)).toEqual([over('3', '1m')]);
    expect(capped({ count: 2, per: '1m' }, 0, 70_000, 90_000, 130_000)).toEqual([]);
    expect(capped({ count: 2 }, 0, 900_000, 9_000_000)).toEqual([over('3', 'a session')]);
    expect(capped({ count: 2 }, 0, 900_000)).toEqual([]);
    expect(capped({ count: 2 })).toEqual([]);
    expect(capped(undefined, 0, 1, 2, 3)).toEqual([]);
    expect(told(capNotKept, seen({ settings: { cap: { count: 2 } }, ...events('show', 0, 1, 2) }))).toEqual(
      [],
    );
  });

  it('counts what all networks of the placement show in one variant', () => {
    const settings = { cap: { count: 1 } };
    const [one, other] = [5, 3].map((at) => seen({ settings, ...events('impression', at) }));
    expect(told(capNotKept, one!, { ...other!, network: 'marlstone' })).toEqual([
      ['over', { ...page, per: 'a session', cap: '1' }, { shown: '2' }],
    ]);
    expect(told(capNotKept, one!, { ...other!, variants: ['release'] })).toEqual([]);
    expect(told(capNotKept, one!, { ...other!, placement: 'footer' } as Fact)).toEqual([]);
  });
});

describe('a second network', () => {
  const settings = { fallback: ['cobalt-heron', 'marlstone'], timeout: '2s' };
  const failed = (what = 'no-fill', more: object = {}) =>
    seen({
      settings,
      verdict: { is: 'no-ad' },
      events: [event(1_000, 'request'), event(1_500, what)],
      ...more,
    });
  const second = (at?: number, is = 'no-ad', more: object = {}) =>
    seen({
      settings,
      network: 'marlstone',
      verdict: { is },
      events: [event(0, 'load'), ...(at === undefined ? [] : [event(at, 'request')])],
      ...more,
    });
  const data = { ...page, first: 'Cobalt Heron', next: 'Marlstone' };

  it('is told where it is never asked', () => {
    expect(reports(fallbackTooLate, failed(), second())).toEqual([{ ...where, message: 'never', data }]);
    for (const what of ['refused', 'failed', 'timed-out', 'capped'])
      expect(told(fallbackTooLate, failed(what), second())).toEqual([['never', data]]);
    expect(told(fallbackTooLate, failed('filled'), second())).toEqual([]);
  });

  it('is told where it is asked after the timeout', () => {
    expect(reports(fallbackTooLate, failed(), second(3_001))).toEqual([
      { ...where, message: 'late', data: { ...data, timeout: '2s' }, changing: { time: '2.0 s' } },
    ]);
    expect(told(fallbackTooLate, failed(), second(3_000))).toEqual([]);
    // Without a request of the first, the time counts from its failure.
    const unasked = failed('failed', { events: [event(1_500, 'failed')] });
    expect(told(fallbackTooLate, unasked, second(3_500))).toEqual([]);
    expect(told(fallbackTooLate, unasked, second(3_501))).toHaveLength(1);
    // It came in the end, and nobody set a limit.
    expect(told(fallbackTooLate, failed(), second(9_000, 'shown'))).toEqual([]);
    const unlimited = { settings: { fallback: settings.fallback } };
    expect(told(fallbackTooLate, failed('no-fill', unlimited), second(9_000))).toEqual([]);
  });

  it('is nothing where there is no fallback, or the first one is shown', () => {
    expect(told(fallbackTooLate, failed())).toEqual([]);
    for (const fallback of [undefined, ['cobalt-heron']])
      expect(told(fallbackTooLate, failed('no-fill', { settings: { fallback } }), second())).toEqual([]);
    expect(told(fallbackTooLate, failed('no-fill', { verdict: { is: 'shown' } }), second())).toEqual([]);
  });
});

describe('a screen that is gone', () => {
  it('is told of what stays: the ad, the listener, or both', () => {
    const both = seen({ events: [event(1, 'listener-kept'), event(2, 'kept')] });
    expect(told(keptAfterScreen, both)).toEqual([
      ['ad', page],
      ['listener', page],
    ]);
    expect(told(keptAfterScreen, seen(events('kept', 1)))).toEqual([['ad', page]]);
    expect(told(keptAfterScreen, seen(events('listener-kept', 1)))).toEqual([['listener', page]]);
    expect(reports(keptAfterScreen, seen(events('listener-kept', 1)))).toMatchObject([where]);
    expect(told(keptAfterScreen, seen(events('released', 1)))).toEqual([]);
  });
});

describe('a list', () => {
  const list = (settings: object, more: object = {}) => seen({ format: 'native', settings, ...more });
  const other = { placement: 'feed' };

  it('is told where ads of two placements meet', () => {
    const told2 = (one: Fact, two: Fact) => told(listAdsMeet, one, two);
    const meet = (item: string) => [['meet', { ...page, other: 'feed', item }]];
    expect(told2(list({ first: 4, every: 6 }), list({ first: 10, every: 50 }, other))).toEqual(meet('10'));
    expect(told2(list({ first: 4, every: 6 }), list({ every: 5 }, other))).toEqual(meet('10'));
    expect(reports(listAdsMeet, list({ every: 5 }), list({ every: 5 }, other))).toMatchObject([where]);
    expect(told2(list({ first: 1, every: 2 }), list({ every: 2 }, other))).toEqual([]);
    expect(told2(list({ first: 200 }), list({ first: 200 }, other))).toEqual(meet('200'));
    expect(told2(list({ first: 201 }), list({ first: 201 }, other))).toEqual([]);
    expect(told2(list({ every: 5 }), list({ every: 5 }, { ...other, format: 'banner' }))).toEqual([]);
    expect(told2(list({ every: 5 }), list({ every: 5 }, { ...other, place: place('B.kt') }))).toEqual([]);
    expect(told2(list({ every: 5 }), list({ every: 5 }, { ...other, variants: ['release'] }))).toEqual([]);
    expect(told2(list({ every: 5 }), list({ every: 5 }, { ...other, place: place('') }))).toEqual([]);
    const unknown = { place: place('') };
    expect(told2(list({ every: 5 }, unknown), list({ every: 5 }, { ...other, ...unknown }))).toEqual([]);
  });

  it('is told where it begins with an ad', () => {
    expect(told(listFirstTooEarly, list({ first: 0 }))).toEqual([['early', page]]);
    for (const one of [list({ first: 1 }), list({}), seen({ settings: { first: 0 } })])
      expect(told(listFirstTooEarly, one)).toEqual([]);
  });

  it('is told where three ads or more are loaded at one time', () => {
    const loads = (...rows: [number, number?][]) =>
      told(listLoadedAtOnce, list({}, { events: rows.map(([at, row]) => event(at, 'load', { row })) }));
    expect(loads([5, 0], [5, 4], [5, 8], [6, 12])).toEqual([['many', { ...page, count: '3' }]]);
    expect(loads([5, 0], [5, 4], [6, 8])).toEqual([]);
    expect(loads([5], [5], [5])).toEqual([]);
    const bound = [0, 4, 8].map((row) => event(5, 'row-bound', { row }));
    expect(told(listLoadedAtOnce, list({}, { events: bound }))).toEqual([]);
  });

  it('is told of a row that still shows the ad of another', () => {
    const reused = (row?: number) => [event(1, 'load', { row: 2 }), event(3, 'row-reused', { row })];
    expect(told(listRowReused, list({}, { events: reused(7) }))).toEqual([['reused', { ...page, row: '7' }]]);
    expect(told(listRowReused, list({}, { events: reused() }))).toEqual([['reused', { ...page, row: '0' }]]);
  });
});

describe('an ad that nobody sees', () => {
  const never = (more: object = {}) => seen({ verdict: { is: 'never-requested' }, ...more });
  const elsewhere = { network: 'marlstone' };

  it('is never asked for: no code does, or it does not run', () => {
    expect(reports(neverRequested, never({ place: place('') }))).toEqual([
      { ...where, place: null, message: 'code', data: page },
    ]);
    expect(reports(neverRequested, never())).toEqual([
      { ...where, message: 'reach', mend: 'reach', data: page },
    ]);
  });

  it('is asked for on no network, and told once', () => {
    const nowhere = { place: place('') };
    const both = [never(nowhere), never({ ...elsewhere, ...nowhere })];
    expect(reports(neverRequested, ...both)).toEqual([
      { ...where, network: null, place: null, message: 'code', data: page },
    ]);
    // The code that names it is for the second network.
    expect(reports(neverRequested, never(nowhere), never({ ...elsewhere, place: place('M.kt', 2) }))).toEqual(
      [{ ...where, network: null, place: place('M.kt', 2), message: 'reach', mend: 'reach', data: page }],
    );
    expect(told(neverRequested, never(), seen(elsewhere))).toEqual([]);
  });

  it('is loaded and never shown, by no network', () => {
    const unseen = seen({ verdict: { is: 'never-shown' }, ...elsewhere });
    expect(reports(neverShown, seen({ verdict: { is: 'no-ad' } }), unseen)).toEqual([
      { ...where, ...elsewhere, message: 'unseen', data: page },
    ]);
    expect(told(neverShown, unseen, seen())).toEqual([]);
    expect(told(neverShown, seen({ verdict: { is: 'no-ad' } }))).toEqual([]);
  });
});

describe('a user', () => {
  it('gets no further', () => {
    const stuck = (more: object = {}) =>
      told(noWayForward, seen({ events: [event(1, 'tap'), event(61_600, 'stuck', more)] }));
    const said = (reason: string) => [['stuck', { ...page, reason }, { time: '1 min 2 s' }]];
    expect(stuck({ text: 'the ad failed' })).toEqual(said('the ad failed'));
    expect(stuck()).toEqual(said(''));
  });

  it('of the team clicks an ad that earns money', () => {
    const click = (stage: string, ...all: object[]) => told(productionClicked, seen({ stage, events: all }));
    const real = event(2, 'click', { test: false });
    const said = [['clicked', { ...page, network: 'Cobalt Heron' }]];
    expect(click('test', event(1, 'click', { test: true }), real)).toEqual(said);
    expect(click('production', real)).toEqual([]);
    expect(click('test', event(1, 'click', { test: true }))).toEqual([]);
    expect(click('test', event(1, 'impression', { test: false }))).toEqual([]);
  });

  it('is rewarded for an ad that was not watched to its end', () => {
    const ad = (what: string, number?: number) => event(1, what, { ad: number });
    const rewarded = (...all: object[]) => told(rewardWithoutCompletion, seen({ events: all }));
    expect(rewarded(ad('complete', 1), ad('reward', 1), ad('reward', 2))).toEqual([['early', page]]);
    expect(rewarded(ad('reward', 1), ad('complete', 1))).toEqual([]);
    expect(rewarded(ad('skip', 1), ad('reward', 1))).toEqual([['early', page]]);
    expect(rewarded(ad('complete', 1), ad('complete', 2), ad('reward', 2))).toEqual([]);
  });

  it('comes back to an ad, more than once', () => {
    const again = (...reasons: (string | undefined)[]) =>
      told(shownOnReturn, seen({ events: reasons.map((because, at) => event(at, 'show', { because })) }));
    expect(again('return', 'tap', 'return')).toEqual([['again', page, { times: '2' }]]);
    expect(again('return', 'tap', undefined)).toEqual([]);
    const loads = [1, 2].map((at) => event(at, 'load', { because: 'return' }));
    expect(told(shownOnReturn, seen({ events: loads }))).toEqual([]);
  });
});

describe('a request', () => {
  it('is refreshed faster than the network allows', () => {
    const banner = (...all: [number, string][]) =>
      told(refreshTooFast, seen({ format: 'banner', events: all.map(([at, what]) => event(at, what)) }));
    const data = { ...page, network: 'Cobalt Heron', least: '30s' };
    expect(banner([0, 'show'], [29_900, 'refresh'], [60_000, 'refresh'])).toEqual([
      ['fast', { ...data, time: '29.9 s' }],
    ]);
    expect(banner([0, 'show'], [45_000, 'refresh'], [55_000, 'refresh'])).toEqual([
      ['fast', { ...data, time: '10.0 s' }],
    ]);
    expect(banner([0, 'show'], [30_000, 'refresh'])).toEqual([]);
    expect(banner([0, 'refresh'])).toEqual([]);
    // Shown again by another screen: that is no refresh.
    expect(banner([0, 'show'], [10, 'show'], [20, 'impression'], [30_010, 'refresh'])).toEqual([]);
    expect(told(refreshTooFast, seen(events('refresh', 0, 1)))).toEqual([]);
    expect(told(refreshTooFast, seen({ format: 'unheard', ...events('refresh', 0, 1) }))).toEqual([]);
  });

  it('is refused, with what the network says', () => {
    const refused = (more: object) =>
      told(refusedRequest, seen({ events: [event(1, 'request'), event(2, 'refused', more)] }));
    const data = { ...page, network: 'Cobalt Heron', id: 'cobalt-heron' };
    expect(refused({ code: 'unit-paused', text: 'It is paused.' })).toEqual([
      ['refused', data, { reason: 'It is paused.' }, 'unit-paused'],
    ]);
    expect(refused({})).toEqual([['refused', data, { reason: '' }]]);
    expect(reports(refusedRequest, seen(events('refused', 1)))[0]).not.toHaveProperty('mend');
  });

  it('is made too early', () => {
    const early = (...before: (string[] | undefined)[]) =>
      told(
        requestedTooEarly,
        seen({ events: before.map((gates, at) => event(at, 'request', { before: gates })) }),
      );
    const data = { ...page, network: 'Cobalt Heron' };
    expect(early(undefined, ['start'])).toEqual([['start', data]]);
    expect(early(['consent'])).toEqual([['consent', data, {}, 'consent']]);
    expect(early(['consent'], ['start', 'consent'])).toEqual([
      ['start', data],
      ['consent', data, {}, 'consent'],
    ]);
    expect(early(undefined, [])).toEqual([]);
  });
});
