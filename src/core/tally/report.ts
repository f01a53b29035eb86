import { dayText, weekOf, type Day } from './days.js';
import {
  groupSums,
  noSums,
  plus,
  ratiosOf,
  type Group,
  type Ratios,
  type SumRow,
  type Sums,
  type Unconverted,
} from './figures.js';
import type { Owner, Owners } from './owners.js';
import type { Exchange } from './rates.js';
import { releaseOn, type Release } from './releases.js';
import { compareText } from '../text/compare.js';

/** What numbers are about: a unit of a network, or an app as a whole. */
export interface Series {
  id: number;
  network: string;
  kind: 'unit' | 'app';
  key: string;
  /** The app that rows of the unit name; empty where they name none. */
  app: string;
}

/** A unit that reports numbers, and its owner. */
export interface OwnedSeries extends Series {
  /** Undefined for units that are in no record. */
  owner: Owner | undefined;
  /** The title that it belongs to: that of the unit, else that of its app. */
  title: string | null;
  /** The title of the app that its rows name. */
  appTitle: string | null;
}

/** The units among some series, with their owners. Totals of apps repeat what units report, and are left out. */
export function ownedUnits(series: readonly Series[], owners: Owners): OwnedSeries[] {
  return series
    .filter(({ kind }) => kind === 'unit')
    .map((one) => {
      const owner = owners.unit(one.network, one.key);
      const app = one.app === '' ? undefined : owners.app(one.network, one.app);
      const appTitle = app?.title ?? null;
      return { ...one, owner, title: owner?.title ?? appTitle, appTitle };
    });
}

export type GroupName =
  'placement' | 'network' | 'platform' | 'format' | 'country' | 'day' | 'week' | 'release' | 'title';

/** Which sums a grouping needs apart. */
export function neededFor(
  by: GroupName,
  isConverted: boolean,
): { series: boolean; day: boolean; country: boolean } {
  const isByTime = by === 'day' || by === 'week' || by === 'release';
  return {
    series: by !== 'country' && by !== 'day' && by !== 'week',
    day: isByTime || isConverted,
    country: by === 'country',
  };
}

export interface FigureRow extends Ratios, Sums {
  key: string;
  /** The unit ID, if no title uses it. */
  unit: string | null;
  currency: string;
  /** Its part of the revenue of its currency; null where that is nothing. */
  share: number | null;
}

/** What figures are made from. */
export interface FigureInput {
  rows: readonly SumRow[];
  series: readonly OwnedSeries[];
  by: GroupName;
  /** The title that is looked at; null for all of them. */
  title: string | null;
  releases: readonly Release[];
  exchange: Exchange | null;
}

/** Figures of one span of days: rows in their natural order, and a total for each currency to which they add up. */
export function figuresOf(input: FigureInput): {
  rows: FigureRow[];
  totals: Omit<FigureRow, 'key' | 'unit'>[];
  unconverted: Unconverted[];
} {
  const { by, exchange } = input;
  const series = new Map(input.series.map((one) => [one.id, one]));
  const units = new Map<string, string>();
  const keyOf = (row: SumRow): string => {
    const { key, unit } = keyFor(input, row, series.get(row.series));
    if (unit !== undefined) units.set(key, unit);
    return key;
  };
  const { groups, unconverted } = groupSums(input.rows, keyOf, exchange);
  const totals = totalsOf(groups);
  const rows = groups.map(({ key, currency, sums }): FigureRow => {
    const total = totals.get(currency)?.revenue ?? 0;
    const share = total === 0 ? null : sums.revenue / total;
    return { key, unit: units.get(key) ?? null, currency, ...sums, ...ratiosOf(sums), share };
  });
  rows.sort(by === 'day' || by === 'week' || by === 'release' ? inTime : byRevenue);
  return {
    rows,
    totals: [...totals].map(([currency, sums]) => ({
      currency,
      ...sums,
      ...ratiosOf(sums),
      share: sums.revenue === 0 ? null : 1,
    })),
    unconverted,
  };
}

function totalsOf(groups: readonly Group[]): Map<string, Sums> {
  const totals = new Map<string, Sums>();
  for (const { currency, sums } of groups) totals.set(currency, plus(totals.get(currency) ?? noSums, sums));
  return new Map([...totals].sort(([, one], [, other]) => other.revenue - one.revenue));
}

function inTime(one: FigureRow, other: FigureRow): number {
  // What has no key comes last.
  if ((one.key === '') !== (other.key === '')) return one.key === '' ? 1 : -1;
  return compareText(one.key, other.key) || compareText(one.currency, other.currency);
}

function byRevenue(one: FigureRow, other: FigureRow): number {
  return (
    compareText(one.currency, other.currency) ||
    other.revenue - one.revenue ||
    other.impressions - one.impressions ||
    compareText(one.key, other.key)
  );
}

/** What a row is counted under; with the unit where no title uses it. */
function keyFor(
  { by, title, releases }: FigureInput,
  { day, country }: SumRow,
  series: OwnedSeries | undefined,
): { key: string; unit?: string } {
  const owner = series?.owner;
  const nothing = { key: '' };
  switch (by) {
    case 'day':
      return day === null ? nothing : { key: dayText(day) };
    case 'week':
      return day === null ? nothing : { key: dayText(weekOf(day)) };
    case 'country':
      return { key: country ?? '' };
    case 'network':
      return { key: series?.network ?? '' };
    case 'platform':
      return { key: owner?.platform ?? '' };
    case 'format':
      return { key: owner?.format ?? '' };
    case 'title':
      return { key: series?.title ?? '' };
    case 'release':
      return { key: releaseKey(releases, series, day, title === null) };
    case 'placement': {
      if (!series) return nothing;
      if (!owner?.placement) return { key: `${series.network}: ${series.key}`, unit: series.key };
      return { key: title === null ? `${owner.title ?? ''}/${owner.placement}` : owner.placement };
    }
  }
}

/** A release by its platform and version, so that the text of it sorts by day. */
function releaseKey(
  releases: readonly Release[],
  series: OwnedSeries | undefined,
  day: Day | null,
  namesTitle: boolean,
): string {
  const platform = series?.owner?.platform ?? null;
  if (!platform || day === null || !series?.title) return '';
  const own = releases.filter((release) => release.title === series.title);
  const found = releaseOn(own, platform, day);
  const name = found ? `${dayText(found.day)} ${platform} ${found.version}` : `0000-00-00 ${platform}`;
  return namesTitle ? `${name} ${series.title}` : name;
}
