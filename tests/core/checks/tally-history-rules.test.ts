import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { appTotalDiffers } from '../../../src/core/checks/rules/tally-app-total-differs.js';
import { fillFallsWithoutLine } from '../../../src/core/checks/rules/tally-fill-falls.js';
import { hardlyShown } from '../../../src/core/checks/rules/tally-hardly-shown.js';
import { askedBeforeRelease } from '../../../src/core/checks/rules/tally-never-released.js';
import { neverMatched } from '../../../src/core/checks/rules/tally-no-match.js';
import { oneSided } from '../../../src/core/checks/rules/tally-one-sided.js';
import { settingInNumbersDiffers } from '../../../src/core/checks/rules/tally-setting-differs.js';
import { placementSilent } from '../../../src/core/checks/rules/tally-silent.js';
import { stepAtRelease } from '../../../src/core/checks/rules/tally-step-at-release.js';
import { testUnitEarns } from '../../../src/core/checks/rules/tally-test-unit-earns.js';
import { twoUnitsAlive } from '../../../src/core/checks/rules/tally-two-units.js';
import { reportedUnitNotOnRecord } from '../../../src/core/checks/rules/tally-unit-not-on-record.js';
import { dayText } from '../../../src/core/tally/days.js';
import type { TallyHistory, UnitHistory } from '../../../src/core/tally/history.js';
import { contextOf, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf } from '../../support/titles.js';

// Histories whose numbers are all round: what the rules make of them can be told by hand.

const network = 'Cobalt Heron';
const last = 20_604;
const [page, pageIos] = ['CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'];
const [footer, footerIos] = ['CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'];
const on = (android: string, ios: string, settings: object = {}, format = 'banner') =>
  placementOf(
    { 'cobalt-heron': { android: { production: android }, ios: { production: ios } } },
    format,
    settings,
  );
const titleWith = (settings: object = {}) =>
  kelp({ placements: { page: on(page, pageIos, settings), footer: on(footer, footerIos) } });

/** So many days of one value each, then so many of another, … up to the last day. */
const days = (...runs: [days: number, value: number | null][]) =>
  runs.flatMap(([count, value]) => Array.from({ length: count }, () => value));
const owned = (stage: string, placement: string | null = 'page', platform = 'android', title = 'kelp') => ({
  title,
  placement,
  platform,
  stage,
});

interface Made extends Partial<Omit<UnitHistory, 'owner'>> {
  owner?: object | null;
}

/** A unit of forty days, on each of which it is asked for 100 times, fills 80, shows 50 and earns 2.00 EUR. */
function unit(id: string, { asked = days([40, 100]), ...more }: Made = {}): UnitHistory {
  const like = (value: number) => asked.map((one) => one && value);
  return {
    network: 'cobalt-heron',
    unit: id,
    app: 'CH-A-310772-QK4T8W2N',
    owner: owned('production'),
    appTitle: 'kelp',
    from: last - asked.length + 1,
    asked,
    matched: like(80),
    impressions: like(50),
    revenue: like(2_000_000),
    currency: 'EUR',
    ...more,
  } as UnitHistory;
}

function tallied(
  units: readonly UnitHistory[],
  more: Partial<TallyHistory> = {},
  title = titleWith(),
): CheckContext {
  const tally: TallyHistory = {
    units,
    apps: [],
    last: [{ network: 'cobalt-heron', day: last }],
    inTables: [],
    releases: [],
    former: [],
    lacksAppAds: [],
    ...more,
  };
  return contextOf([], { title, tally });
}
const told = (rule: Rule, ...given: Parameters<typeof tallied>) => reportsOf(rule, tallied(...given));
const release = (platform: 'android' | 'ios', ago: number, version = '2.0') => ({
  title: 'kelp',
  platform,
  version,
  day: last - ago,
});
const where = { platform: 'android', network: 'cobalt-heron', placement: 'page' };
const names = { placement: 'page', on: 'Android', network };

describe('the total of an app', () => {
  const app = (impressions: (number | null)[], more: object = {}) => ({
    apps: [
      {
        network: 'cobalt-heron',
        app: 'CH-A-310772-QK4T8W2N',
        from: last - impressions.length + 1,
        impressions,
        ...more,
      },
    ],
  });
  const units = [unit(page), unit(footer)];

  it('differs from the sum of its units in the last four weeks', () => {
    expect(told(appTotalDiffers, units, app(days([12, 900], [28, 110])))).toEqual([
      {
        network: 'cobalt-heron',
        message: 'differs',
        data: { network, app: 'CH-A-310772-QK4T8W2N', id: 'cobalt-heron' },
        changing: { total: '3,080', sum: '2,800' },
      },
    ]);
    expect(told(appTotalDiffers, units, app(days([28, 90])))).toMatchObject([
      { changing: { total: '2,520', sum: '2,800' } },
    ]);
    // Days without a total are left out of both sums.
    expect(told(appTotalDiffers, units, app(days([14, null], [14, 110])))).toMatchObject([
      { changing: { total: '1,540', sum: '1,400' } },
    ]);
    expect(told(appTotalDiffers, units, app(days([3, 200])))).toMatchObject([
      { changing: { total: '600', sum: '300' } },
    ]);
    expect(
      told(appTotalDiffers, [unit(page), unit(footer, { app: 'other' })], app(days([28, 100]))),
    ).toMatchObject([{ changing: { sum: '1,400' } }]);
    const elsewhere = [unit(page), unit(footer, { network: 'marlstone' })];
    expect(told(appTotalDiffers, elsewhere, app(days([28, 100])))).toMatchObject([
      { changing: { sum: '1,400' } },
    ]);
  });

  it('is the sum, nearly the sum, or not there', () => {
    for (const each of [100, 102, 98, 0])
      expect(told(appTotalDiffers, units, app(days([28, each])))).toEqual([]);
    expect(told(appTotalDiffers, units, app(days([28, 103])))).toHaveLength(1);
    expect(told(appTotalDiffers, units)).toEqual([]);
    expect(reportsOf(appTotalDiffers, contextOf())).toEqual([]);
  });
});

describe('the share that is answered', () => {
  const fills = (now: number, more: object = {}) =>
    unit(page, {
      asked: days([60, 1_000]),
      matched: days([53, 800], [7, now]),
      ...more,
    });
  const lacking = { lacksAppAds: ['cobalt-heron'] };

  it('falls while app-ads.txt lacks the line', () => {
    expect(told(fillFallsWithoutLine, [fills(600)], lacking)).toEqual([
      { ...where, message: 'falls', data: names, changing: { now: '60 %', before: '80 %' } },
    ]);
    expect(told(fillFallsWithoutLine, [fills(679)], lacking)).toHaveLength(1);
  });

  it('hardly falls, is of few requests, or the line is there', () => {
    expect(told(fillFallsWithoutLine, [fills(680)], lacking)).toEqual([]);
    expect(told(fillFallsWithoutLine, [fills(600)])).toEqual([]);
    expect(told(fillFallsWithoutLine, [fills(600)], { lacksAppAds: ['marlstone'] })).toEqual([]);
    const few = unit(page, { asked: days([60, 70]), matched: days([53, 60], [7, 20]) });
    expect(told(fillFallsWithoutLine, [few], lacking)).toEqual([]);
    const enough = unit(page, { asked: days([60, 72]), matched: days([53, 60], [7, 20]) });
    expect(told(fillFallsWithoutLine, [enough], lacking)).toHaveLength(1);
    expect(reportsOf(fillFallsWithoutLine, contextOf())).toEqual([]);
  });
});

describe('what is shown of what is loaded', () => {
  const shows = (now: number, ago = 2) =>
    unit(page, {
      asked: days([60, 100]),
      matched: days([60, 80]),
      impressions: days([60 - ago, 60], [ago, now]),
    });
  const change = { now: '25 %', before: '75 %' };

  it('drops, or drops when a version goes out', () => {
    expect(told(hardlyShown, [shows(20)])).toEqual([
      { ...where, message: 'dropped', data: names, changing: change },
    ]);
    const data = { ...names, version: '2.0', day: dayText(last - 3) };
    expect(told(hardlyShown, [shows(20)], { releases: [release('android', 3)] })).toEqual([
      { ...where, message: 'release', data, changing: change },
    ]);
    for (const other of [release('android', 6), release('ios', 3), release('android', 0)])
      expect(told(hardlyShown, [shows(20)], { releases: [other] })[0]?.message).toBe('dropped');
    expect(told(hardlyShown, [shows(20)], { releases: [release('android', 5)] })[0]?.message).toBe('release');
    expect(told(hardlyShown, [shows(25)])).toEqual([]);
    expect(told(hardlyShown, [shows(23)])).toHaveLength(1);
  });

  it('is far less than on the other platform', () => {
    const low = unit(page, { impressions: days([40, 9]) });
    const high = unit(pageIos, { owner: owned('production', 'page', 'ios'), impressions: days([40, 40]) });
    expect(told(hardlyShown, [low, high])).toEqual([
      {
        ...where,
        message: 'sister',
        data: { ...names, other: 'iOS' },
        changing: { now: '11 %', before: '50 %' },
      },
    ]);
    expect(told(hardlyShown, [unit(page, { impressions: days([40, 10]) }), high])).toEqual([]);
    expect(told(hardlyShown, [low])).toEqual([]);
    // Few loads of either say nothing.
    const few = { asked: days([40, 40]), matched: days([40, 35]) };
    expect(told(hardlyShown, [unit(page, { ...few, impressions: days([40, 1]) }), high])).toEqual([]);
    expect(told(hardlyShown, [low, unit(pageIos, { ...few, impressions: days([40, 30]) })])).toEqual([]);
    expect(
      told(hardlyShown, [
        unit(page, { matched: days([40, 36]), impressions: days([40, 1]) }),
        unit(pageIos, { matched: days([40, 36]), impressions: days([40, 30]) }),
      ]),
    ).toHaveLength(1);
    // Of another placement.
    expect(told(hardlyShown, [low, unit(footerIos, { impressions: days([40, 40]) })])).toEqual([]);
    expect(told(hardlyShown, [low, unit(footer, { impressions: days([40, 40]) })])).toEqual([]);
  });
});

describe('a platform without a release', () => {
  const both = [unit(page), unit(footer), unit(pageIos)];
  const out = { releases: [release('ios', 20)] };

  it('is asked by production units', () => {
    expect(told(askedBeforeRelease, both, out)).toEqual([
      {
        platform: 'android',
        message: 'asked',
        data: { on: 'Android', other: 'iOS', version: '2.0' },
        changing: { requests: '2,800' },
      },
    ]);
    expect(told(askedBeforeRelease, both, { releases: [release('android', 20, '3.1')] })).toMatchObject([
      {
        platform: 'ios',
        data: { on: 'iOS', other: 'Android', version: '3.1' },
        changing: { requests: '1,400' },
      },
    ]);
  });

  it('is not asked, or all are released, or none', () => {
    expect(told(askedBeforeRelease, [unit(pageIos)], out)).toEqual([]);
    const over = unit(page, { asked: days([26, 100], [14, 0]) });
    expect(told(askedBeforeRelease, [over], out)).toEqual([]);
    expect(told(askedBeforeRelease, [unit(page, { asked: days([26, 0], [14, 1]) })], out)).toHaveLength(1);
    expect(told(askedBeforeRelease, both)).toEqual([]);
    expect(
      told(askedBeforeRelease, both, { releases: [release('ios', 20), release('android', 20)] }),
    ).toEqual([]);
    expect(reportsOf(askedBeforeRelease, contextOf())).toEqual([]);
  });
});

describe('a unit that asks', () => {
  const unmatched = (asked: (number | null)[], more: object = {}) =>
    unit(page, { asked, matched: asked.map((one) => one && 0), impressions: days([40, 0]), ...more });

  it('was never answered', () => {
    expect(told(neverMatched, [unmatched(days([40, 100]))])).toEqual([
      {
        ...where,
        message: 'never',
        data: { ...names, unit: page, id: 'cobalt-heron', delay: '1h' },
        changing: { requests: '4,000', days: '40' },
      },
    ]);
    expect(told(neverMatched, [unmatched(days([3, 34]))])).toHaveLength(1);
    expect(told(neverMatched, [unmatched(days([4, 25]))])).toHaveLength(1);
    const { profiles, ...context } = tallied([unmatched(days([40, 100]))]);
    const undelayed = profiles.map(({ 'serving-delay': _, ...profile }) => profile);
    expect(reportsOf(neverMatched, { ...context, profiles: undelayed as never })[0]?.data).toMatchObject({
      delay: 'no time',
    });
  });

  it('was answered, is new, asks little, or nobody counts the answers', () => {
    expect(told(neverMatched, [unmatched(days([40, 100]), { matched: days([39, 0], [1, 1]) })])).toEqual([]);
    expect(told(neverMatched, [unmatched(days([2, 900]))])).toEqual([]);
    expect(told(neverMatched, [unmatched(days([33, 3]))])).toEqual([]);
    expect(told(neverMatched, [unmatched(days([40, 100]), { matched: days([40, null]) })])).toEqual([]);
  });
});

describe('a placement that earns on one side', () => {
  const earning = unit(pageIos, { owner: owned('production', 'page', 'ios') });
  const poor = (more: object = {}) => unit(page, { revenue: days([40, 0]), ...more });

  it('has never earned anything on the other', () => {
    const report = {
      ...where,
      message: 'nothing',
      data: { ...names, other: 'iOS' },
      changing: { amount: '56.00 EUR' },
    };
    expect(told(oneSided, [poor(), earning])).toEqual([report]);
    // Nothing was ever reported of it.
    expect(told(oneSided, [earning])).toEqual([report]);
    expect(told(oneSided, [earning], { inTables: ['cobalt-heron'] })).toEqual([
      { ...report, message: 'nothingInTables' },
    ]);
    expect(told(oneSided, [poor({ asked: days([14, 100]), revenue: days([14, 0]) }), earning])).toHaveLength(
      1,
    );
  });

  it('earned once, is new, is never answered, or earns nowhere', () => {
    expect(told(oneSided, [poor({ revenue: days([1, 1], [39, 0]) }), earning])).toEqual([]);
    const young = { asked: days([13, 100]), revenue: days([13, 0]) };
    expect(told(oneSided, [poor(young), earning])).toEqual([]);
    expect(told(oneSided, [poor({ matched: days([40, 0]) }), earning])).toEqual([]);
    const former = unit(pageIos, { revenue: days([12, 2_000_000], [28, 0]) });
    expect(told(oneSided, [poor(), former])).toEqual([]);
    expect(told(oneSided, [poor(), unit(footerIos), unit(footer)])).toEqual([]);
    expect(told(oneSided, [])).toEqual([]);
  });
});

describe('a setting in the numbers', () => {
  /** Page asks so often on each platform, and footer a hundred times a day. */
  const asking = (android: number, ios: number) => [
    unit(page, { asked: days([40, android]) }),
    unit(pageIos, { asked: days([40, ios]) }),
    unit(footer),
    unit(footerIos),
  ];
  const data = { placement: 'page', network, on: 'Android', other: 'iOS', setting: '60s' };

  it('is kept on one platform only', () => {
    expect(told(settingInNumbersDiffers, asking(400, 100), {}, titleWith({ refresh: '60s' }))).toEqual([
      { ...where, message: 'refresh', data, changing: { times: '4.0' } },
    ]);
    expect(told(settingInNumbersDiffers, asking(100, 350), {}, titleWith({ refresh: '60s' }))).toEqual([
      {
        ...where,
        platform: 'ios',
        message: 'refresh',
        data: { ...data, on: 'iOS', other: 'Android' },
        changing: { times: '3.5' },
      },
    ]);
    const capped = (cap: object, more: object = {}) =>
      told(settingInNumbersDiffers, asking(400, 100), {}, titleWith({ cap, ...more }));
    expect(capped({ count: 3, per: '1d' })).toMatchObject([
      { message: 'cap', data: { ...data, setting: '3 times in 1d' } },
    ]);
    expect(capped({ count: 3 })).toMatchObject([{ data: { setting: '3 times' } }]);
    // A refresh that the network decides is no number.
    expect(capped({ count: 3 }, { refresh: 'managed' })).toMatchObject([{ message: 'cap' }]);
    expect(capped({ count: 3 }, { refresh: '60s' })).toMatchObject([{ message: 'refresh' }]);
    expect(told(settingInNumbersDiffers, asking(300, 100), {}, titleWith({ refresh: '60s' }))).toHaveLength(
      1,
    );
  });

  it('is kept on both, is no number, or few requests say nothing', () => {
    const title = titleWith({ refresh: '60s' });
    expect(told(settingInNumbersDiffers, asking(299, 100), {}, title)).toEqual([]);
    expect(told(settingInNumbersDiffers, asking(400, 100), {}, titleWith({ refresh: 'off' }))).toEqual([]);
    expect(told(settingInNumbersDiffers, asking(400, 100), {}, titleWith())).toEqual([]);
    expect(told(settingInNumbersDiffers, asking(400, 71), {}, title)).toEqual([]);
    expect(told(settingInNumbersDiffers, asking(400, 72), {}, title)).toHaveLength(1);
    expect(told(settingInNumbersDiffers, asking(400, 100).slice(0, 2), {}, title)).toEqual([]);
    const fewOthers = [...asking(400, 100).slice(0, 3), unit(footerIos, { asked: days([40, 71]) })];
    expect(told(settingInNumbersDiffers, fewOthers, {}, title)).toEqual([]);
    expect(told(settingInNumbersDiffers, asking(400, 0), {}, title)).toEqual([]);
  });
});

describe('a unit that is silent', () => {
  const silent = (...runs: [number, number | null][]) => unit(page, { asked: days(...runs) });

  it('has stopped, with the level before and what is unusual', () => {
    expect(told(placementSilent, [silent([37, 1_000], [3, 0])])).toMatchObject([
      {
        ...where,
        message: 'stopped',
        data: { ...names, since: dayText(last - 2) },
        changing: { days: '3', usual: '1,000', unusual: '2' },
      },
    ]);
    // The usual level is that of the four weeks before it, on days that are known.
    expect(
      told(placementSilent, [silent([30, 9_000], [10, null], [18, 500], [3, 0])])[0]?.changing,
    ).toMatchObject({ usual: '500' });
    const inTables = { inTables: ['cobalt-heron'] };
    expect(told(placementSilent, [silent([37, 100], [3, 0])], inTables)).toMatchObject([
      { message: 'stoppedInTables', changing: { days: '3', usual: '100' } },
    ]);
  });

  it('has never asked, though it was released', () => {
    const never = (ago: number, more: object = {}) =>
      told(placementSilent, [unit(footer)], { releases: [release('android', ago)], ...more }).filter(
        (one) => one.placement === 'page',
      );
    const data = { ...names, version: '2.0', day: dayText(last - 3) };
    expect(never(3)).toEqual([{ ...where, message: 'never', data }]);
    expect(never(2)).toEqual([]);
    const inTables = { inTables: ['cobalt-heron'] };
    expect(told(placementSilent, [], { releases: [release('android', 3)], ...inTables })[0]?.message).toBe(
      'neverInTables',
    );
    expect(told(placementSilent, [])).toEqual([]);
  });

  it('asks', () => {
    expect(told(placementSilent, [silent([40, 100])])).toEqual([]);
    expect(told(placementSilent, [silent([39, 100], [1, 0])])).toEqual([]);
  });
});

describe('a version that loses requests', () => {
  const fell = (ago: number, now: number, id = page) =>
    unit(id, { asked: days([60 - ago, 1_000], [ago, now]) });
  const releases = (ago: number) => ({ releases: [release('android', ago)] });

  it('is told with what is left, and for how long', () => {
    expect(told(stepAtRelease, [fell(5, 400)], releases(5))).toEqual([
      {
        ...where,
        message: 'fell',
        data: { ...names, version: '2.0', day: dayText(last - 5) },
        changing: { left: '40 %', days: '5' },
      },
    ]);
    expect(told(stepAtRelease, [fell(5, 400)], releases(7))).toHaveLength(1);
    expect(told(stepAtRelease, [fell(5, 400)], releases(8))).toEqual([]);
    // The newest that was followed by it.
    const two = {
      releases: [release('android', 7, '1.9'), release('android', 6), release('android', 0, '3')],
    };
    expect(told(stepAtRelease, [fell(5, 400)], two)[0]?.data).toMatchObject({ version: '2.0' });
  });

  it('did not fall with it, fell everywhere, or is silent', () => {
    expect(told(stepAtRelease, [fell(5, 400)], releases(10))).toEqual([]);
    expect(told(stepAtRelease, [fell(5, 400)])).toEqual([]);
    expect(told(stepAtRelease, [fell(5, 400)], { releases: [release('ios', 5)] })).toEqual([]);
    expect(told(stepAtRelease, [fell(5, 900)], releases(5))).toEqual([]);
    expect(told(stepAtRelease, [fell(5, 0)], releases(5))).toEqual([]);
    const ios = [pageIos, footerIos].map((id) => fell(5, 400, id));
    expect(told(stepAtRelease, [fell(5, 400), ...ios], releases(5))).toEqual([]);
    // What others of the same platform do is no excuse: the version may have broken them all.
    expect(told(stepAtRelease, [fell(5, 400), fell(5, 400, footer)], releases(5))).toHaveLength(2);
    expect(told(stepAtRelease, [fell(5, 400)], releases(59))).toEqual([]);
    expect(told(stepAtRelease, [fell(5, 400)], releases(70))).toEqual([]);
    // One that is there for longer is held against the same days.
    const longer = unit(pageIos, { asked: days([35, 1], [60, 1_000]) });
    expect(told(stepAtRelease, [fell(5, 400), longer], releases(5))).toHaveLength(1);
  });
});

describe('units that are not what the record says', () => {
  it('earn for testing', () => {
    const test = unit(page, { owner: owned('test') });
    expect(told(testUnitEarns, [test])).toEqual([
      { ...where, message: 'earns', data: { unit: page, network }, changing: { amount: '56.00 EUR' } },
    ]);
    expect(told(testUnitEarns, [unit(page), unit(page, { owner: null })])).toEqual([]);
    const once = unit(page, { owner: owned('test'), revenue: days([12, 1], [28, 0]) });
    expect(told(testUnitEarns, [once])).toEqual([]);
    expect(reportsOf(testUnitEarns, contextOf())).toEqual([]);
  });

  it('are no longer on record, and still ask', () => {
    const was = 'CH-U-310772-OLD11111';
    const former = {
      former: [{ network: 'cobalt-heron', unit: was, placement: 'page', platform: 'android' as const }],
    };
    const old = (more: Made = {}) => unit(was, { owner: null, ...more });
    expect(told(twoUnitsAlive, [old(), unit(page)], former)).toEqual([
      {
        ...where,
        message: 'two',
        data: { ...names, unit: page, was },
        changing: { share: '50 %', requests: '1,400' },
      },
    ]);
    const alive = (asked: number) => old({ asked: days([40, asked]) });
    const busy = unit(page, { asked: days([40, 95]) });
    expect(told(twoUnitsAlive, [alive(5), busy], former)).toHaveLength(1);
    expect(told(twoUnitsAlive, [alive(4), busy], former)).toEqual([]);
    for (const units of [
      [old()],
      [unit(page)],
      [old({ asked: days([33, 100], [7, 0]) }), unit(page)],
      [old(), unit(page, { asked: days([33, 100], [7, 0]) })],
      [old({ owner: owned('production') }), unit(page)],
      [old({ network: 'marlstone' }), unit(page)],
      [old(), unit(page, { network: 'marlstone' })],
      [old(), unit(page, { owner: owned('test') })],
      [old(), unit(page, { owner: owned('production', 'footer') })],
      [old(), unit(page, { owner: owned('production', 'page', 'ios') })],
      [old(), unit(page, { owner: null })],
    ])
      expect(told(twoUnitsAlive, units, former)).toEqual([]);
    expect(told(twoUnitsAlive, [old(), unit(page)])).toEqual([]);
    // It went to another placement, and is what that one asks for.
    const moved = old({ owner: owned('production', 'footer') });
    expect(told(twoUnitsAlive, [moved, unit(page)], former)).toHaveLength(1);
    expect(reportsOf(twoUnitsAlive, contextOf())).toEqual([]);
  });

  it('are on no record, or on that of another title', () => {
    const data = { unit: page, network, id: 'cobalt-heron' };
    const changing = { requests: '1,400' };
    expect(told(reportedUnitNotOnRecord, [unit(page, { owner: null })])).toEqual([
      { network: 'cobalt-heron', message: 'unknown', data, changing },
    ]);
    const other = unit(page, { owner: owned('production', 'page', 'android', 'moss') });
    expect(told(reportedUnitNotOnRecord, [other])).toEqual([
      {
        network: 'cobalt-heron',
        message: 'elsewhere',
        data: { ...data, app: 'CH-A-310772-QK4T8W2N', other: 'moss' },
        changing,
      },
    ]);
    for (const one of [
      unit(page),
      unit(page, { owner: null, asked: days([26, 100], [14, 0]) }),
      unit(page, { owner: owned('production', 'page', 'android', 'moss'), appTitle: null }),
      unit(page, { owner: { ...owned('production'), title: null } }),
    ])
      expect(told(reportedUnitNotOnRecord, [one])).toEqual([]);
    expect(reportsOf(reportedUnitNotOnRecord, contextOf())).toEqual([]);
  });
});
