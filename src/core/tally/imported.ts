import * as z from 'zod';
import { InvalidRow } from '../inventory/model.js';
import { DayText, dayText, spansOf, type Day, type Span } from './days.js';
import type { GoneRow, WrittenRow } from './model.js';

export const DaySpan = z
  .object({ from: DayText, to: DayText })
  .meta({ description: 'Days in a row, the first and the last included.' });
export type DaySpan = z.infer<typeof DaySpan>;

export const ImportSummary = z
  .object({
    network: z.string(),
    source: z.enum(['csv', 'http']),
    name: z.string().meta({ description: 'The name of the file; empty for what was fetched.' }),
    days: DaySpan.nullable().meta({ description: 'The days that have rows.' }),
    rows: z.number().int().meta({ description: 'Rows that make sense.' }),
    added: z.number().int(),
    same: z.number().int().meta({ description: 'Rows that were on record already, with these numbers.' }),
    restated: z
      .array(
        z.object({
          currency: z.string(),
          days: z.array(DaySpan),
          rows: z.number().int(),
          gone: z.number().int().meta({ description: 'How many of the rows are no longer reported.' }),
          before: z.number().int().meta({ description: 'Revenue of the restated rows before, in micros.' }),
          after: z.number().int().meta({ description: 'Revenue of the restated rows now, in micros.' }),
          total: z.number().int().meta({ description: 'Revenue of these days before, in micros.' }),
        }),
      )
      .meta({ description: 'Days whose numbers replace others.' }),
    repeated: z.object({ count: z.number().int(), lines: z.array(z.number().int()) }).meta({
      description: 'Rows for a unit, day and country that an earlier row is for; the last one counts.',
    }),
    gaps: z.array(DaySpan).meta({
      description: 'Days without any row of the network, between what was on record and what came.',
    }),
    unknownColumns: z.array(z.string()),
    missingColumns: z.array(z.string()),
    odd: z.array(InvalidRow).meta({ description: 'Rows that were left out; at most 1000, see `oddCount`.' }),
    oddCount: z.number().int(),
    unitsNotOnRecord: z.number().int().meta({ description: 'Units that no title holds.' }),
  })
  .meta({ title: 'Import', description: 'What an import of daily numbers brought.' });
export type ImportSummary = z.infer<typeof ImportSummary>;

/** More lines, rows and units than this are counted only. */
const listed = { odd: 1_000, repeated: 100 };

interface Restated {
  days: Set<Day>;
  rows: number;
  gone: number;
  before: number;
  after: number;
}

/** Counts what an import brings while it goes on. */
export class ImportCount {
  readonly #days = new Set<Day>();
  readonly #units = new Set<string>();
  readonly #restated = new Map<string, Restated>();
  /** The revenue of new rows, by currency and day. */
  readonly #addedRevenue = new Map<string, number>();
  readonly #odd: InvalidRow[] = [];
  readonly #lines: number[] = [];
  #oddCount = 0;
  #repeated = 0;
  #rows = 0;
  #added = 0;
  #same = 0;

  get rows(): number {
    return this.#rows;
  }

  get days(): ReadonlySet<Day> {
    return this.#days;
  }

  /** The units that have rows. */
  get units(): ReadonlySet<string> {
    return this.#units;
  }

  /** The days that were restated, by currency. */
  get restated(): ReadonlyMap<string, { days: ReadonlySet<Day> }> {
    return this.#restated;
  }

  /** Rows that were left out, the first of them. */
  get left(): { odd: readonly InvalidRow[]; oddCount: number } {
    return { odd: this.#odd, oddCount: this.#oddCount };
  }

  add(written: readonly WrittenRow[], odd: readonly InvalidRow[]): void {
    this.#oddCount += odd.length;
    this.#odd.push(...odd.slice(0, listed.odd - this.#odd.length));
    this.#rows += written.length;
    for (const { line, row, was, before } of written) {
      this.#days.add(row.day);
      if (row.unit !== '') this.#units.add(row.unit);
      if (was === 'new') this.addNew(row);
      else if (was === 'same') this.#same++;
      else if (was === 'restated') this.restate(row, before, row.revenue);
      else {
        this.#repeated++;
        if (this.#lines.length < listed.repeated) this.#lines.push(line);
      }
    }
  }

  /** Counts rows that were on record, and are no longer reported. */
  drop(gone: readonly GoneRow[]): void {
    for (const row of gone) this.restate(row, row.revenue, 0).gone++;
  }

  private addNew({ currency, day, revenue }: WrittenRow['row']): void {
    this.#added++;
    const key = `${currency} ${day}`;
    this.#addedRevenue.set(key, (this.#addedRevenue.get(key) ?? 0) + revenue);
  }

  private restate(
    { currency, day }: Pick<GoneRow, 'currency' | 'day'>,
    before: number,
    after: number,
  ): Restated {
    const found = this.#restated.get(currency) ?? { days: new Set(), rows: 0, gone: 0, before: 0, after: 0 };
    this.#restated.set(currency, found);
    found.days.add(day);
    found.rows++;
    found.before += before;
    found.after += after;
    return found;
  }

  private addedIn(days: ReadonlySet<Day>, currency: string): number {
    let sum = 0;
    for (const day of days) sum += this.#addedRevenue.get(`${currency} ${day}`) ?? 0;
    return sum;
  }

  /**
   * The summary.
   * @param known the days of the network that have rows on record now, in order
   * @param totalOf the revenue of days in a currency, as it is now (micros)
   */
  summary(
    about: Pick<
      ImportSummary,
      'network' | 'source' | 'name' | 'unknownColumns' | 'missingColumns' | 'unitsNotOnRecord'
    >,
    known: readonly Day[],
    totalOf: (days: ReadonlySet<Day>, currency: string) => number,
  ): ImportSummary {
    const days = spanOf(this.#days);
    return {
      ...about,
      days: days && spanOut(days),
      rows: this.#rows,
      added: this.#added,
      same: this.#same,
      restated: [...this.#restated].map(([currency, { days: restated, rows, gone, before, after }]) => ({
        currency,
        days: spansOf(restated).map(spanOut),
        rows,
        gone,
        before,
        after,
        total: totalOf(restated, currency) - after + before - this.addedIn(restated, currency),
      })),
      repeated: { count: this.#repeated, lines: this.#lines },
      gaps: gapsIn(known)
        .filter(({ from, to }) => days && to >= days.from - 1 && from <= days.to + 1)
        .map(spanOut),
      odd: this.#odd,
      oddCount: this.#oddCount,
    };
  }
}

/** The first and the last of some days; null where there are none. */
export function spanOf(days: Iterable<Day>): Span | null {
  let span: Span | null = null;
  for (const day of days)
    span =
      span === null ? { from: day, to: day } : { from: Math.min(span.from, day), to: Math.max(span.to, day) };
  return span;
}

/** Days that lack between some days in order. */
export function gapsIn(days: readonly Day[]): Span[] {
  return days.flatMap((day, at) => {
    const next = days[at + 1];
    return next === undefined || next === day + 1 ? [] : [{ from: day + 1, to: next - 1 }];
  });
}

/** A span as answers write it. */
export function spanOut({ from, to }: Span): DaySpan {
  return { from: dayText(from), to: dayText(to) };
}
