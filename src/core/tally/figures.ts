import type { Day } from './days.js';
import type { Counts } from './model.js';
import { apportion, type Micros } from './money.js';
import { rateScale, type Exchange } from './rates.js';

/** Sums of numbers, and what their ratios go by. */
export interface Sums extends Counts {
  /** Requests of rows that report matched ones. */
  matchable: number | null;
  /** Impressions of rows that report matched requests. */
  shown: number | null;
  /** Impressions of rows that report clicks. */
  clickable: number | null;
}

/** Sums of one series, or of several; day and country are null where they are summed over. */
export interface SumRow extends Sums {
  series: number;
  day: Day | null;
  country: string | null;
  currency: string;
}

/** Sums that have one key. */
export interface Group {
  key: string;
  currency: string;
  sums: Sums;
}

/** Amounts that could not be converted because no rate is known. */
export interface Unconverted {
  currency: string;
  /** Days without a rate. */
  days: number;
}

/**
 * Adds up rows by a key, amounts of different currencies apart. With an exchange, amounts are converted by the rate of
 * their day; those for which there is no rate stay in their currency. The amounts of all groups of one currency add up to
 * the same total, whatever the key is.
 */
export function groupSums(
  rows: readonly SumRow[],
  keyOf: (row: SumRow) => string,
  exchange: Exchange | null = null,
): { groups: Group[]; unconverted: Unconverted[] } {
  const groups = new Map<string, Group & { exact: bigint }>();
  const lacking = new Map<string, Set<Day>>();
  for (const row of rows) {
    const converted =
      exchange && row.day !== null ? exchange.convert(row.revenue, row.currency, row.day) : null;
    if (exchange && converted === null && row.day !== null) {
      const days = lacking.get(row.currency) ?? new Set();
      lacking.set(row.currency, days.add(row.day));
    }
    const currency = exchange && converted !== null ? exchange.into : row.currency;
    const key = keyOf(row);
    const name = `${currency} ${key}`;
    const group = groups.get(name) ?? { key, currency, sums: { ...noSums }, exact: 0n };
    groups.set(name, group);
    group.sums = plus(group.sums, row);
    if (exchange) group.exact += converted ?? BigInt(row.revenue) * rateScale;
  }
  const found = [...groups.values()];
  if (exchange) roundTogether(found);
  return {
    groups: found.map(({ key, currency, sums }) => ({ key, currency, sums })),
    unconverted: [...lacking].map(([currency, days]) => ({ currency, days: days.size })),
  };
}

/** Rounds the amounts of each currency so that they add up to its rounded total. */
function roundTogether(groups: readonly (Group & { exact: bigint })[]): void {
  for (const currency of new Set(groups.map((group) => group.currency))) {
    const own = groups.filter((group) => group.currency === currency);
    const amounts = apportion(
      own.map(({ exact }) => exact),
      rateScale,
    );
    for (const [at, group] of own.entries()) group.sums = { ...group.sums, revenue: amounts[at] ?? 0 };
  }
}

/** Nothing at all. */
export const noSums: Sums = {
  requests: null,
  matched: null,
  impressions: 0,
  clicks: null,
  rewards: null,
  revenue: 0,
  matchable: null,
  shown: null,
  clickable: null,
};

/** The sum of sums. What is unknown on one side counts as nothing; it is unknown where no side knows it. */
export function plus(one: Sums, other: Sums): Sums {
  return {
    requests: added(one.requests, other.requests),
    matched: added(one.matched, other.matched),
    impressions: one.impressions + other.impressions,
    clicks: added(one.clicks, other.clicks),
    rewards: added(one.rewards, other.rewards),
    revenue: one.revenue + other.revenue,
    matchable: added(one.matchable, other.matchable),
    shown: added(one.shown, other.shown),
    clickable: added(one.clickable, other.clickable),
  };
}

function added(one: number | null, other: number | null): number | null {
  return one === null ? other : other === null ? one : one + other;
}

/** Ratios of sums; null where there is nothing to divide, or where it is not reported. */
export interface Ratios {
  /** Matched requests for each request. */
  fillRate: number | null;
  /** Impressions for each matched request. */
  showRate: number | null;
  /** Clicks for each impression. */
  clickRate: number | null;
  /** Revenue for a thousand impressions (micros). */
  ecpm: Micros | null;
}

export function ratiosOf({
  matched,
  matchable,
  shown,
  clicks,
  clickable,
  impressions,
  revenue,
}: Sums): Ratios {
  return {
    fillRate: ratio(matched, matchable),
    showRate: ratio(shown, matched),
    clickRate: ratio(clicks, clickable),
    ecpm: impressions === 0 ? null : Math.round((revenue * 1000) / impressions),
  };
}

function ratio(part: number | null, whole: number | null): number | null {
  return part === null || whole === null || whole === 0 ? null : part / whole;
}
