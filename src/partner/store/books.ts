import { readPattern } from '../../core/text/patterns.js';
import { randomBytes } from 'node:crypto';
import { and, asc, count, eq, sql } from 'drizzle-orm';
import { durationSeconds } from '../../core/words/durations.js';
import { makeMatching } from '../../core/network/make-id.js';
import type { Draw } from '../../core/text/seeded.js';
import { samplesOf } from '../../core/network/samples.js';
import type { IdKind, Profile } from '../../core/network/model.js';
import type { Format, Platform } from '../../core/words/words.js';
import type { InventoryApp, UnitSettings, UnitStatus } from '../../core/inventory/model.js';
import type { PartnerClock } from '../clock.js';
import { Refusal } from '../errors.js';
import type { PartnerDb } from './open.js';
import { accounts, adEvents, ads, answers, apps, devices, listings, sites, units } from './schema.js';
import { type Account, hashOf, type AppRow, type GivenUnit, type UnitRow } from './rows.js';

/** The partner's books: the one place that reads and writes them. */
export class Books {
  constructor(
    private readonly db: PartnerDb,
    private readonly clock: PartnerClock,
    private readonly draw: Draw,
  ) {}

  /** Opens an account. Its key is given out once and kept as a hash only. */
  openAccount(
    profile: Profile,
    name: string,
    given: { key?: string; number?: string } = {},
  ): { account: Account; key: string } {
    const key = given.key ?? `${profile.id.slice(0, 2)}_${randomBytes(18).toString('base64url')}`;
    const number = given.number ?? this.newNumber(profile);
    const account = this.db
      .insert(accounts)
      .values({ network: profile.id, name, number, keyHash: hashOf(key) })
      .returning()
      .get();
    return { account, key };
  }

  accountByKey(network: string, key: string): Account | undefined {
    return this.db
      .select()
      .from(accounts)
      .where(and(eq(accounts.network, network), eq(accounts.keyHash, hashOf(key))))
      .get();
  }

  accountById(id: number): Account | undefined {
    return this.db.select().from(accounts).where(eq(accounts.id, id)).get();
  }

  accountsOf(network: string): Account[] {
    return this.db.select().from(accounts).where(eq(accounts.network, network)).all();
  }

  appsOf(network: string, account: number, from: number, limit: number): AppRow[] {
    return this.db
      .select()
      .from(apps)
      .where(and(eq(apps.network, network), eq(apps.account, account)))
      .orderBy(asc(apps.row))
      .limit(limit)
      .offset(from)
      .all();
  }

  unitsOf(network: string, account: number, from: number, limit: number): UnitRow[] {
    return this.db
      .select()
      .from(units)
      .where(and(eq(units.network, network), eq(units.account, account)))
      .orderBy(asc(units.row))
      .limit(limit)
      .offset(from)
      .all();
  }

  countOf(what: 'apps' | 'units', network: string, account: number): number {
    const table = what === 'apps' ? apps : units;
    const found = this.db
      .select({ total: count() })
      .from(table)
      .where(and(eq(table.network, network), eq(table.account, account)))
      .get();
    return found?.total ?? 0;
  }

  app(network: string, id: string): AppRow | undefined {
    return this.db
      .select()
      .from(apps)
      .where(and(eq(apps.network, network), eq(apps.id, id)))
      .get();
  }

  appByIdentifier(network: string, platform: Platform, identifier: string): AppRow | undefined {
    return this.db
      .select()
      .from(apps)
      .where(and(eq(apps.network, network), eq(apps.platform, platform), eq(apps.identifier, identifier)))
      .get();
  }

  unit(network: string, id: string): UnitRow | undefined {
    return this.db
      .select()
      .from(units)
      .where(and(eq(units.network, network), eq(units.id, id)))
      .get();
  }

  addApp(
    profile: Profile,
    account: Account,
    app: {
      platform: Platform;
      identifier: string;
      name: string;
      audience: string;
      id?: string;
      terms?: boolean;
    },
  ): AppRow {
    const id = app.id ?? this.newId(profile, 'app', app.platform, account);
    const values = { ...app, id, network: profile.id, account: account.id, terms: app.terms ?? false };
    return this.db.insert(apps).values(values).returning().get();
  }

  addUnit(profile: Profile, account: Account, unit: GivenUnit): UnitRow {
    const { serves, ...values } = unit;
    const id = unit.id ?? this.newId(profile, 'unit', unit.platform, account, unit.format);
    const delay = serves ? 0 : durationSeconds(profile['serving-delay'] ?? '1s');
    const usual = new Date(this.clock.now().getTime() + delay * 1000).toISOString();
    return this.db
      .insert(units)
      .values({
        ...values,
        id,
        network: profile.id,
        account: account.id,
        status: 'active',
        servesFrom: unit.servesFrom ?? usual,
      })
      .returning()
      .get();
  }

  /** Many units at once, for trying what is large. */
  addMany(profile: Profile, account: Account, app: string | null, howMany: number): void {
    const formats = Object.keys(profile.formats) as Format[];
    this.db.transaction(() => {
      for (let at = 0; at < howMany; at++)
        this.addUnit(profile, account, {
          app,
          platform: at % 2 === 0 ? 'android' : 'ios',
          format: formats[at % formats.length] ?? 'banner',
          name: `many ${String(at).padStart(6, '0')}`,
          settings: {},
        });
    });
  }

  changeUnit(
    network: string,
    id: string,
    change: { name?: string; status?: UnitStatus; format?: Format; settings?: UnitSettings },
  ): UnitRow {
    const changed = this.db
      .update(units)
      .set(change)
      .where(and(eq(units.network, network), eq(units.id, id)))
      .returning()
      .get();
    if (!changed) throw new Refusal('not-found', `There is no ${id}.`);
    return changed;
  }

  dropUnit(network: string, id: string): void {
    this.db
      .delete(units)
      .where(and(eq(units.network, network), eq(units.id, id)))
      .run();
  }

  acceptTerms(network: string, id: string): void {
    this.db
      .update(apps)
      .set({ terms: true })
      .where(and(eq(apps.network, network), eq(apps.id, id)))
      .run();
  }

  /** The answer that a call with this key got before; a key that was used for something else is refused. */
  answered(account: number, key: string, request: string): { status: number; body: unknown } | undefined {
    const row = this.db
      .select()
      .from(answers)
      .where(and(eq(answers.account, account), eq(answers.key, key)))
      .get();
    if (row && row.request !== request)
      throw new Refusal('key-reused', 'This idempotency key was used for another request.');
    return row && { status: row.status, body: row.body };
  }

  keepAnswer(account: number, key: string, request: string, status: number, body: unknown): void {
    this.db.insert(answers).values({ account, key, request, status, body }).onConflictDoNothing().run();
  }

  together<Result>(work: () => Result): Result {
    return this.db.transaction(work);
  }

  list(listing: typeof listings.$inferInsert): void {
    const { name, site } = listing;
    this.db
      .insert(listings)
      .values(listing)
      .onConflictDoUpdate({
        target: [listings.platform, listings.identifier],
        set: { name, site: site ?? null },
      })
      .run();
  }

  listing(platform: Platform, identifier: string): typeof listings.$inferSelect | undefined {
    return this.db
      .select()
      .from(listings)
      .where(and(eq(listings.platform, platform), eq(listings.identifier, identifier)))
      .get();
  }

  placeSite(domain: string, address: string): void {
    this.db
      .insert(sites)
      .values({ domain, address })
      .onConflictDoUpdate({ target: sites.domain, set: { address } })
      .run();
  }

  siteAddress(domain: string): string | undefined {
    return this.db.select().from(sites).where(eq(sites.domain, domain)).get()?.address;
  }

  reset(): void {
    for (const table of [accounts, apps, units, answers, listings, sites, devices, ads, adEvents])
      this.db.delete(table).run();
    this.db.run(sql`delete from sqlite_sequence`);
  }

  private newNumber(profile: Profile): string | null {
    for (const kind of [profile.ids.app, profile.ids.unit]) {
      if (!kind?.pattern.includes('(?<account>')) continue;
      const made = makeMatching(kind.pattern, this.draw);
      return readPattern(kind.pattern).groupsOf(made)?.get('account') ?? null;
    }
    return null;
  }

  /** An ID that nobody has, in the network's own shape; networks without app IDs number their apps. */
  private newId(
    profile: Profile,
    which: 'app' | 'unit',
    platform: Platform,
    account: Account,
    format?: Format,
  ): string {
    const kind = profile.ids[which];
    for (;;) {
      const id = kind
        ? makeMatching(kind.pattern, this.draw, this.settled(kind, platform, account))
        : `${which}-${this.draw(1_000_000_000)}`;
      const taken =
        (which === 'app' ? this.app(profile.id, id) : this.unit(profile.id, id)) !== undefined ||
        (kind && samplesOf(kind).some((sample) => sample.id === id && (!format || sample.format === format)));
      if (!taken) return id;
    }
  }

  private settled(kind: IdKind, platform: Platform, { number }: Account): Record<string, string> {
    const code = Object.entries(kind.platforms ?? {}).find(([, stands]) => stands === platform)?.[0];
    return {
      ...(number === null ? {} : { account: number }),
      ...(code === undefined ? {} : { platform: code }),
    };
  }
}

/** An app of the books as the inventory tells of it. */
export function appOf(books: Books, row: AppRow): InventoryApp {
  const { id, platform, identifier, name, audience, terms } = row;
  const status = books.listing(platform, identifier) ? 'listed' : 'not listed';
  return { id, platform, identifier, name, status, audience, terms };
}
