import { entryAt, valueAt } from '../../core/text/own-values.js';
import type { CollectAnswer, CollectRequest } from '../../api/inventory.js';
import { readUnitTable, type CsvOptions } from '../../core/inventory/csv.js';
import { matchUnits, unitsOf, type OtherUnits, type UnitMatch } from '../../core/inventory/match.js';
import type { InventoryReading, InvalidRow } from '../../core/inventory/model.js';
import type { Profile } from '../../core/network/model.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import type { TitleWork } from '../title-work.js';
import type { Writer } from '../store/roster-store.js';
import type { OnProgress } from '../../core/text/progress.js';
import { digestOf } from './provision-work.js';

const shownAtMost = 1000;

type Read = Pick<InventoryReading, 'source' | 'apps' | 'units'> & { odd: InvalidRow[] };

/** Brings a network's list in, and puts the IDs that belong to a title into the roster. */
export class CollectWork {
  constructor(
    private readonly context: ServiceContext,
    private readonly roster: TitleWork,
  ) {}

  async collect(
    titleId: string,
    request: CollectRequest,
    writer: Writer,
    progress: OnProgress,
  ): Promise<CollectAnswer> {
    const { profile } = this.context.profiles.get(request.network);
    this.context.roster.get(titleId);
    const read =
      request.table === undefined ? await this.ask(profile, progress) : this.table(profile, request);
    const before = this.context.roster.get(titleId);
    const others = this.others(titleId, profile);
    const { matches, unmatched, elsewhere } = matchUnits(titleId, before.title, profile, read.units, {
      others,
      apps: read.apps,
    });
    const wanted = matches.filter(
      ({ isNew, confidence }) => isNew && (confidence !== 'low' || request.takeLow),
    );
    const plan = digestOf(matches.map(({ unit, placement, platform }) => [unit.id, placement, platform]));
    if (!request.dryRun) {
      if (request.plan !== undefined && request.plan !== plan)
        throw new ServiceError('stale', 'The list has changed.', { fix: 'Review the new list.' });
      this.write(titleId, profile, wanted, writer);
      const { source, apps, units } = read;
      this.context.inventories.save(
        { network: profile.id, source, readAt: this.context.now().toISOString(), apps, units },
        { acceptNames: request.acceptNames },
      );
      this.context.events.tell({ kind: 'title', title: titleId });
    }
    return {
      title: titleId,
      network: profile.id,
      source: read.source,
      plan,
      units: read.units.length,
      matches,
      unmatched: unmatched.slice(0, shownAtMost),
      unmatchedCount: unmatched.length,
      elsewhere: elsewhere.slice(0, shownAtMost),
      elsewhereCount: elsewhere.length,
      odd: read.odd.slice(0, shownAtMost),
      oddCount: read.odd.length,
      taken: request.dryRun ? 0 : wanted.length,
      applied: !request.dryRun,
    };
  }

  private others(titleId: string, profile: Profile): OtherUnits {
    const { roster } = this.context;
    const others = roster.titleIds().filter((id) => id !== titleId);
    return unitsOf(
      profile.id,
      others.map((id) => [id, roster.get(id).title] as const),
    );
  }

  private async ask(profile: Profile, progress: OnProgress): Promise<Read> {
    const api = this.context.partners.api(profile);
    const apps = await api.apps(progress);
    const units = await api.units(progress);
    return { source: 'http', apps: apps.items, units: units.items, odd: [...apps.odd, ...units.odd] };
  }

  private table(profile: Profile, { table = '', columns, separator }: CollectRequest): Read {
    const options: CsvOptions = {
      ...(columns ? { columns } : {}),
      ...(separator === undefined ? {} : { separator }),
    };
    // A table is a network's answer too: a key that it repeats stops here.
    const read = readUnitTable(this.context.secrets.cleaner()(table), profile, options);
    if (read.fault) {
      const { message, fix, line } = read.fault;
      throw new ServiceError('invalid', message, {
        errors: [
          { field: 'table', message, fix, ...(line === undefined ? {} : { place: { line, column: 1 } }) },
        ],
        fix,
      });
    }
    const [odd] = read.odd;
    if (read.units.length === 0 && odd)
      throw new ServiceError('invalid', `No row is valid. Line ${odd.row}: ${odd.message}.`, {
        fix: `Check that this is a table of ${profile.name}, and which column is which.`,
      });
    // A table knows nothing of apps: what was known of them stays.
    const apps = this.context.inventories.find(profile.id)?.apps ?? [];
    return { source: 'csv', apps, units: read.units, odd: read.odd };
  }

  private write(titleId: string, profile: Profile, wanted: readonly UnitMatch[], writer: Writer): void {
    if (wanted.length === 0) return;
    const before = this.context.roster.get(titleId);
    const next = structuredClone(before.title);
    for (const { unit, placement, platform } of wanted) {
      const units = valueAt(next.placements, placement)?.units;
      if (units) (entryAt(units, profile.id, () => ({}))[platform] ??= {}).production = unit.id;
    }
    this.roster.save(titleId, next, before, [before.version], writer);
  }
}
