import type { OnProgress } from '../../core/text/progress.js';
import { valueAt } from '../../core/text/own-values.js';
import {
  decodeApp,
  decodeUnit,
  encodeApp,
  encodeUnit,
  unitDecoder,
  type Decoded,
} from '../../core/inventory/dialect.js';
import type { InventoryApp, InventoryUnit, InvalidRow, UnitSettings } from '../../core/inventory/model.js';
import type { InventoryHttp } from '../../core/network/exchange.js';
import type { Profile } from '../../core/network/model.js';
import type { CreateApp, CreateUnit } from '../../core/provision/plan.js';
import { ServiceError } from '../errors.js';
import type { Secret } from '../secrets.js';
import type { NamedHost } from '../../api/outgoing.js';
import { asRow, cursorOf, type Row } from './json-answer.js';
import { partnerCall, type CallLimits } from './partner-call.js';

/** What opens a network's interface: a key, and the hosts that it may be sent to. */
export interface Access {
  key: Secret;
  named: readonly NamedHost[];
  /** Takes secrets out of text. */
  clean: (text: string) => string;
}

/** A list as it was read: what made sense, and the rows that did not. */
export interface ReadList<Item> {
  items: Item[];
  odd: InvalidRow[];
}

/** Lists longer than this are refused. */
const maxItems = 500_000;
/** How often a list that changes while being read is read again. */
const maxPasses = 5;

/** Speaks with a network's inventory, in the words of its profile. */
export class PartnerApi {
  private readonly http: InventoryHttp;

  constructor(
    private readonly profile: Profile,
    http: InventoryHttp,
    private readonly address: string,
    private readonly access: Access,
    private readonly limits: CallLimits,
  ) {
    this.http = http;
  }

  async apps(progress?: OnProgress): Promise<ReadList<InventoryApp>> {
    const { apps } = this.http;
    if (!apps) return { items: [], odd: [] };
    return this.list(apps, 'apps', (row) => decodeApp(this.profile, apps.fields, row), progress);
  }

  async units(progress?: OnProgress): Promise<ReadList<InventoryUnit>> {
    const { units } = this.http;
    return this.list(units, 'units', unitDecoder(this.profile, units.fields), progress);
  }

  async createApp(step: CreateApp, idempotencyKey: string): Promise<InventoryApp> {
    const { apps } = this.http;
    if (!apps) throw this.odd(`${this.profile.name} keeps no apps.`);
    const { platform, identifier, name, audience } = step;
    const body = encodeApp(this.profile, apps.fields, {
      platform,
      identifier,
      name,
      audience,
      status: null,
      terms: null,
    });
    const row = await this.call('POST', apps.path, body, idempotencyKey);
    return this.sense(decodeApp(this.profile, apps.fields, asRow(row)), 'app');
  }

  async createUnit(step: CreateUnit, app: string | null, idempotencyKey: string): Promise<InventoryUnit> {
    const { units } = this.http;
    const { platform, format, name, settings } = step;
    const unit = { name, format, platform, app, status: null, servesFrom: null, settings };
    const row = await this.call(
      'POST',
      units.path,
      encodeUnit(this.profile, units.fields, unit),
      idempotencyKey,
    );
    return this.sense(decodeUnit(this.profile, units.fields, asRow(row)), 'unit');
  }

  async changeSettings(unit: InventoryUnit, settings: UnitSettings): Promise<InventoryUnit> {
    const { units } = this.http;
    const whole = encodeUnit(this.profile, units.fields, { ...unit, settings });
    const kept = [
      units.fields.refresh,
      units.fields.content,
      units.fields['reward-amount'],
      units.fields['reward-item'],
      units.fields.skippable,
    ];
    const body = Object.fromEntries(Object.entries(whole).filter(([name]) => kept.includes(name)));
    const row = await this.call('PATCH', `${units.path}/${encodeURIComponent(unit.id)}`, body);
    return this.sense(decodeUnit(this.profile, units.fields, asRow(row)), 'unit');
  }

  /**
   * Reads a list page by page. A list that was seen to change is read again, until one reading is whole or
   * nothing new comes; every item is taken once.
   */
  private async list<Item extends { id: string }>(
    { path, items, fields }: { path: string; items: string; fields: { id: string } },
    what: string,
    decode: (row: Row) => Decoded<Item>,
    progress?: OnProgress,
  ): Promise<ReadList<Item>> {
    const all = new Map<string, Item>();
    let odd: InvalidRow[] = [];
    for (let pass = 1; pass <= maxPasses; pass++) {
      const before = all.size;
      const seen = new Set<string>();
      odd = [];
      let twice = false;
      let total: number | undefined;
      let number = 0;
      for await (const page of this.pages(path, items)) {
        total = page.total ?? total;
        for (const row of page.rows) {
          number++;
          const decoded = decode(row);
          if (decoded.message !== null) {
            const id =
              typeof valueAt(row, fields.id) === 'string'
                ? String(valueAt(row, fields.id)).slice(0, 200)
                : null;
            odd.push({ row: number, id, message: decoded.message });
            continue;
          }
          twice ||= seen.has(decoded.value.id);
          seen.add(decoded.value.id);
          all.set(decoded.value.id, decoded.value);
        }
        if (number > maxItems) throw this.odd(`The list of ${what} has more than ${maxItems} entries.`);
        progress?.({
          doing: `reading the ${what} of ${this.profile.name}`,
          done: Math.min(all.size, total ?? all.size),
          total: total ?? 0,
        });
      }
      if (all.size === 0 && odd.length > 0) break;
      if (total === undefined) {
        // Nobody counts this list, so only a second reading that brings nothing new shows that it is whole.
        if (pass > 1 && all.size === before) return { items: [...all.values()], odd };
        continue;
      }
      // A calm reading that is shorter than what was gathered before: the rest has gone meanwhile.
      if (!twice && seen.size + odd.length === total && all.size > seen.size)
        for (const id of all.keys()) if (!seen.has(id)) all.delete(id);
      if (all.size === total) return { items: [...all.values()], odd: [] };
      // Rows that made no sense are read a second time before they are held against the network.
      if (pass > 1 && all.size + odd.length === total) return { items: [...all.values()], odd };
    }
    const [first] = odd;
    if (all.size === 0 && first)
      throw this.odd(
        `None of the ${odd.length} ${what} that ${this.profile.name} lists makes sense: ${first.message}.`,
      );
    throw this.odd(`The list of ${what} kept changing while it was read, ${maxPasses} times in a row.`);
  }

  /** The pages of a list, in order; the next one is fetched while the last is processed. */
  private async *pages(path: string, items: string): AsyncGenerator<{ rows: Row[]; total?: number }> {
    const { page } = this.http;
    const used = new Set<string>();
    const ask = (cursor: string | undefined) => {
      const query = new URLSearchParams({ [page.size]: String(page.limit) });
      if (cursor !== undefined) {
        query.set(page.cursor, cursor);
        used.add(cursor);
      }
      const asked = this.call('GET', `${path}?${query}`, undefined, undefined, (answer) => {
        if (!Array.isArray(valueAt(asRow(answer), items))) return `its answer has no list “${items}”`;
        const next = cursorOf(valueAt(asRow(answer), page.next));
        return next !== undefined && used.has(next) ? 'its pages form a loop' : null;
      });
      // Nobody may be waiting for it yet when it fails; whoever comes for it hears of it then.
      asked.catch(() => undefined);
      return asked;
    };
    let coming: Promise<unknown> | undefined = ask(undefined);
    while (coming) {
      const body = asRow(await coming);
      const next = cursorOf(valueAt(body, page.next));
      coming = next === undefined ? undefined : ask(next);
      const total = page.total === undefined ? undefined : valueAt(body, page.total);
      yield {
        rows: (valueAt(body, items) as unknown[]).map(asRow),
        ...(typeof total === 'number' ? { total } : {}),
      };
    }
  }

  private call(
    method: 'GET' | 'POST' | 'PATCH',
    path: string,
    body?: Row,
    idempotencyKey?: string,
    fault?: (answer: unknown) => string | null,
  ): Promise<unknown> {
    return partnerCall(
      {
        network: this.profile.name,
        method,
        url: `${this.address}${path}`,
        headers: {
          [this.http.header]: `${this.http.prefix}${this.access.key.reveal()}`,
          ...(idempotencyKey === undefined ? {} : { 'Idempotency-Key': idempotencyKey }),
        },
        ...(body === undefined ? {} : { body }),
        ...(fault ? { fault } : {}),
        keyName: this.access.key.toString(),
        named: this.access.named,
        clean: this.access.clean,
      },
      this.limits,
    );
  }

  private sense<Item>({ value, message }: Decoded<Item>, what: string): Item {
    if (value !== null) return value;
    throw this.odd(
      `${this.profile.name} answered with ${what === 'app' ? 'an app' : 'a unit'} that makes no sense: ${message ?? ''}.`,
    );
  }

  private odd(message: string): ServiceError {
    return new ServiceError('partner-odd', message, {
      fix: 'Nothing was written. Check that the profile, the address and the key belong to this network.',
    });
  }
}
