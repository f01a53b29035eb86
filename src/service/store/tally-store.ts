import { and, asc, desc, eq, gt, max, sql } from 'drizzle-orm';
import type { SumRow } from '../../core/tally/figures.js';
import type { LinedRow } from '../../core/tally/table.js';
import type { Day, Span } from '../../core/tally/days.js';
import type { GoneRow, TallyRow, WrittenRow } from '../../core/tally/model.js';
import type { Rate } from '../../core/tally/rates.js';
import type { Release } from '../../core/tally/releases.js';
import { atomically, type Db } from './open.js';
import {
  ChangedDays,
  counted,
  isSame,
  mergedWith,
  numbersOf,
  rowStatements,
  type StoredRow,
} from './tally-rows.js';
import { tallyImports, tallyRates, tallyReleases, tallySeries } from './tally-schema.js';

/** What daily numbers are about, as stored. */
export type Series = typeof tallySeries.$inferSelect;
type ImportRow = typeof tallyImports.$inferSelect;
type ImportSource = Pick<ImportRow, 'network' | 'source'>;

/** Daily numbers: the one place that reads and writes them. */
export class TallyStore {
  /** The ID of each series, by network and subject, with the app that its rows name. */
  readonly #known = new Map<string, Map<string, { id: number; app: string }>>();
  #statements: ReturnType<typeof rowStatements> | undefined;

  constructor(private readonly db: Db) {}

  /** Begins an import, and returns its number. */
  begin(of: Pick<ImportRow, 'network' | 'source' | 'name' | 'at' | 'who'>): number {
    return this.db.insert(tallyImports).values(of).returning({ id: tallyImports.id }).get().id;
  }

  /** Notes the days of an import that were read to their end. */
  reach(id: number, reached: Pick<ImportRow, 'from' | 'to' | 'rows' | 'complete'>): void {
    this.db.update(tallyImports).set(reached).where(eq(tallyImports.id, id)).run();
  }

  /**
   * Writes rows, and the sums of the days that they change, in one transaction. A row that is on record is replaced;
   * rows of one country replace the row of all countries together in the sums.
   */
  write({ network, source }: ImportSource, id: number, rows: readonly LinedRow[]): WrittenRow[] {
    const { insert, find, replace, confirm } = this.statements;
    const changed = new ChangedDays();
    return this.keepingSeries(() => {
      const written = rows.map(({ line, row }): WrittenRow => {
        const series = this.seriesOf(network, row);
        const key = [series, row.day, row.country, row.part];
        const isNew = insert.run(...key, row.detail, id, ...numbersOf(row), row.currency).changes === 1;
        if (isNew) {
          changed.add(series, row.day);
          return { line, row, was: 'new', before: 0 };
        }
        const stored = find.get(...key) as StoredRow;
        const isRepeated = stored.import === id;
        const merged = mergedWith(stored, row);
        if (isSame(stored, merged)) {
          if (!isRepeated && source === 'http') confirm.run(id, ...key);
          return { line, row, was: isRepeated ? 'repeated' : 'same', before: row.revenue };
        }
        replace.run(id, ...numbersOf(merged), row.currency, ...key);
        changed.add(series, row.day);
        return { line, row, was: isRepeated ? 'repeated' : 'restated', before: stored.revenue };
      });
      this.addUp(changed);
      return written;
    });
  }

  /**
   * Removes and returns the rows of these days that came from an earlier fetch and are missing in this import. Rows
   * from tables stay, since they may contain more than the network reports. Days without any row in this import stay
   * too: an empty response is more likely a fault of the network.
   */
  drop(network: string, id: number, { from, to }: Span): GoneRow[] {
    const { gone, drop } = this.statements;
    const changed = new ChangedDays();
    return atomically(this.db, () => {
      const found = gone.all({ network, id, from, to }) as StoredRow[];
      for (const { series, day, country, part } of found) {
        drop.run(series, day, country, part);
        changed.add(series, day);
      }
      this.addUp(changed);
      return found.map(({ day, currency, revenue }) => ({ day, currency, revenue }));
    });
  }

  private addUp(changed: ChangedDays): void {
    const { forget, sum } = this.statements;
    for (const [series, day] of changed.all()) {
      forget.run(series, day);
      sum.run({ series, day });
    }
  }

  /**
   * Does a write as one. If it fails, the series that it added are gone again, so what was known of them is forgotten.
   */
  private keepingSeries<Result>(work: () => Result): Result {
    try {
      return atomically(this.db, work);
    } catch (error) {
      this.#known.clear();
      throw error;
    }
  }

  private get statements(): ReturnType<typeof rowStatements> {
    return (this.#statements ??= rowStatements(this.db));
  }

  private seriesOf(network: string, { unit, app }: TallyRow): number {
    const [kind, key, owner] = unit === '' ? (['app', app, ''] as const) : (['unit', unit, app] as const);
    const known = this.#known.get(`${network} ${kind}`) ?? new Map<string, { id: number; app: string }>();
    this.#known.set(`${network} ${kind}`, known);
    const found = known.get(key);
    if (found && (owner === '' || found.app === owner)) return found.id;
    const { addSeries } = this.statements;
    const { id } = addSeries.get(network, kind, key, owner) as { id: number };
    if (known.size > 200_000) known.clear();
    known.set(key, { id, app: owner });
    return id;
  }

  /** All that numbers are about, of some networks or of all. */
  series(network?: string): Series[] {
    const all = this.db.select().from(tallySeries);
    return (network === undefined ? all : all.where(eq(tallySeries.network, network))).all();
  }

  /**
   * Sums of some series, or of all.
   * @param apart whether sums are made for each series, each day, each country
   */
  sums(
    series: readonly number[] | null,
    { from, to }: Span,
    apart: { series: boolean; day: boolean; country: boolean },
  ): SumRow[] {
    const names = ['series', 'day', 'country'] as const;
    const keys = names.filter((name) => apart[name]);
    const columns = names.map((name) =>
      apart[name] ? name : `${name === 'series' ? '0' : 'null'} as ${name}`,
    );
    const which = series === null ? '' : 'and series in (select value from json_each(@series))';
    const text = `select ${columns.join(', ')}, currency,
        sum(requests) as requests, sum(matched) as matched, sum(impressions) as impressions, sum(clicks) as clicks,
        sum(rewards) as rewards, sum(revenue) as revenue,
        sum(case when matched is not null then requests end) as matchable,
        sum(case when matched is not null then impressions end) as shown,
        sum(case when clicks is not null then impressions end) as clickable
      from ${apart.country ? 'tally_rows as one' : 'tally_days'}
      where day between @from and @to ${which} ${apart.country ? `and ${counted}` : ''}
      group by ${[...keys, 'currency'].join(', ')}`;
    const given = { from, to, ...(series === null ? {} : { series: JSON.stringify(series) }) };
    return this.db.$client.prepare(text).all(given) as SumRow[];
  }

  /** The days on which any of these series has rows, in order. */
  days(series: readonly number[], { from, to }: Span): Day[] {
    return this.db.$client
      .prepare(
        `select distinct day from tally_days
         where day between ? and ? and series in (select value from json_each(?)) order by day`,
      )
      .pluck()
      .all(from, to, JSON.stringify(series)) as Day[];
  }

  /** The first and the last day on record of some series, or of all; null where there is none. */
  span(series: readonly number[] | null): Span | null {
    const which = series === null ? '' : 'where series in (select value from json_each(?))';
    const found = this.db.$client
      .prepare(`select min(day) as "from", max(day) as "to" from tally_days ${which}`)
      .get(...(series === null ? [] : [JSON.stringify(series)])) as { from: Day | null; to: Day | null };
    return found.from === null || found.to === null ? null : { from: found.from, to: found.to };
  }

  /** The last day of each network that has numbers, by what was imported. */
  lastDays(): { network: string; day: Day }[] {
    return this.db
      .select({ network: tallyImports.network, day: max(tallyImports.to) })
      .from(tallyImports)
      .where(gt(tallyImports.rows, 0))
      .groupBy(tallyImports.network)
      .all()
      .flatMap(({ network, day }) => (day === null ? [] : [{ network, day }]));
  }

  /** The last day up to which everything of a network was fetched; null where nothing was. */
  fetchedUpTo(network: string): Day | null {
    const fetched = this.db
      .select()
      .from(tallyImports)
      .where(and(eq(tallyImports.network, network), eq(tallyImports.source, 'http')))
      .orderBy(asc(tallyImports.id))
      .all();
    let done: Day | null = null;
    for (const { from, to } of fetched) {
      if (from === null || to === null) continue;
      // A span that begins after a gap does not count. The next fetch closes the gap first.
      if (done === null || (to > done && from <= done + 1)) done = to;
    }
    return done;
  }

  imports(network?: string): ImportRow[] {
    const all = this.db.select().from(tallyImports);
    const own = network === undefined ? all : all.where(eq(tallyImports.network, network));
    return own.orderBy(desc(tallyImports.id)).limit(200).all();
  }

  setRelease(release: Release, who: string): void {
    const { title, platform, version, day } = release;
    this.db
      .insert(tallyReleases)
      .values({ title, platform, version, day, who })
      .onConflictDoUpdate({
        target: [tallyReleases.title, tallyReleases.platform, tallyReleases.version],
        set: { day, who },
      })
      .run();
  }

  /** Whether there was such a release. */
  dropRelease({ title, platform, version }: Omit<Release, 'day'>): boolean {
    const { changes } = this.db
      .delete(tallyReleases)
      .where(
        and(
          eq(tallyReleases.title, title),
          eq(tallyReleases.platform, platform),
          eq(tallyReleases.version, version),
        ),
      )
      .run();
    return changes > 0;
  }

  releases(title?: string): Release[] {
    const all = this.db.select().from(tallyReleases);
    const own = title === undefined ? all : all.where(eq(tallyReleases.title, title));
    return own
      .orderBy(asc(tallyReleases.day))
      .all()
      .map(({ title, platform, version, day }) => ({ title, platform, version, day }));
  }

  /** Keeps rates; returns how many are new or changed. */
  setRates(rates: readonly Rate[]): number {
    return atomically(this.db, () => {
      let changed = 0;
      for (const { currency, base, day, nanos } of rates)
        changed += this.db
          .insert(tallyRates)
          .values({ currency, base, day, nanos })
          .onConflictDoUpdate({
            target: [tallyRates.currency, tallyRates.base, tallyRates.day],
            set: { nanos },
            setWhere: sql`${tallyRates.nanos} <> excluded.nanos`,
          })
          .run().changes;
      return changed;
    });
  }

  rates(base: string): Rate[] {
    return this.db.select().from(tallyRates).where(eq(tallyRates.base, base)).all();
  }
}
