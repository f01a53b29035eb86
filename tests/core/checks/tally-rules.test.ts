import { describe, expect, it } from 'vitest';
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
import { stakeOf } from '../../../src/core/tally/stake.js';
import type { Settings } from '../../../src/core/words/settings.js';
import { historyOf, otherTitle, since, steady, tallyCases } from '../../support/tally.js';
import { kelp, placement } from '../../support/trees.js';

const page = { android: 'CH-U-310772-DDDD3333', ios: 'CH-U-310772-EEEE4444' };
const footer = { android: 'CH-U-310772-FFFF5555', ios: 'CH-U-310772-GGGG6666' };
const stray = 'CH-U-310772-ZZZZ9999';
const titleWith = (settings: Settings = {}) =>
  kelp({
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    placements: {
      page: placement('interstitial', page.android, page.ios),
      footer: { ...placement('banner', footer.android, footer.ios), settings },
    },
  });
const title = titleWith();
const all = [page.android, page.ios, footer.android, footer.ios].map((unit, seed) => ({
  unit,
  asked: steady(1_000, seed),
}));
/** All units as usual, but for one. */
const but = (unit: string, change: object) =>
  all.map((one) => (one.unit === unit ? { ...one, ...change } : one));
const without = (unit: string) => all.filter((one) => one.unit !== unit);
const both = (ago: number, version = '2.0') =>
  (['android', 'ios'] as const).map((platform) => ({ platform, version, ago }));

tallyCases(placementSilent, {
  clean: [
    { name: 'all units ask', title, units: all, releases: both(40) },
    {
      name: 'one day without requests',
      title,
      units: but(page.ios, { asked: since(0, steady(900), () => 0) }),
    },
    {
      name: 'a unit that rests every weekend, on a Sunday',
      title,
      units: but(page.ios, { asked: (ago: number) => (ago % 7 < 2 ? 0 : 700) }),
    },
    {
      name: 'a unit that is asked for on few days',
      title,
      units: but(page.ios, { asked: (ago: number) => (ago % 9 === 5 ? 4 : 0) }),
    },
  ],
  faulty: [
    {
      name: 'two days without requests',
      title,
      units: but(page.ios, { asked: since(1, steady(900), () => 0) }),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          network: 'cobalt-heron',
          message: expect.stringMatching(
            /since 2026-05-30: for 2 days, after 9\d\d requests a day\. For this unit, 2 days are unusual/,
          ),
        },
      ],
      byHand: { units: all },
    },
    {
      name: 'a unit that rests every weekend, on the third day of rest',
      title,
      units: but(page.ios, { asked: (ago: number) => (ago < 3 || ago % 7 < 2 ? 0 : 700) }),
      findings: [{ message: expect.stringContaining('3 days are unusual') }],
    },
    {
      name: 'released, and never asked for',
      title,
      units: without(page.ios),
      releases: both(10),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringMatching(/though 2.0 was released on [\d-]+\.$/),
        },
      ],
    },
    {
      name: 'in tables without any row of iOS since',
      title,
      inTables: ['cobalt-heron'],
      units: all.map((one) =>
        one.unit === page.ios || one.unit === footer.ios
          ? { ...one, asked: since(4, steady(900), () => 0) }
          : one,
      ),
      findings: [
        { placement: 'footer', message: expect.stringContaining('import those of iOS, too') },
        { placement: 'page', message: expect.stringContaining('import those of iOS, too') },
      ],
    },
    {
      name: 'in tables that have the other unit of iOS',
      title,
      inTables: ['cobalt-heron'],
      units: but(page.ios, { asked: since(4, steady(900), () => 0) }),
      findings: [{ placement: 'page', message: expect.stringContaining('2 days are unusual') }],
    },
  ],
});

tallyCases(neverMatched, {
  clean: [{ name: 'matched', title, units: all }],
  faulty: [
    {
      name: 'never matched in three days',
      title,
      units: but(page.ios, { days: 3, fill: () => 0 }),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringContaining('not one was answered with an ad'),
        },
      ],
      byHand: { units: but(page.ios, { days: 3 }) },
    },
  ],
});

tallyCases(hardlyShown, {
  clean: [
    { name: 'shown', title, units: all },
    { name: 'half as often as on the other platform', title, units: but(page.ios, { shown: () => 0.4 }) },
    {
      name: 'one bad day',
      title,
      units: but(page.ios, {
        shown: since(
          0,
          () => 0.8,
          () => 0.1,
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'dropped two days ago',
      title,
      units: but(page.ios, {
        shown: since(
          1,
          () => 0.8,
          () => 0.05,
        ),
      }),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringContaining('5 % of the ads that page loads'),
        },
      ],
      byHand: { units: all },
    },
    {
      name: 'dropped two months ago, after a release',
      title,
      units: but(page.ios, {
        shown: since(
          60,
          () => 0.8,
          () => 0.05,
        ),
      }),
      releases: [
        { platform: 'ios', version: '2.0', ago: 61 },
        { platform: 'ios', version: '2.1', ago: 20 },
      ],
      findings: [{ message: expect.stringContaining('80 % were usual before 2.0 of 2026-03-31') }],
    },
  ],
});

tallyCases(oneSided, {
  clean: [{ name: 'both earn', title, units: all }],
  faulty: [
    {
      name: 'never asked for on iOS',
      title,
      units: without(page.ios),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringMatching(/on Android, it earned [\d.]+ EUR/),
        },
      ],
      byHand: { units: all },
    },
  ],
});

tallyCases(reportedUnitNotOnRecord, {
  clean: [{ name: 'all are on record', title, units: all }],
  faulty: [
    {
      name: 'a unit that nobody holds',
      title,
      units: [...all, { unit: stray, appTitle: 'kelp' }],
      findings: [{ message: expect.stringContaining(`${stray} made `) }],
      byHand: { units: all },
    },
  ],
});

tallyCases(testUnitEarns, {
  clean: [{ name: 'production units earn', title, units: all }],
  faulty: [
    {
      name: 'a sample earns',
      title,
      units: [...all, { unit: 'CH-U-100001-BANNER0A' }],
      findings: [{ message: expect.stringContaining('CH-U-100001-BANNER0A is a unit for testing') }],
      byHand: { units: all },
    },
  ],
});

tallyCases(askedBeforeRelease, {
  clean: [{ name: 'both are released', title, units: all, releases: both(40) }],
  faulty: [
    {
      name: 'released on Android alone',
      title,
      units: all,
      releases: [{ platform: 'android', version: '2.0', ago: 40 }],
      findings: [{ platform: 'ios', message: expect.stringContaining('on Android, 2.0 is') }],
      byHand: { releases: both(40) },
    },
  ],
});

tallyCases(settingInNumbersDiffers, {
  clean: [
    { name: 'alike', title: titleWith({ refresh: '60s' }), units: all },
    {
      name: 'more users on one platform',
      title: titleWith({ refresh: '60s' }),
      units: all.map((one) =>
        one.unit === page.ios || one.unit === footer.ios ? { ...one, asked: steady(9_000) } : one,
      ),
    },
  ],
  faulty: [
    {
      name: 'far more often on iOS',
      title: titleWith({ refresh: '60s' }),
      units: but(footer.ios, { asked: steady(5_000) }),
      findings: [
        { platform: 'ios', placement: 'footer', message: expect.stringContaining('both refresh after 60s') },
      ],
      byHand: { units: all },
    },
  ],
});

const former = [{ network: 'cobalt-heron', unit: stray, placement: 'page', platform: 'ios' as const }];
tallyCases(twoUnitsAlive, {
  clean: [{ name: 'the old one dies out', title, units: [...all, { unit: stray, asked: () => 5 }], former }],
  faulty: [
    {
      name: 'both ask',
      title,
      units: [...all, { unit: stray, asked: () => 300 }],
      former,
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringContaining(`${page.ios} on record, and ${stray}`),
        },
      ],
      byHand: { units: all },
    },
  ],
});

const app = 'CH-I-310772-BBBB2222';
const ofApp = all.map((one) => (one.unit === page.ios || one.unit === footer.ios ? { ...one, app } : one));
const sumOf = (ago: number) =>
  [1, 3].reduce((sum, seed) => sum + Math.round(Math.round(steady(1_000, seed)(ago) * 0.9) * 0.8), 0);
tallyCases(appTotalDiffers, {
  clean: [
    {
      name: 'almost the same',
      title,
      units: ofApp,
      apps: [{ app, impressions: (ago) => sumOf(ago) * 1.01 }],
    },
  ],
  faulty: [
    {
      name: 'more than its units',
      title,
      units: ofApp,
      apps: [{ app, impressions: (ago) => sumOf(ago) * 1.1 }],
      findings: [{ network: 'cobalt-heron', message: expect.stringContaining(app) }],
      byHand: { apps: [{ app, impressions: sumOf }] },
    },
  ],
});

tallyCases(stepAtRelease, {
  clean: [
    { name: 'level', title, units: all, releases: both(10) },
    {
      name: 'a fall of all units on both platforms',
      title,
      units: all.map((one, seed) => ({ ...one, asked: since(9, steady(1_000, seed), steady(500, seed)) })),
      releases: both(10),
    },
    {
      name: 'a unit that jumps up and down',
      title,
      units: but(page.ios, { asked: (ago: number) => (ago % 3 === 0 ? 200 : 1_200) }),
      releases: both(10),
    },
  ],
  faulty: [
    {
      name: 'half as many since a release, on its second day',
      title,
      units: but(page.ios, { asked: since(1, steady(1_000), steady(450)) }),
      releases: both(2),
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringMatching(/fell to 4\d % within days of 2\.0/),
        },
      ],
      byHand: { units: all },
    },
    {
      name: 'half as many for five weeks',
      title,
      units: but(page.ios, { asked: since(34, steady(1_000), steady(450)) }),
      releases: both(35),
      findings: [{ platform: 'ios', placement: 'page' }],
    },
  ],
});

tallyCases(fillFallsWithoutLine, {
  clean: [{ name: 'level', title, units: all, lacksAppAds: ['cobalt-heron'] }],
  faulty: [
    {
      name: 'falls without the line',
      title,
      units: but(page.ios, {
        fill: since(
          8,
          () => 0.9,
          () => 0.5,
        ),
      }),
      lacksAppAds: ['cobalt-heron'],
      findings: [
        {
          platform: 'ios',
          placement: 'page',
          message: expect.stringContaining('50 % of the requests of page'),
        },
      ],
      byHand: { lacksAppAds: [] },
    },
  ],
});

describe('the money at stake', () => {
  const at = (units: typeof all, where: { placement: string; platform: string }) =>
    stakeOf(historyOf({ name: '', title, units }), { network: 'cobalt-heron', ...where });
  const day = 1_000 * 0.9 * 0.8 * 2_000;

  it('is what the placement earned at its best, for thirty days', () => {
    const stake = at(
      but(page.ios, {
        asked: since(
          20,
          () => 1_000,
          () => 0,
        ),
      }),
      { placement: 'page', platform: 'ios' },
    );
    expect(stake).toEqual({ currency: 'EUR', micros: day * 30 });
  });

  it('is what the other platform earns, where it never earned itself', () => {
    const units = but(page.android, { asked: () => 1_000 }).filter(({ unit }) => unit !== page.ios);
    expect(at(units, { placement: 'page', platform: 'ios' })?.micros).toBe(day * 30);
  });

  it('is nothing for a placement that earns as usual, and unknown for one of which nothing is known', () => {
    expect(at(but(page.ios, { asked: () => 1_000 }), { placement: 'page', platform: 'ios' })?.micros).toBe(0);
    expect(at(all, { placement: 'nowhere', platform: 'ios' })).toBeNull();
    expect(otherTitle.name).toBe('Other');
  });
});
