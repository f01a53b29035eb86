import { counted } from '../../core/text/counted.js';
import { ImportCount, spanOf, type ImportSummary } from '../../core/tally/imported.js';
import type { LinedRow } from '../../core/tally/table.js';
import type { InvalidRow } from '../../core/inventory/model.js';
import { dayText, type Day, type Span } from '../../core/tally/days.js';
import { Owners } from '../../core/tally/owners.js';
import type { ServiceContext } from '../context.js';
import type { Writer } from '../store/roster-store.js';

/** Rows of one transaction: they take about a tenth of a second, and others are served between two of them. */
const batch = 8_000;

/** What an import is of. */
export interface ImportOf {
  network: string;
  source: 'csv' | 'http';
  name: string;
}

/** One import of daily numbers, from its beginning to its summary. What was written stays, whatever comes after it. */
export class ImportRun {
  readonly count = new ImportCount();
  #id = 0;
  readonly #waiting: LinedRow[] = [];

  constructor(
    private readonly context: ServiceContext,
    private readonly of: ImportOf,
    private readonly writer: Writer,
  ) {}

  begin(): void {
    const { who, at } = this.writer;
    this.#id = this.context.tallies.begin({ ...this.of, at, who });
  }

  write(rows: readonly LinedRow[], odd: readonly InvalidRow[]): void {
    this.count.add([], odd);
    this.#waiting.push(...rows);
    while (this.#waiting.length >= batch) this.flush();
  }

  /** Writes what waits to be written together. */
  flush(): void {
    const part = this.#waiting.splice(0, batch);
    if (part.length > 0) this.count.add(this.context.tallies.write(this.of, this.#id, part), []);
  }

  /** Removes rows that an earlier fetch brought and the network no longer reports, on days that were fetched completely. */
  drop(span: Span): void {
    this.flush();
    this.count.drop(this.context.tallies.drop(this.of.network, this.#id, span));
  }

  /** Notes the days that were read to their end, and whether these are all. */
  reached(span: Span | null, complete: boolean): void {
    const { from = null, to = null } = span ?? {};
    this.context.tallies.reach(this.#id, { from, to, rows: this.count.rows, complete });
  }

  summary(columns: Pick<ImportSummary, 'unknownColumns' | 'missingColumns'>): ImportSummary {
    const { network } = this.of;
    const { tallies, roster, profiles } = this.context;
    const owners = new Owners(roster.roster(), profiles.profiles());
    const span = spanOf(this.count.days);
    const all: Span = { from: span ? span.from - 366 : 0, to: span ? span.to + 366 : 0 };
    const series = tallies.series(network).map(({ id }) => id);
    return this.count.summary(
      {
        ...this.of,
        ...columns,
        unitsNotOnRecord: [...this.count.units].filter((unit) => !owners.unit(network, unit)).length,
      },
      span ? tallies.days(series, all) : [],
      (days, currency) => this.revenueOf(series, days, currency),
    );
  }

  private revenueOf(series: readonly number[], days: ReadonlySet<Day>, currency: string): number {
    const span = spanOf(days);
    if (!span) return 0;
    return this.context.tallies
      .sums(series, span, { series: false, day: true, country: false })
      .filter((row) => row.currency === currency && row.day !== null && days.has(row.day))
      .reduce((sum, { revenue }) => sum + revenue, 0);
  }
}

/** Describes how much of an interrupted import was kept. */
export function reached({ rows, days }: ImportCount): string {
  const span = spanOf(days);
  return span === null
    ? 'Nothing was saved.'
    : `${counted(rows, 'row')} kept, up to ${dayText(span.to)}. Import it again: rows that are on record do not count twice.`;
}
