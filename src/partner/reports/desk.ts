import { daysIn, type Day } from '../../core/tally/days.js';
import type { Counts } from '../../core/tally/model.js';
import type { Profile } from '../../core/network/model.js';
import type { Report } from '../../core/network/report.js';
import type { Format } from '../../core/words/words.js';
import type { PartnerClock } from '../clock.js';
import { Refusal } from '../errors.js';
import type { Books } from '../store/books.js';
import type { Account, UnitRow } from '../store/rows.js';
import { numbersOf, type Incident } from './season.js';

/** A row of a network's report, before it is written in the network's words. */
export interface ReportRow extends Counts {
  day: Day;
  /** The instant at which a quarter of the day begins (ms), for networks that report quarters. */
  quarter: number | null;
  unit: string;
  app: string;
  country: string;
}

/** More days than this are not answered at once. */
const maxDays = 400;

/** Where the users of a simulated title are, and which part of them. */
const countries = [
  ['PT', 0.34],
  ['ES', 0.26],
  ['US', 0.22],
  ['BR', 0.18],
] as const;
/** How a day is spread over the quarters of a UTC day. */
const quarters = [0.12, 0.2, 0.38, 0.3];
const hourMs = 3_600_000;

/** Makes daily numbers up. */
export class ReportDesk {
  readonly #incidents = new Map<string, Incident[]>();

  constructor(
    private readonly books: Books,
    private readonly clock: PartnerClock,
    private readonly seed: number,
  ) {}

  /** Simulates an incident for units from a day on. */
  befall(network: string, incident: Incident): void {
    this.#incidents.set(network, [...(this.#incidents.get(network) ?? []), incident]);
  }

  reset(): void {
    this.#incidents.clear();
  }

  /**
   * Rows of an account, by day and unit. Days that are not over are left out; those that are too young may still
   * change.
   * @throws Refusal
   */
  rows(profile: Profile & { report: Report }, account: Account, from: Day, to: Day): ReportRow[] {
    const { report } = profile;
    if (to - from >= maxDays)
      throw new Refusal('unreadable', `No more than ${maxDays} days are answered at once.`);
    const today = daysIn(report.zone)(this.clock.now().getTime());
    const units = this.books.unitsOf(profile.id, account.id, 0, 100_000);
    const rows: ReportRow[] = [];
    for (let day = from; day <= Math.min(to, today - 1); day++)
      for (const unit of units) rows.push(...this.rowsOf(profile, unit, day, today));
    return rows;
  }

  /** What befalls a unit; incidents of apps name them by their ID. */
  private incidentsOf(network: string, { id, app }: UnitRow): Incident[] {
    const all = this.#incidents.get(network) ?? [];
    return all
      .filter((one) => (one.unit === undefined ? one.app === app : one.unit === id))
      .map((one) => ({ ...one, unit: id }));
  }

  /** What names the users of a unit: the identifier of its app, so that all networks of an app see the same users. */
  private usersOf(network: string, { app, id, platform }: UnitRow): string {
    const identifier = app === null ? undefined : this.books.app(network, app)?.identifier;
    return identifier === undefined ? (app ?? id) : `${platform} ${identifier}`;
  }

  private rowsOf(
    { id: network, report }: Profile & { report: Report },
    unit: UnitRow,
    day: Day,
    today: Day,
  ): ReportRow[] {
    const since = daysIn(report.zone)(Date.parse(unit.servesFrom));
    const found = numbersOf(
      this.seed,
      { id: unit.id, app: this.usersOf(network, unit), format: unit.format as Format, since },
      day,
      { incidents: this.incidentsOf(network, unit) },
    );
    if (!found || (found.requests ?? 0) === 0) return [];
    const counts = today - day <= report.settles ? provisional(found) : found;
    const base = { day, quarter: null, unit: unit.id, app: unit.app ?? '', country: '' };
    const fields = report.http?.fields;
    if (report.day === 'timestamp') {
      const begins = quartersOf(report.zone, day);
      return shared(
        counts,
        begins.map((_, at) => quarters[at % quarters.length] ?? 0),
      ).map((part, at) => ({
        ...base,
        ...part,
        quarter: begins[at] ?? 0,
      }));
    }
    if (fields?.country === undefined) return [{ ...base, ...counts }];
    const shares = countries.map(([, share]) => share);
    return shared(counts, shares).map((part, at) => ({
      ...base,
      ...part,
      country: countries[at]?.[0] ?? '',
    }));
  }
}

/** Numbers that are not settled yet: some impressions turn out not to count. */
function provisional(counts: Counts): Counts {
  return {
    ...counts,
    impressions: Math.round(counts.impressions * 1.004),
    revenue: Math.round(counts.revenue * 1.006),
  };
}

/** Numbers in parts that add up to them. */
function shared(counts: Counts, shares: readonly number[]): Counts[] {
  const whole = shares.reduce((sum, share) => sum + share, 0);
  const parts = (value: number | null): (number | null)[] => {
    if (value === null) return shares.map(() => null);
    const floors = shares.map((share) => Math.floor((value * share) / whole));
    const rest = value - floors.reduce((sum, part) => sum + part, 0);
    return floors.map((part, at) => (at === 0 ? part + rest : part));
  };
  const { requests, matched, impressions, clicks, rewards, revenue } = counts;
  const columns = [requests, matched, impressions, clicks, rewards, revenue].map(parts);
  return shares.map((_, at) => ({
    requests: columns[0]?.[at] ?? null,
    matched: columns[1]?.[at] ?? null,
    impressions: columns[2]?.[at] ?? 0,
    clicks: columns[3]?.[at] ?? null,
    rewards: columns[4]?.[at] ?? null,
    revenue: columns[5]?.[at] ?? 0,
  }));
}

/** The quarters of UTC days that begin on a day of a zone (ms). */
function quartersOf(zone: string, day: Day): number[] {
  const dayAt = daysIn(zone);
  const noon = (day * 24 + 12) * hourMs;
  return Array.from({ length: 13 }, (_, at) => noon + (at - 6) * 6 * hourMs)
    .map((at) => Math.floor(at / (6 * hourMs)) * 6 * hourMs)
    .filter((at, index, all) => all.indexOf(at) === index && dayAt(at) === day);
}
