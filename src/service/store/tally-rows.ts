import type { Day } from '../../core/tally/days.js';
import type { TallyRow } from '../../core/tally/model.js';
import type { Db } from './open.js';
import type { tallyRows } from './tally-schema.js';

/**
 * Which rows count in sums. Rows of single countries count in place of the row of all countries together, and rows that
 * divide the day of a unit more finely in place of those that do less, where a series and day has both.
 */
const ofCountries = `(one.country <> '' or not exists (
  select 1 from tally_rows as other
  where other.series = one.series and other.day = one.day and other.country <> ''))`;
const finest = `not exists (
  select 1 from tally_rows as finer
  where finer.series = one.series and finer.day = one.day and finer.country = one.country
  and finer.detail > one.detail)`;
export const counted = `${ofCountries} and ${finest}`;
/** The same for one series and day. Most have nothing that is divided, which is seen once for all of its rows. */
const countedOfDay = `${ofCountries} and (not exists (
  select 1 from tally_rows where series = @series and day = @day and detail > 0) or ${finest})`;

/** SQL that is run for every row; Drizzle's builder takes ten times as long. */
export function rowStatements({ $client }: Db) {
  const key = 'series = ? and day = ? and country = ? and part = ?';
  return {
    insert: $client.prepare(
      `insert into tally_rows (series, day, country, part, detail, import, requests, matched, impressions, clicks, rewards, revenue, currency)
       values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) on conflict do nothing`,
    ),
    find: $client.prepare(`select * from tally_rows where ${key}`),
    replace: $client.prepare(
      `update tally_rows set import = ?, requests = ?, matched = ?, impressions = ?, clicks = ?, rewards = ?, revenue = ?, currency = ?
       where ${key}`,
    ),
    confirm: $client.prepare(`update tally_rows set import = ? where ${key}`),
    drop: $client.prepare(`delete from tally_rows where ${key}`),
    gone: $client.prepare(
      `with own as (select id from tally_series where network = @network)
       select * from tally_rows
       where series in own and day between @from and @to and import <> @id
       and import in (select id from tally_imports where source = 'http')
       and day in (
         select day from tally_rows where series in own and day between @from and @to and import = @id)`,
    ),
    forget: $client.prepare('delete from tally_days where series = ? and day = ?'),
    sum: $client.prepare(
      `insert into tally_days (series, day, currency, requests, matched, impressions, clicks, rewards, revenue)
       select series, day, currency, sum(requests), sum(matched), sum(impressions), sum(clicks), sum(rewards), sum(revenue)
       from tally_rows as one where series = @series and day = @day and ${countedOfDay}
       group by series, day, currency`,
    ),
    addSeries: $client.prepare(
      `insert into tally_series (network, kind, key, app) values (?, ?, ?, ?)
       on conflict (network, kind, key) do update set app = case when excluded.app = '' then app else excluded.app end
       returning id`,
    ),
  };
}

/** A row as it is stored. */
export type StoredRow = typeof tallyRows.$inferSelect;

/** The numbers of a row, in the order of their columns. */
export function numbersOf({
  requests,
  matched,
  impressions,
  clicks,
  rewards,
  revenue,
}: TallyRow): (number | null)[] {
  return [requests, matched, impressions, clicks, rewards, revenue];
}

/** A row as it is stored next. A table that lacks a column takes nothing away that another one has brought. */
export function mergedWith(stored: StoredRow, row: TallyRow): TallyRow {
  return {
    ...row,
    requests: row.requests ?? stored.requests,
    matched: row.matched ?? stored.matched,
    clicks: row.clicks ?? stored.clicks,
    rewards: row.rewards ?? stored.rewards,
  };
}

/** Whether a row says what is stored already. */
export function isSame(stored: StoredRow, row: TallyRow): boolean {
  return (
    stored.requests === row.requests &&
    stored.matched === row.matched &&
    stored.impressions === row.impressions &&
    stored.clicks === row.clicks &&
    stored.rewards === row.rewards &&
    stored.revenue === row.revenue &&
    stored.currency === row.currency
  );
}

/** The days of each series whose sums must be computed again. */
export class ChangedDays {
  readonly #days = new Map<number, Set<Day>>();

  add(series: number, day: Day): void {
    const days = this.#days.get(series);
    if (days) days.add(day);
    else this.#days.set(series, new Set([day]));
  }

  *all(): Generator<[series: number, day: Day]> {
    for (const [series, days] of this.#days) for (const day of days) yield [series, day];
  }
}
