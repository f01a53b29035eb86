import type { Platform } from '../words/words.js';
import { changeBetween, noChange, plusChange, type Change } from './compare.js';
import { groupSums, noSums, type Group, type SumRow, type Sums, type Unconverted } from './figures.js';
import type { Exchange } from './rates.js';
import { compareText } from '../text/compare.js';
import type { OwnedSeries } from './report.js';

/** The change of one unit between two spans of days. */
export interface ChangeRow extends Change {
  title: string | null;
  placement: string | null;
  platform: Platform | null;
  network: string;
  unit: string;
  currency: string;
  before: number;
  after: number;
}

type ChangeTotal = Pick<ChangeRow, 'currency' | 'before' | 'after' | keyof Change>;

/** Compares two spans of days unit by unit; the largest change comes first, and the rows add up to the totals. */
export function changesOf({
  before,
  after,
  series,
  exchange,
}: {
  before: readonly SumRow[];
  after: readonly SumRow[];
  series: readonly OwnedSeries[];
  exchange: Exchange | null;
}): { rows: ChangeRow[]; totals: ChangeTotal[]; unconverted: Unconverted[] } {
  const keyOf = (row: SumRow) => String(row.series);
  const then = groupSums(before, keyOf, exchange);
  const now = groupSums(after, keyOf, exchange);
  const known = new Map(series.map((one) => [String(one.id), one]));
  const rows = pairsOf(then.groups, now.groups).flatMap((pair): ChangeRow[] => {
    const one = known.get(pair.series);
    return one ? [changeRow(one, pair)] : [];
  });
  rows.sort(
    (one, other) => Math.abs(other.revenue) - Math.abs(one.revenue) || compareText(one.unit, other.unit),
  );
  return { rows, totals: totalsOf(rows), unconverted: [...then.unconverted, ...now.unconverted] };
}

interface Pair {
  series: string;
  currency: string;
  before: Sums;
  after: Sums;
}

/** What is of one series and currency on both sides. */
function pairsOf(then: readonly Group[], now: readonly Group[]): Pair[] {
  const pairs = new Map<string, Pair>();
  const put = (side: 'before' | 'after', { key, currency, sums }: Group) => {
    const name = `${key} ${currency}`;
    const pair = pairs.get(name) ?? { series: key, currency, before: noSums, after: noSums };
    pairs.set(name, { ...pair, [side]: sums });
  };
  for (const group of then) put('before', group);
  for (const group of now) put('after', group);
  return [...pairs.values()];
}

function changeRow(
  { title, owner, network, key }: OwnedSeries,
  { currency, before, after }: Pair,
): ChangeRow {
  return {
    title,
    placement: owner?.placement ?? null,
    platform: owner?.platform ?? null,
    network,
    unit: key,
    currency,
    before: before.revenue,
    after: after.revenue,
    ...changeBetween(counted(before, after), counted(after, before)),
  };
}

function totalsOf(rows: readonly ChangeRow[]): ChangeTotal[] {
  const totals = new Map<string, ChangeTotal>();
  for (const row of rows) {
    const { currency } = row;
    const total = totals.get(currency) ?? { currency, before: 0, after: 0, ...noChange };
    const [before, after] = [total.before + row.before, total.after + row.after];
    totals.set(currency, { currency, ...plusChange(total, row), before, after });
  }
  return [...totals.values()];
}

/** A side on which nothing is on record requested nothing, where the other side reports requests. */
function counted(side: Sums, other: Sums): Sums {
  const isNothing = side.requests === null && side.impressions === 0 && side.revenue === 0;
  return isNothing && other.requests !== null ? { ...side, requests: 0 } : side;
}
