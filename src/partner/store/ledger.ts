import { randomBytes } from 'node:crypto';
import { and, count, eq, sql } from 'drizzle-orm';
import type { PartnerClock } from '../clock.js';
import { Refusal } from '../errors.js';
import type { GivenAd } from '../serving/ad.js';
import type { PartnerDb } from './open.js';
import { hashOf, type Account } from './rows.js';
import { accounts, adEvents, ads, devices } from './schema.js';

/** How many clicks in development builds suspend an account. */
const strikesAllowed = 3;

/** Tracking events of a linear ad. */
export const linearEvents = [
  'start',
  'firstQuartile',
  'midpoint',
  'thirdQuartile',
  'complete',
  'pause',
  'resume',
  'skip',
] as const;
/** Events that can be recorded for a served ad. */
export const adEventNames = ['impression', ...linearEvents, 'click', 'close', 'reward', 'error'] as const;
export type AdEventName = (typeof adEventNames)[number];

/** Served ads and their events. */
export class Ledger {
  private readonly insertAd;

  constructor(
    private readonly db: PartnerDb,
    private readonly clock: PartnerClock,
  ) {
    // Prepared once: it is what every ad costs.
    this.insertAd = db
      .insert(ads)
      .values({
        network: sql.placeholder('network'),
        unit: sql.placeholder('unit'),
        account: sql.placeholder('account'),
        format: sql.placeholder('format'),
        isTest: sql.placeholder('isTest'),
        isDevelopment: sql.placeholder('isDevelopment'),
        price: sql.placeholder('price'),
        given: sql.placeholder('given'),
      })
      .returning({ id: ads.id })
      .prepare();
  }

  /** Records a served ad, and returns the ID that its trackers carry. */
  give(network: string, { unit, account, format, isTest, isDevelopment, price }: GivenAd): string {
    const given = this.clock.now().toISOString();
    const { id } = this.insertAd.get({
      network,
      unit,
      account,
      format,
      isTest,
      isDevelopment,
      price: Math.round(price * 1000),
      given,
    });
    return `a${id.toString(36)}`;
  }

  /**
   * Records an event of an ad. A click in a development build on an ad that earns money counts against the account; the
   * third one suspends it.
   * @throws Refusal if there is no such ad, or if the event was already recorded
   */
  happened(network: string, name: string, event: AdEventName): { counted: boolean; suspended: boolean } {
    const ad = this.served(network, name);
    if (!ad) throw new Refusal('not-found', `There is no ad ${name}.`);
    const at = this.clock.now().toISOString();
    // A user may pause and resume repeatedly; every other event happens once.
    const isOften = event === 'pause' || event === 'resume';
    const added = this.db.insert(adEvents).values({ ad: ad.id, event, at }).onConflictDoNothing().run();
    if (added.changes === 0 && !isOften)
      throw new Refusal('event-repeated', `${event} of ${name} was already recorded; it counts once.`);
    const isAgainst = event === 'click' && !ad.isTest && ad.isDevelopment && ad.account !== null;
    const suspended = isAgainst && this.strike(ad.account ?? 0);
    return { counted: !ad.isTest, suspended };
  }

  /** An ad that was served, by the name that its trackers carry. */
  served(network: string, name: string): typeof ads.$inferSelect | undefined {
    const id = /^a([0-9a-z]{1,10})$/.exec(name)?.[1];
    if (id === undefined) return undefined;
    return this.db
      .select()
      .from(ads)
      .where(and(eq(ads.id, parseInt(id, 36)), eq(ads.network, network)))
      .get();
  }

  /** Deposits the credential that notifications are sent with. */
  depositPush(account: Account, credential: string): void {
    this.db
      .update(accounts)
      .set({ pushHash: hashOf(credential) })
      .where(eq(accounts.id, account.id))
      .run();
  }

  /** Sets where rewards are reported; returns the key that signs the reports. */
  reportRewards(account: Account, address: string): string {
    const rewardKey = randomBytes(24).toString('base64url');
    this.db
      .update(accounts)
      .set({ rewardAddress: address, rewardKey })
      .where(eq(accounts.id, account.id))
      .run();
    return rewardKey;
  }

  /** How often an event was recorded for the ads of a unit. */
  counted(network: string, unit: string, event: AdEventName): number {
    const found = this.db
      .select({ total: count() })
      .from(adEvents)
      .innerJoin(ads, eq(ads.id, adEvents.ad))
      .where(and(eq(ads.network, network), eq(ads.unit, unit), eq(adEvents.event, event)))
      .get();
    return found?.total ?? 0;
  }

  /** Registers a test device: it gets test ads for every unit. */
  registerDevice(network: string, account: number, id: string): void {
    this.db.insert(devices).values({ network, account, id }).onConflictDoNothing().run();
  }

  isTestDevice(network: string, account: number, id: string): boolean {
    const found = this.db
      .select()
      .from(devices)
      .where(and(eq(devices.network, network), eq(devices.account, account), eq(devices.id, id)))
      .get();
    return found !== undefined;
  }

  /** Lifts the suspension of all accounts of a network, and resets their strikes. */
  lift(network: string): Account[] {
    return this.db
      .update(accounts)
      .set({ strikes: 0, suspended: null })
      .where(eq(accounts.network, network))
      .returning()
      .all();
  }

  private strike(account: number): boolean {
    const held = this.db.select().from(accounts).where(eq(accounts.id, account)).get();
    const strikes = (held?.strikes ?? 0) + 1;
    const isOver = strikes >= strikesAllowed;
    const suspended = isOver
      ? `The account is suspended: ads that earn money were clicked ${strikes} times in development builds, on devices that are not registered for testing.`
      : (held?.suspended ?? null);
    this.db.update(accounts).set({ strikes, suspended }).where(eq(accounts.id, account)).run();
    return isOver;
  }
}
