import type {
  CompareAnswer,
  CompareQuery,
  FiguresAnswer,
  FiguresQuery,
  WeekAnswer,
} from '../../api/tally.js';
import { dayText, readDay, readSpan, type Day, type Span } from '../../core/tally/days.js';
import type { Sums, SumRow } from '../../core/tally/figures.js';
import { spanOut } from '../../core/tally/imported.js';
import { Owners } from '../../core/tally/owners.js';
import { changesOf } from '../../core/tally/changes.js';
import { Exchange } from '../../core/tally/rates.js';
import {
  figuresOf,
  neededFor,
  ownedUnits,
  type FigureRow,
  type OwnedSeries,
} from '../../core/tally/report.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';

/** The number of days shown by default. */
const usualDays = '28d';
/** A network whose numbers end this many days before the others is not waited for. */
const longSilent = 14;

interface Subject {
  title: string | null;
  series: OwnedSeries[];
  /** For queries: null for all units. */
  ids: readonly number[] | null;
}

/** Shows daily numbers. */
export class FigureWork {
  constructor(private readonly context: ServiceContext) {}

  figures(query: FiguresQuery): FiguresAnswer {
    const subject = this.subjectOf(query.title);
    const span = this.spanOf(query, subject);
    const exchange = this.exchangeOf(query.in);
    const { by } = query;
    const head = this.headOf(subject, query.in);
    if (!span) return { ...head, unconverted: [], by, days: null, rows: [], totals: [], daily: [] };
    const found = this.sums(subject, span, neededFor(by, exchange !== null));
    const releases = this.context.tallies.releases(query.title);
    const { rows, totals, unconverted } = figuresOf({
      rows: found,
      series: subject.series,
      by,
      title: subject.title,
      releases,
      exchange,
    });
    const daily = figuresOf({
      rows: this.sums(subject, span, { series: false, day: true, country: false }),
      series: subject.series,
      by: 'day',
      title: subject.title,
      releases: [],
      exchange,
    });
    return {
      ...head,
      unconverted,
      by,
      days: spanOut(span),
      rows: rows.map((row) => ({ key: row.key, unit: row.unit, ...figureOut(row) })),
      totals: totals.map(figureOut),
      daily: daily.rows.map(({ key, currency, revenue }) => ({ day: key, currency, revenue })),
    };
  }

  compare(query: CompareQuery): CompareAnswer {
    const subject = this.subjectOf(query.title);
    const exchange = this.exchangeOf(query.in);
    const head = this.headOf(subject, query.in);
    const last = this.lastDay(subject);
    if (last === null) return { ...head, unconverted: [], days: null, against: null, rows: [], totals: [] };
    const span = spanNamed(query.this, last, 'this');
    const before = { from: span.from - (span.to - span.from + 1), to: span.from - 1 };
    const against = query.against === 'previous' ? before : spanNamed(query.against, last, 'against');
    if (against.to >= span.from && span.to >= against.from)
      throw new ServiceError('invalid', 'The days to compare overlap.', {
        fix: 'Choose earlier days to compare with, or leave out against.',
      });
    const apart = { series: true, day: exchange !== null, country: false };
    const changes = changesOf({
      before: this.sums(subject, against, apart),
      after: this.sums(subject, span, apart),
      series: subject.series,
      exchange,
    });
    return { ...head, ...changes, days: spanOut(span), against: spanOut(against) };
  }

  /** What each unit earned in the last seven days. */
  week(title: string | undefined): WeekAnswer {
    const subject = this.subjectOf(title);
    const last = this.lastDay(subject);
    if (last === null) return { days: null, units: [] };
    const span = { from: last - 6, to: last };
    const series = new Map(subject.series.map((one) => [one.id, one]));
    const found = new Map<string, WeekAnswer['units'][number]>();
    for (const row of this.sums(subject, span, { series: true, day: true, country: false })) {
      const one = series.get(row.series);
      if (!one || row.day === null) continue;
      const name = `${row.series} ${row.currency}`;
      const unit = found.get(name) ?? {
        title: one.title,
        placement: one.owner?.placement ?? null,
        platform: one.owner?.platform ?? null,
        network: one.network,
        currency: row.currency,
        revenue: Array.from({ length: 7 }, () => 0),
      };
      found.set(name, unit);
      unit.revenue[row.day - span.from] = row.revenue;
    }
    return { days: spanOut(span), units: [...found.values()] };
  }

  private subjectOf(title: string | undefined): Subject {
    const { tallies, roster, profiles } = this.context;
    if (title !== undefined) roster.get(title);
    const owners = new Owners(roster.roster(), profiles.profiles());
    const known = tallies.series();
    const all = ownedUnits(known, owners);
    // Without totals of apps, all that is on record is wanted, which needs no list of it.
    if (title === undefined)
      return { title: null, series: all, ids: all.length === known.length ? null : all.map(({ id }) => id) };
    const series = all.filter((one) => one.title === title);
    return { title, series, ids: series.map(({ id }) => id) };
  }

  private sums({ ids }: Subject, span: Span, apart: ReturnType<typeof neededFor>): SumRow[] {
    const rows = this.context.tallies.sums(ids, span, apart);
    // Past this, JavaScript's numbers no longer count single micros.
    if (rows.some(({ revenue }) => !Number.isSafeInteger(revenue)))
      throw new ServiceError('invalid', 'The amounts of these days are too large to be added up exactly.', {
        fix: 'Choose fewer days. An import with the wrong unit of revenue can cause this.',
      });
    return rows;
  }

  private spanOf(query: Pick<FiguresQuery, 'from' | 'to' | 'days'>, subject: Subject): Span | null {
    const known = this.context.tallies.span(subject.ids);
    const last = this.lastDay(subject);
    if (!known || last === null) return null;
    if (query.days !== undefined) return spanNamed(query.days, last, 'days');
    const usual = spanNamed(usualDays, last, 'days');
    const to = readDay(query.to ?? '') ?? (query.from === undefined ? usual.to : last);
    const from = readDay(query.from ?? '') ?? (query.to === undefined ? usual.from : known.from);
    if (from <= to) return { from, to };
    throw new ServiceError('invalid', `${dayText(from)} is after ${dayText(to)}.`, {
      fix: 'Name the first day as from, and the last one as to.',
    });
  }

  /** The last day that all networks of these units have reported. Networks that stopped long before are ignored. */
  private lastDay({ series }: Subject): Day | null {
    const networks = new Set(series.map(({ network }) => network));
    const reported = this.context.tallies.lastDays().filter(({ network }) => networks.has(network));
    const days = reported.map(({ day }) => day);
    if (days.length === 0) return null;
    const newest = Math.max(...days);
    return Math.min(...days.filter((day) => day > newest - longSilent));
  }

  private exchangeOf(currency: string | undefined): Exchange | null {
    return currency === undefined ? null : new Exchange(currency, this.context.tallies.rates(currency));
  }

  private headOf({ title, series }: Subject, currency: string | undefined) {
    const networks = [...new Set(series.map(({ network }) => network))].sort();
    const zones = networks.flatMap((network) => {
      const zone = this.context.profiles.find(network)?.profile.report?.zone;
      return zone === undefined ? [] : [{ network, zone }];
    });
    return { title, in: currency ?? null, zones };
  }
}

/** @throws ServiceError `invalid` */
function spanNamed(text: string, last: Day, field: string): Span {
  const span = readSpan(text, last);
  if (span) return span;
  throw new ServiceError('invalid', `${field}: “${text}” names no days.`, {
    fix: 'Write 7d for the last seven days on record, or 2026-10-01..2026-10-07.',
  });
}

function figureOut(row: Omit<FigureRow, 'key' | 'unit'> & Sums) {
  const { currency, requests, matched, fillRate, impressions, showRate, clicks, clickRate, rewards } = row;
  const { revenue, ecpm, share } = row;
  return {
    currency,
    requests,
    matched,
    fillRate,
    impressions,
    showRate,
    clicks,
    clickRate,
    rewards,
    revenue,
    ecpm,
    share,
  };
}
