import { describe, expect, it } from 'vitest';
import { junitXml } from '../../../src/core/checks/junit-report.js';
import type { CheckContext, CheckReport, Finding } from '../../../src/core/checks/model.js';
import {
  countText,
  fromTallied,
  lastDay,
  mayBeLeftOut,
  namesOf,
  networkOf,
  percentText,
  releaseBefore,
  reportingUnits,
  servingDelay,
  sisterOf,
  talliedUnits,
} from '../../../src/core/checks/tally-scope.js';
import type { Profile } from '../../../src/core/network/model.js';
import { readXml } from '../../../src/core/formats/xml/read.js';
import { readDay } from '../../../src/core/tally/days.js';
import type { TallyHistory, UnitHistory } from '../../../src/core/tally/history.js';
import { findingOf } from '../../support/findings.js';
import { kelp, placement, profileOf, profiles } from '../../support/titles.js';

const [android, ios] = ['CH-U-310772-AAAA1111', 'CH-U-310772-AAAA2222'];
const day = (text: string) => readDay(text)!;
const unit = (id: string, more: Partial<UnitHistory> = {}): UnitHistory => ({
  network: 'cobalt-heron',
  unit: id,
  app: '',
  owner: { platform: 'android' } as UnitHistory['owner'],
  appTitle: null,
  from: day('2026-05-01'),
  asked: [0, null, 5, 0],
  matched: [],
  impressions: [],
  revenue: [],
  currency: 'EUR',
  ...more,
});
const tallyOf = (more: Partial<TallyHistory> = {}): TallyHistory => ({
  units: [],
  apps: [],
  last: [{ network: 'cobalt-heron', day: day('2026-05-04') }],
  inTables: [],
  releases: [],
  former: [],
  lacksAppAds: [],
  ...more,
});
const contextOf = (tally: TallyHistory | undefined, more: Partial<CheckContext> = {}) =>
  ({
    title: kelp({ placements: { footer: placement('banner', android, ios) } }),
    profiles,
    tally,
    ...more,
  }) as unknown as CheckContext;

describe('the units that have numbers', () => {
  it('are the production units of the title at networks that have reported', () => {
    const mine = unit(android);
    const context = contextOf(
      tallyOf({ units: [unit(android, { network: 'marlstone' }), unit('CH-U-310772-OTHER000'), mine] }),
    );
    expect(
      talliedUnits(context).map(({ name, platform, profile, unit: id, history, last }) => [
        name,
        platform,
        profile.id,
        id,
        history,
        last,
      ]),
    ).toEqual([
      ['footer', 'android', 'cobalt-heron', android, mine, day('2026-05-04')],
      ['footer', 'ios', 'cobalt-heron', ios, undefined, day('2026-05-04')],
    ]);
    expect(reportingUnits(context).map(({ platform }) => platform)).toEqual(['android']);
  });

  it.each<[string, CheckContext]>([
    ['a title', contextOf(tallyOf(), { title: null })],
    ['numbers', contextOf(undefined)],
    ['a report of the network', contextOf(tallyOf({ last: [] }))],
    [
      'production units',
      contextOf(tallyOf(), {
        title: kelp({
          placements: {
            a: { format: 'banner', settings: {}, units: { 'cobalt-heron': { android: { test: android } } } },
          },
        }),
      }),
    ],
    [
      'an edition',
      contextOf(tallyOf(), {
        title: kelp({ editions: {}, placements: { footer: placement('banner', android, ios) } }),
      }),
    ],
  ])('are none without %s', (_, context) => {
    expect(talliedUnits(context)).toEqual([]);
  });

  it('are named for reports and messages', () => {
    const [, other] = talliedUnits(contextOf(tallyOf()));
    expect(fromTallied(other!)).toEqual({ platform: 'ios', network: 'cobalt-heron', placement: 'footer' });
    expect(namesOf(other!)).toEqual({ placement: 'footer', on: 'iOS', network: 'Cobalt Heron' });
    expect([
      networkOf(contextOf(undefined), { network: 'marlstone' }),
      lastDay(tallyOf(), 'marlstone'),
    ]).toEqual(['Marlstone', undefined]);
    expect([percentText(0.126), countText(1_234.5), sisterOf('ios'), sisterOf('android')]).toEqual([
      '13 %',
      '1,235',
      'android',
      'ios',
    ]);
  });
});

describe('a unit whose app a table may lack', () => {
  const may = (more: Partial<TallyHistory>, since = '2026-05-03') => {
    const context = contextOf(tallyOf({ inTables: ['cobalt-heron'], ...more }));
    return mayBeLeftOut(context, talliedUnits(context)[0]!, day(since));
  };

  it('is one of a network that is known from tables alone, where nothing of its platform asked since', () => {
    expect(may({})).toBe(true);
    expect(may({ inTables: ['marlstone'] })).toBe(false);
    expect(may({ units: [unit(android)] })).toBe(false);
    expect(may({ units: [unit(android)] }, '2026-05-04')).toBe(true);
    expect(may({ units: [unit(android, { asked: [9, 9, 0, null] })] })).toBe(true);
    expect(may({ units: [unit(android, { network: 'marlstone' })] })).toBe(true);
    expect(may({ units: [unit(android, { owner: { platform: 'ios' } as UnitHistory['owner'] })] })).toBe(
      true,
    );
    expect(may({ units: [unit(android, { owner: null })] })).toBe(true);
  });
});

describe('the release before a day', () => {
  const release = (platform: 'android' | 'ios', version: string, at: string) =>
    ({ platform, version, day: day(at) }) as TallyHistory['releases'][number];
  const context = contextOf(
    tallyOf({
      releases: [
        release('android', '1.0', '2026-05-01'),
        release('android', '2.0', '2026-05-03'),
        release('ios', '9.0', '2026-05-04'),
        release('android', '3.0', '2026-05-06'),
      ],
    }),
  );
  const before = (at: string, within: number) => releaseBefore(context, 'android', day(at), within)?.version;

  it('is the nearest of its platform, at most so many days before', () => {
    expect([
      before('2026-05-05', 7),
      before('2026-05-03', 0),
      before('2026-05-05', 2),
      before('2026-05-05', 1),
      before('2026-04-30', 7),
    ]).toEqual(['2.0', '2.0', '2.0', undefined, undefined]);
    expect(releaseBefore(context, 'android', day('2026-05-02'), 7)).toEqual({
      platform: 'android',
      version: '1.0',
      day: day('2026-05-01'),
      text: '2026-05-01',
    });
    expect(releaseBefore(contextOf(undefined), 'android', day('2026-05-02'), 7)).toBe(undefined);
  });
});

it.each([
  [undefined, 1],
  ['1h', 1],
  ['1d', 1],
  ['25h', 2],
  ['2d', 2],
])('a unit that serves after %s is waited for %i days', (delay, days) => {
  expect(servingDelay({ ...profileOf('cobalt-heron'), 'serving-delay': delay } as Profile)).toBe(days);
});

describe('a check as JUnit XML', () => {
  const finding = (more: Partial<Finding> = {}) => findingOf({ variants: ['debug', 'release'], ...more });
  const cases = (findings: Finding[], failOn?: Parameters<typeof junitXml>[2], rules: string[] = []) => {
    const xml = junitXml({ findings } as CheckReport, rules, failOn);
    const root = readXml(xml).root!;
    return root.children.flatMap((suite) =>
      'children' in suite
        ? suite.children.flatMap((one) => {
            if (!('children' in one)) return [];
            const attribute = (of: typeof one, name: string) =>
              of.attributes.find((each) => each.name === name)?.value;
            const inner = one.children.find((each) => 'children' in each);
            return [
              {
                suite: attribute(suite, 'name'),
                name: attribute(one, 'name'),
                is: inner && 'name' in inner ? inner.name : 'passed',
                said: inner && 'attributes' in inner ? attribute(inner, 'message') : undefined,
              },
            ];
          })
        : [],
    );
  };

  it('has a case for each finding, and one for each rule that found nothing', () => {
    expect(cases([finding()], 'note', ['app-id/missing', 'unit-id/unknown'])).toEqual([
      { suite: 'app-id', name: 'app-id/missing at a.xml:3:5 (f1)', is: 'failure', said: 'It is missing.' },
      { suite: 'unit-id', name: 'unit-id/unknown', is: 'passed', said: undefined },
    ]);
    expect(cases([finding({ place: null })])[0]?.name).toBe('app-id/missing (f1)');
    expect(junitXml({ findings: [finding()] } as CheckReport, [])).toContain(
      'a.xml:3:5&#10;android debug, release&#10;Add it.',
    );
  });

  it.each([
    ['note', ['failure', 'failure', 'failure']],
    ['warning', ['failure', 'failure', 'skipped']],
    ['blocker', ['failure', 'skipped', 'skipped']],
    ['never', ['skipped', 'skipped', 'skipped']],
  ] as const)('fails at %s and above', (failOn, expected) => {
    const all = (['blocker', 'warning', 'note'] as const).map((severity) =>
      finding({ severity, fingerprint: severity }),
    );
    expect(cases(all, failOn).map(({ is }) => is)).toEqual(expected);
  });

  it('skips what was accepted, until its day is past', () => {
    const accepted = { reason: 'known', until: '2026-06-01', who: 'ana', ended: false };
    expect(cases([finding({ accepted })])[0]).toMatchObject({
      is: 'skipped',
      said: 'Accepted until 2026-06-01 by ana: known',
    });
    expect(cases([finding({ accepted: { ...accepted, ended: true } })])[0]?.is).toBe('failure');
    expect(cases([finding({ severity: 'note' })], 'warning')[0]?.said).toBe('note: It is missing. Add it.');
  });
});
