import { compareAppAds, neededRecords } from '../../core/roster/app-ads-needs.js';
import { buildHistory } from '../../core/tally/build-history.js';
import type { Day } from '../../core/tally/days.js';
import { historyDays, type TallyHistory } from '../../core/tally/history.js';
import { Owners } from '../../core/tally/owners.js';
import { ownedUnits } from '../../core/tally/report.js';
import { tallyFindings, type TallyFinding } from '../../core/tallying.js';
import type { ServiceContext } from '../context.js';

/** Daily numbers as rules look at them. */
export class HistoryWork {
  constructor(private readonly context: ServiceContext) {}

  /** Those of a title, or with null those that belong to none. Undefined where no network has reported anything. */
  of(title: string | null): TallyHistory | undefined {
    const { tallies, roster, profiles } = this.context;
    const reported = tallies.lastDays();
    const newest = Math.max(0, ...reported.map(({ day }) => day));
    if (reported.length === 0) return undefined;
    const owners = new Owners(roster.roster(), profiles.profiles());
    const series = tallies.series();
    const units = ownedUnits(series, owners).filter(
      (unit) => unit.title === title || (title !== null && unit.appTitle === title),
    );
    const apps = series.filter(
      ({ kind, network, key }) => kind === 'app' && (owners.app(network, key)?.title ?? null) === title,
    );
    const span = { from: newest - historyDays + 1, to: newest };
    const ids = [...units, ...apps].map(({ id }) => id);
    const known = new Map<string, ReadonlySet<Day>>();
    const inTables = reported.flatMap(({ network }) =>
      tallies.fetchedUpTo(network) === null ? [network] : [],
    );
    for (const network of new Set([...units, ...apps].map((one) => one.network))) {
      // A fetch brings all of an account. A table may be of one title: that it lacks another one says nothing.
      const those = inTables.includes(network) ? [...units, ...apps] : series;
      const all = those.filter((one) => one.network === network).map(({ id }) => id);
      known.set(network, new Set(tallies.days(all, span)));
    }
    const last = reported.map(({ network, day }) => {
      const days = inTables.includes(network) ? known.get(network) : undefined;
      return { network, day: days && days.size > 0 ? Math.max(...days) : day };
    });
    return buildHistory({
      units,
      apps,
      rows: tallies.sums(ids, span, { series: true, day: true, country: false }),
      known,
      last,
      inTables,
      releases: title === null ? [] : tallies.releases(title),
      former: title === null ? [] : this.formerUnits(title),
      lacksAppAds: this.lacksAppAds(),
    });
  }

  /** What the rules find in the numbers of a title, or of those that belong to none. */
  findings(id: string | null, tally = this.of(id)): TallyFinding[] {
    if (!tally) return [];
    const { roster, profiles } = this.context;
    return tallyFindings({
      title: id === null ? null : { id, title: roster.get(id).title },
      profiles: profiles.profiles(),
      tally,
      now: this.context.now().toISOString(),
    });
  }

  /** Production units that placements had before. */
  private formerUnits(title: string): TallyHistory['former'] {
    return this.context.roster
      .formerValues(title, 'placements.%.units.%.production')
      .flatMap(({ path, was }) => {
        const [, placement = '', , network = '', platform] = path.split('.');
        if (typeof was !== 'string' || (platform !== 'android' && platform !== 'ios')) return [];
        return [{ network, unit: was, placement, platform }];
      });
  }

  private lacksAppAds(): string[] {
    const { steps, roster, profiles } = this.context;
    const seen = steps.appAds();
    if (!seen) return [];
    const compared = compareAppAds(seen.text, neededRecords(roster.roster(), profiles.profiles()));
    return [...new Set(compared.filter(({ state }) => state !== 'there').map(({ network }) => network))];
  }
}
