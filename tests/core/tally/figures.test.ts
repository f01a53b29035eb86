import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changeBetween } from '../../../src/core/tally/compare.js';
import { changesOf } from '../../../src/core/tally/changes.js';
import {
  groupSums,
  noSums,
  plus,
  ratiosOf,
  type SumRow,
  type Sums,
} from '../../../src/core/tally/figures.js';
import { Exchange, type Rate } from '../../../src/core/tally/rates.js';
import { figuresOf, type GroupName, type OwnedSeries } from '../../../src/core/tally/report.js';
import { releaseOn } from '../../../src/core/tally/releases.js';

const count = fc.integer({ min: 0, max: 1_000_000 });
const sums: fc.Arbitrary<Sums> = fc
  .record({
    requests: count,
    fill: fc.integer({ min: 0, max: 100 }),
    shown: fc.integer({ min: 0, max: 100 }),
    revenue: fc.integer({ min: 0, max: 1_000_000_000 }),
    isCounted: fc.boolean(),
  })
  .map(({ requests, fill, shown, revenue, isCounted }) => {
    const matched = Math.floor((requests * fill) / 100);
    const impressions = Math.floor((matched * shown) / 100);
    const known = isCounted ? { requests, matched, matchable: requests, shown: impressions } : {};
    return { ...noSums, ...known, impressions, revenue: impressions === 0 ? 0 : revenue };
  });
const rows: fc.Arbitrary<SumRow[]> = fc.array(
  fc
    .record({
      sums,
      series: fc.integer({ min: 1, max: 5 }),
      day: fc.integer({ min: 20_000, max: 20_020 }),
      country: fc.constantFrom('PT', 'ES', ''),
      currency: fc.constantFrom('EUR', 'USD', 'GBP'),
    })
    .map(({ sums: own, ...rest }) => ({ ...own, ...rest })),
  { maxLength: 40 },
);
const rates: Rate[] = Array.from({ length: 21 }, (_, at) => ({
  day: 20_000 + at,
  currency: 'USD',
  base: 'EUR',
  nanos: 923_456_789 + at * 1_234_567,
}));
const series: OwnedSeries[] = [1, 2, 3, 4, 5].map((id) => ({
  id,
  network: id % 2 === 0 ? 'cobalt-heron' : 'marlstone',
  kind: 'unit',
  key: `unit-${id}`,
  app: '',
  title: 'kelp',
  appTitle: null,
  owner:
    id === 5
      ? undefined
      : {
          network: 'cobalt-heron',
          title: 'kelp',
          placement: id < 3 ? 'page' : 'footer',
          platform: id % 2 === 0 ? 'ios' : 'android',
          format: id < 3 ? 'interstitial' : 'banner',
          stage: 'production',
        },
}));
const releases = [
  { title: 'kelp', platform: 'ios' as const, version: '1.0', day: 20_004 },
  { title: 'kelp', platform: 'ios' as const, version: '1.1', day: 20_010 },
];
const groupings: GroupName[] = [
  'placement',
  'network',
  'platform',
  'format',
  'country',
  'day',
  'week',
  'release',
  'title',
];

describe('figures', () => {
  it('of any grouping add up to the same totals, converted or not', () => {
    fc.assert(
      fc.property(rows, fc.constantFrom(null, new Exchange('EUR', rates)), (all, exchange) => {
        const totals = groupings.map((by) => {
          const found = figuresOf({ rows: all, series, by, title: 'kelp', releases, exchange });
          for (const total of found.totals) {
            const own = found.rows.filter(({ currency }) => currency === total.currency);
            const sum = own.reduce(plus, noSums);
            expect([by, sum.revenue, sum.requests, sum.impressions]).toEqual([
              by,
              total.revenue,
              total.requests,
              total.impressions,
            ]);
          }
          return found.totals;
        });
        for (const one of totals) expect(one).toEqual(totals[0]);
      }),
      { numRuns: 200 },
    );
  });

  it('do not depend on the order of their rows', () => {
    fc.assert(
      fc.property(rows, fc.constantFrom<GroupName>('placement', 'week', 'country'), (all, by) => {
        const of = (some: readonly SumRow[]) =>
          figuresOf({
            rows: some,
            series,
            by,
            title: 'kelp',
            releases,
            exchange: new Exchange('EUR', rates),
          });
        const back = of([...all].reverse());
        expect(back.rows).toEqual(of(all).rows);
      }),
      { numRuns: 200 },
    );
  });

  it('never add amounts of two currencies', () => {
    fc.assert(
      fc.property(rows, (all) => {
        for (const currency of ['EUR', 'USD', 'GBP']) {
          const own = all
            .filter((row) => row.currency === currency)
            .reduce((sum, { revenue }) => sum + revenue, 0);
          const groups = groupSums(all, () => 'all').groups.filter((group) => group.currency === currency);
          expect(groups.reduce((sum, group) => sum + group.sums.revenue, 0)).toBe(own);
        }
      }),
    );
  });

  it('name the days for which there is no rate, and keep their amounts apart', () => {
    const row = {
      ...noSums,
      series: 1,
      day: 20_001,
      country: null,
      currency: 'GBP',
      impressions: 5,
      revenue: 7,
    };
    const found = groupSums([row, { ...row, day: 20_002 }], () => 'all', new Exchange('EUR', rates));
    expect(found).toMatchObject({
      groups: [{ currency: 'GBP', sums: { revenue: 14 } }],
      unconverted: [{ currency: 'GBP', days: 2 }],
    });
  });

  it('have ratios only of what is reported', () => {
    const known: Sums = {
      ...noSums,
      requests: 100,
      matched: 80,
      matchable: 100,
      impressions: 60,
      shown: 60,
      revenue: 120_000,
    };
    expect(ratiosOf(known)).toEqual({ fillRate: 0.8, showRate: 0.75, clickRate: null, ecpm: 2_000_000 });
    // A network that reports no matched requests changes no rate of one that does.
    const other: Sums = { ...noSums, requests: 900, impressions: 10 };
    expect(ratiosOf(plus(known, other))).toMatchObject({ fillRate: 0.8, showRate: 0.75 });
    expect(ratiosOf(noSums)).toEqual({ fillRate: null, showRate: null, clickRate: null, ecpm: null });
  });
});

describe('a change of revenue', () => {
  it('is the sum of its parts, and turns round with its sides', () => {
    fc.assert(
      fc.property(sums, sums, (before, after) => {
        const change = changeBetween(before, after);
        expect(change.volume + change.fill + change.price).toBe(after.revenue - before.revenue);
        const back = changeBetween(after, before);
        expect(Math.abs(back.volume + change.volume)).toBeLessThanOrEqual(1);
        expect(Math.abs(back.fill + change.fill)).toBeLessThanOrEqual(1);
      }),
      { numRuns: 500 },
    );
  });

  const base: Sums = { ...noSums, requests: 1_000, impressions: 500, revenue: 1_000_000 };
  it.each([
    ['twice the requests', { requests: 2_000, impressions: 1_000, revenue: 2_000_000 }, [1_000_000, 0, 0]],
    ['half the impressions', { requests: 1_000, impressions: 250, revenue: 500_000 }, [0, -500_000, 0]],
    ['half the price', { requests: 1_000, impressions: 500, revenue: 500_000 }, [0, 0, -500_000]],
    ['nothing more', { requests: 0, impressions: 0, revenue: 0 }, [-1_000_000, 0, 0]],
    ['no ad for any request', { requests: 1_000, impressions: 0, revenue: 0 }, [0, -1_000_000, 0]],
  ])('by %s is put where it belongs', (_, after, parts) => {
    const { volume, fill, price } = changeBetween(base, { ...base, ...after });
    expect([volume, fill, price]).toEqual(parts);
  });

  it('of many units adds up to the totals, the largest first', () => {
    fc.assert(
      fc.property(rows, rows, (before, after) => {
        const { rows: changes, totals } = changesOf({
          before,
          after,
          series,
          exchange: new Exchange('EUR', rates),
        });
        for (const total of totals) {
          const own = changes.filter(({ currency }) => currency === total.currency);
          for (const part of ['before', 'after', 'revenue', 'volume', 'fill', 'price'] as const)
            expect(own.reduce((sum, row) => sum + row[part], 0)).toBe(total[part]);
          expect(total.volume + total.fill + total.price).toBe(total.after - total.before);
        }
        const sizes = changes.map(({ revenue }) => Math.abs(revenue));
        expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
      }),
      { numRuns: 200 },
    );
  });
});

describe('a release', () => {
  it('counts from the day after it, until the next one', () => {
    const on = (day: number) => releaseOn(releases, 'ios', day)?.version ?? null;
    expect([on(20_004), on(20_005), on(20_010), on(20_011), releaseOn(releases, 'android', 20_011)]).toEqual([
      null,
      '1.0',
      '1.0',
      '1.1',
      null,
    ]);
  });
});
