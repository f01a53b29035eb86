import type { Day } from './days.js';
import type { SumRow } from './figures.js';
import type { AppHistory, TallyHistory, UnitHistory } from './history.js';
import type { OwnedSeries, Series } from './report.js';

/** What a history is made from. */
export interface HistoryInput extends Omit<TallyHistory, 'units' | 'apps'> {
  units: readonly OwnedSeries[];
  apps: readonly Series[];
  /** Sums of each series and day. */
  rows: readonly SumRow[];
  /** The days on which each network reported at least one row. */
  known: ReadonlyMap<string, ReadonlySet<Day>>;
}

type Values = (number | null)[];

/** Puts the numbers of each unit and app into lists, day by day. */
export function buildHistory({ units, apps, rows, known, ...rest }: HistoryInput): TallyHistory {
  const bySeries = new Map<number, SumRow[]>();
  for (const row of rows) {
    const own = bySeries.get(row.series);
    if (own) own.push(row);
    else bySeries.set(row.series, [row]);
  }
  const ends = new Map(rest.last.map(({ network, day }) => [network, day]));
  const daysOf = (series: Series) => {
    const own = bySeries.get(series.id) ?? [];
    const end = ends.get(series.network);
    return end === undefined || own.length === 0
      ? null
      : new Days(own, end, known.get(series.network) ?? new Set());
  };
  return {
    units: units.flatMap((series): UnitHistory[] => {
      const days = daysOf(series);
      if (!days) return [];
      const { network, key: unit, app, owner, appTitle } = series;
      const currency = days.currency;
      const reportsRequests = days.rows.some(({ requests }) => requests !== null);
      return [
        {
          network,
          unit,
          app,
          owner: owner ?? null,
          appTitle,
          from: days.from,
          asked: days.list((row) => (reportsRequests ? (row.requests ?? 0) : row.impressions)),
          matched: days.list((row) => row.matched, null),
          impressions: days.list((row) => row.impressions),
          revenue: days.list((row) => (row.currency === currency ? row.revenue : 0)),
          currency,
        },
      ];
    }),
    apps: apps.flatMap((series): AppHistory[] => {
      const days = daysOf(series);
      const { network, key: app } = series;
      return days
        ? [{ network, app, from: days.from, impressions: days.list((row) => row.impressions) }]
        : [];
    }),
    ...rest,
  };
}

/** The days of one series, from its first one to the last one of its network. */
class Days {
  readonly from: Day;

  constructor(
    readonly rows: readonly SumRow[],
    private readonly end: Day,
    private readonly known: ReadonlySet<Day>,
  ) {
    this.from = rows.reduce((first, { day }) => Math.min(first, day ?? end), end);
  }

  /** The currency with the most revenue. */
  get currency(): string {
    const sums = new Map<string, number>();
    for (const { currency, revenue } of this.rows) sums.set(currency, (sums.get(currency) ?? 0) + revenue);
    return [...sums].sort((one, other) => other[1] - one[1])[0]?.[0] ?? '';
  }

  /**
   * Returns one value for each day, and null for days on which the network reported nothing.
   * @param without the value of days on which the network reported, and nothing of this series
   */
  list(value: (row: SumRow) => number | null, without: number | null = 0): Values {
    const values: Values = Array.from({ length: Math.max(0, this.end - this.from + 1) }, (_, at) =>
      this.known.has(this.from + at) ? without : null,
    );
    for (const row of this.rows) {
      const at = (row.day ?? this.end) - this.from;
      const found = value(row);
      if (at < 0 || at >= values.length || found === null) continue;
      values[at] = (values[at] ?? 0) + found;
    }
    return values;
  }
}
