import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TraceEvent } from '../../../src/core/facts/trace.js';
import type { App, AppCall, AppNetwork, AppSlot, Trigger } from '../../../src/core/rehearsal/app/model.js';
import type { Answer, Question } from '../../../src/core/rehearsal/device/questions.js';
import { rehearse, rehearseWith } from '../../../src/core/rehearsal/device/rehearse.js';
import type { Scenario } from '../../../src/core/rehearsal/scenario/model.js';
import { impossibleSteps } from '../../../src/core/rehearsal/scenario/read.js';
import { Scenario as ScenarioSchema } from '../../../src/core/rehearsal/scenario/model.js';
import { formatNames } from '../../../src/core/words/names.js';
import { durationMs } from '../../../src/core/words/durations.js';
import type { Format } from '../../../src/core/words/words.js';
import { scenarioNamed } from '../../support/rehearsal.js';

const triggers: Trigger[] = [
  'launch',
  'open',
  'return',
  'tap',
  'row',
  'started',
  'loaded',
  'failed',
  'retry',
  'closed',
  'leave',
];
const screens = ['one', 'two', 'three'];
const networks = ['north', 'south'];
const place = { path: 'a', line: 1, column: 1 };

const call = (order: number): fc.Arbitrary<AppCall> =>
  fc
    .record({
      triggers: fc.uniqueArray(fc.constantFrom(...triggers), { minLength: 1, maxLength: 3 }),
      screen: fc.constantFrom(...screens),
      isOfApp: fc.boolean(),
      follows: fc.subarray<'start' | 'consent'>(['start', 'consent']),
      isAwaited: fc.boolean(),
      isLooped: fc.boolean(),
    })
    .map((one) => ({ call: 'Ads.go', place, order, ...one }));

const settings = fc.record(
  {
    refresh: fc.constantFrom('managed' as const, 'off' as const, '30s', '45s'),
    cap: fc.constantFrom({ count: 1, per: '10m' }, { count: 1, per: '10m' }, { count: 2, per: '1m' }),
    skippable: fc.boolean(),
    timeout: fc.constantFrom('1s', '8s'),
    first: fc.integer({ min: 0, max: 5 }),
    every: fc.integer({ min: 1, max: 9 }),
  },
  { requiredKeys: [] },
);

const slot = (network: string, placement: string, format: Format): fc.Arbitrary<AppSlot> =>
  fc
    .record({
      screen: fc.constantFrom(...screens),
      unit: fc.option(fc.constant(`unit-${placement}`), { freq: 8 }),
      settings,
      load: fc.option(call(1), { freq: 8 }),
      show: fc.option(call(2), { freq: 6 }),
      isOpen: fc.boolean(),
      isShownByCall: fc.boolean(),
      checksReady: fc.boolean(),
      keepsCap: fc.boolean(),
      limitedBy: fc.option(fc.constant('returns > 3')),
      handles: fc.record({ failed: fc.boolean(), closed: fc.boolean(), rewarded: fc.boolean() }),
      release: fc.oneof(fc.constant('missing' as const), fc.constant(null), call(3)),
      keepsListener: fc.boolean(),
    })
    .map((one) => ({
      network,
      placement,
      format,
      whyNoUnit: null,
      heldAt: undefined,
      covers: undefined,
      ...one,
      ...(one.load ? { screen: one.load.screen } : {}),
    }));

const network = (id: string): fc.Arbitrary<AppNetwork> =>
  fc
    .record({
      startUp: fc.option(call(0), { freq: 8 }),
      needsStart: fc.boolean(),
      startsAfter: fc.constantFrom(null, null, 'north', 'south'),
      takesTime: fc.boolean(),
      stopsWithoutAppId: fc.boolean(),
      appId: fc.constantFrom<AppNetwork['appId']>(
        { is: 'known', value: 'app' },
        { is: 'known', value: 'app' },
        { is: 'not-needed' },
        { is: 'missing' },
      ),
      consent: fc.option(call(0)),
      consentFirst: fc.boolean(),
      registersDevices: fc.boolean(),
      keeps: fc.option(fc.constant(60_000)),
      managedRefresh: fc.option(fc.constant(60_000)),
      cap: fc.integer({ min: 1, max: 4 }),
      per: fc.constantFrom(60_000, 3_600_000),
    })
    .map(({ cap, per, ...one }) => ({
      id,
      name: id,
      asked: 'openrtb',
      caps: new Map(formatNames.map((format) => [format, { max: cap, per }] as const)),
      ...one,
    }));

const app: fc.Arbitrary<App> = fc
  .uniqueArray(fc.constantFrom(...formatNames), { minLength: 1, maxLength: 4 })
  .chain((formats) =>
    fc.record({
      networks: fc.tuple(network('north'), network('south')),
      slots: fc
        .tuple(
          ...formats.flatMap((format, index) => networks.map((id) => slot(id, `${format}-${index}`, format))),
        )
        .map((all) => [...all]),
      recreatesOnTurn: fc.boolean(),
      platform: fc.constantFrom('android' as const, 'ios' as const),
    }),
  )
  .map((one) => ({
    title: 'kelp',
    module: ':app',
    variant: 'debug',
    stage: 'test' as const,
    identifier: 'example.brine.kelp',
    screens: screens.map((id) => ({ id, name: id })),
    ...one,
  }));

const after = fc.constantFrom('0', '100ms', '3s', '40s');
const action = fc.oneof(
  fc.record({ do: fc.constantFrom('tap' as const, 'rotate' as const, 'wait' as const), after }),
  fc.record({ do: fc.constant('leave' as const), after, for: fc.constantFrom('1s', '30s') }),
  fc.record({ do: fc.constant('scroll' as const), after, rows: fc.integer({ min: 1, max: 60 }) }),
);
const visit = fc.record({
  do: fc.constant('visit' as const),
  after,
  each: fc.array(action, { maxLength: 6 }),
  repeat: fc.integer({ min: 1, max: 3 }),
});
const scenario: fc.Arbitrary<Scenario> = fc
  .record({
    user: fc.record({
      consent: fc.constantFrom('granted' as const, 'refused' as const, 'ignored' as const),
      ads: fc.constantFrom('watch' as const, 'skip' as const, 'click' as const),
    }),
    network: fc.record({
      latency: fc.constantFrom('1ms', '400ms', '20s'),
      lost: fc.constantFrom(0, 0, 30),
      fill: fc.constantFrom('as-answered' as const, 'none' as const),
    }),
    steps: fc
      .array(fc.oneof(visit, action, fc.constantFrom({ do: 'answer' as const }, { do: 'kill' as const })), {
        maxLength: 8,
      })
      .map((steps) => [
        { do: 'launch' as const },
        ...steps.flatMap((step): object[] =>
          step.do === 'kill' ? [step, { do: 'launch', after: '1s' }] : [step],
        ),
      ]),
  })
  .map((one) => ScenarioSchema.parse({ scenario: 1, name: 'Made', about: 'A made scenario.', ...one }));

const answers = fc.array(
  fc.constantFrom<Answer>(
    { is: 'filled', ad: 'an-ad', test: true },
    { is: 'filled', ad: 'an-ad', test: false, seconds: 6 },
    { is: 'no-fill' },
    { is: 'refused', code: 'unit-paused', text: 'It is paused.' },
    { is: 'unreachable', text: 'The connection was reset.' },
  ),
  { minLength: 1, maxLength: 7 },
);
const inTurn = (all: readonly Answer[]) => {
  let turn = 0;
  return ({ asks }: Question): Answer =>
    asks === 'event' ? { is: 'noted' } : (all[turn++ % all.length] ?? { is: 'no-fill' });
};

const runs = fc.record({ app, scenario, answers, seed: fc.integer({ min: 0, max: 2 ** 31 }) });
const traceOf = ({
  app,
  scenario,
  answers,
  seed,
}: typeof runs extends fc.Arbitrary<infer Run> ? Run : never) =>
  rehearse({ app, scenario, seed }, inTurn(answers)).trace;

const of = (trace: readonly TraceEvent[], ...what: TraceEvent['what'][]) =>
  trace.filter((event) => what.includes(event.what));

const filled = inTurn([{ is: 'filled', ad: 'a', test: true }]);

/** Placements that cover the screen, and whose code keeps one cap for all networks. */
function capped({ slots }: App): { slot: string; cap: { count: number; per: string } }[] {
  return [...new Set(slots.map(({ placement }) => placement))].flatMap((name) => {
    const mine = slots.filter(({ placement }) => placement === name);
    const isKept = mine.every(
      ({ keepsCap, isShownByCall, format }) =>
        keepsCap &&
        isShownByCall &&
        (format === 'interstitial' || format === 'rewarded' || format === 'splash'),
    );
    const caps = mine.map(({ settings: { cap } }) => cap);
    const [first] = caps;
    const isOne = caps.every((cap) => JSON.stringify(cap) === JSON.stringify(first));
    return isKept && isOne && first?.per !== undefined
      ? [{ slot: name, cap: { count: first.count, per: first.per } }]
      : [];
  });
}

describe('a simulated device', () => {
  it('never sets its clock back', () => {
    fc.assert(
      fc.property(runs, (run) => {
        const times = traceOf(run).map(({ at }) => at);
        expect(times).toEqual([...times].sort((a, b) => a - b));
      }),
      { numRuns: 400 },
    );
  });

  it('shows each ad after one load that was filled, once, with quartiles in order and one reward', () => {
    let shown = 0;
    fc.assert(
      fc.property(runs, (run) => {
        const trace = traceOf(run);
        for (const impression of of(trace, 'impression')) {
          const mine = trace.filter(
            ({ ad, network, placement }) =>
              ad === impression.ad && network === impression.network && placement === impression.placement,
          );
          const names = mine.map(({ what }) => what);
          const before = mine.slice(0, mine.indexOf(impression));
          expect(names.filter((name) => name === 'filled')).toHaveLength(1);
          expect(before.map(({ what }) => what)).toContain('filled');
          expect(names.filter((name) => name === 'impression')).toHaveLength(1);
          expect(names.filter((name) => name === 'reward').length).toBeLessThanOrEqual(1);
          const quartiles = names.filter((name) => quartileNames.includes(name));
          expect(quartiles).toEqual(quartileNames.slice(0, quartiles.length));
          expect(names.includes('skip') && names.includes('complete')).toBe(false);
          shown++;
        }
      }),
      { numRuns: 400 },
    );
    expect(shown).toBeGreaterThan(20);
  });

  it('asks as often as the network is asked: a request for each fill', () => {
    fc.assert(
      fc.property(runs, (run) => {
        const trace = traceOf(run);
        for (const id of networks) {
          const requests = of(trace, 'request').filter(({ network }) => network === id);
          const filled = of(trace, 'filled').filter(({ network }) => network === id);
          expect(filled.length).toBeLessThanOrEqual(requests.length);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('never shows more than a network allows, nor than a code that keeps its cap', () => {
    fc.assert(
      fc.property(runs, (run) => {
        const impressions = of(traceOf(run), 'impression');
        const within = (events: readonly TraceEvent[], per: number) =>
          Math.max(
            0,
            ...events.map(({ at }) => events.filter((one) => one.at >= at && one.at < at + per).length),
          );
        for (const { id, caps } of run.app.networks)
          for (const [format, { max, per }] of caps) {
            const mine = impressions.filter(
              ({ network, placement }) => network === id && placement?.startsWith(format),
            );
            expect(within(mine, per)).toBeLessThanOrEqual(max);
          }
        for (const { slot, cap } of capped(run.app)) {
          const mine = impressions.filter(({ placement }) => placement === slot);
          expect(within(mine, durationMs(cap.per))).toBeLessThanOrEqual(cap.count);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('does nothing in an app that was stopped or ended, until it is launched again', () => {
    fc.assert(
      fc.property(runs, (run) => {
        let isRunning = false;
        const trace = traceOf(run);
        for (const [at, { what }] of trace.entries()) {
          if (what === 'launch') isRunning = true;
          else if (what === 'stopped' || what === 'killed') isRunning = false;
          else if (['load', 'request', 'show', 'impression', 'filled', 'screen-opened'].includes(what))
            expect([isRunning, at, what]).toEqual([true, at, what]);
        }
      }),
      { numRuns: 1_000 },
    );
  });

  it('gives the same trace for the same seed, also with networks that have to be waited for', async () => {
    await fc.assert(
      fc.asyncProperty(runs, async (run) => {
        const answer = inTurn(run.answers);
        const { trace } = await rehearseWith(run, (question) => Promise.resolve(answer(question)));
        expect(JSON.stringify(trace)).toBe(JSON.stringify(traceOf(run)));
      }),
      { numRuns: 100 },
    );
  });

  it('gives byte-equal traces for a thousand seeds', () => {
    const wanted = scenarioNamed('ten-minutes');
    const made = fc
      .sample(app, { numRuns: 50, seed: 7 })
      .find(
        (one) => of(rehearse({ app: one, scenario: wanted, seed: 1 }, filled).trace, 'impression').length > 5,
      );
    if (!made) throw new Error('Nothing was made.');
    const traces = new Set<string>();
    for (let seed = 0; seed < 1_000; seed++) {
      const once = JSON.stringify(rehearse({ app: made, scenario: wanted, seed }, filled).trace);
      const twice = JSON.stringify(rehearse({ app: made, scenario: wanted, seed }, filled).trace);
      expect(twice).toBe(once);
      traces.add(once);
    }
    expect(traces.size).toBeGreaterThan(900);
  });

  it('is made of scenarios that are possible', () => {
    fc.assert(
      fc.property(scenario, (one) => {
        expect(impossibleSteps(one)).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});

const quartileNames: TraceEvent['what'][] = ['first-quartile', 'midpoint', 'third-quartile', 'complete'];
