import { and, count, eq, sql } from 'drizzle-orm';
import type { PartnerClock } from '../clock.js';
import { Refusal } from '../errors.js';
import type { GivenAd } from '../serving/ad.js';
import type { PartnerDb } from './open.js';
import type { Account } from './rows.js';
import { accounts, adEvents, ads, devices } from './schema.js';

/** Clicks of developers on ads that earn money, after which an account is closed. */
const strikesAllowed = 3;

/** What happens to a film on its way to the end. */
export const filmEvents = [
  'start',
  'firstQuartile',
  'midpoint',
  'thirdQuartile',
  'complete',
  'pause',
  'resume',
  'skip',
] as const;
/** What may be told of an ad once it is given. */
export const adEventNames = ['impression', ...filmEvents, 'click', 'close', 'reward', 'error'] as const;
export type AdEventName = (typeof adEventNames)[number];

/** The ads that were given, and what became of them. */
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

  /** Writes down an ad that is given; its number is what its addresses carry. */
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
   * Writes down that something happened to an ad. A click by developers on an ad that earns money counts against the
   * account; the third one closes it.
   * @throws Refusal where there is no such ad, or the event was there already
   */
  happened(network: string, name: string, event: AdEventName): { counted: boolean; suspended: boolean } {
    const id = /^a([0-9a-z]{1,10})$/.exec(name)?.[1];
    const ad =
      id === undefined
        ? undefined
        : this.db
            .select()
            .from(ads)
            .where(and(eq(ads.id, parseInt(id, 36)), eq(ads.network, network)))
            .get();
    if (!ad) throw new Refusal('not-found', `There is no ad ${name}.`);
    const at = this.clock.now().toISOString();
    // A film may be paused as often as one likes; all else happens once.
    const isOften = event === 'pause' || event === 'resume';
    const added = this.db.insert(adEvents).values({ ad: ad.id, event, at }).onConflictDoNothing().run();
    if (added.changes === 0 && !isOften)
      throw new Refusal('event-repeated', `${event} of ${name} was told before; it counts once.`);
    const isAgainst = event === 'click' && !ad.isTest && ad.isDevelopment && ad.account !== null;
    const suspended = isAgainst && this.strike(ad.account ?? 0);
    return { counted: !ad.isTest, suspended };
  }

  /** How often something happened to the ads of a unit. */
  counted(network: string, unit: string, event: AdEventName): number {
    const found = this.db
      .select({ total: count() })
      .from(adEvents)
      .innerJoin(ads, eq(ads.id, adEvents.ad))
      .where(and(eq(ads.network, network), eq(ads.unit, unit), eq(adEvents.event, event)))
      .get();
    return found?.total ?? 0;
  }

  /** Registers a device for testing: it gets test ads whatever it asks for. */
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

  /** Opens the accounts of a network again, and forgets what counted against them. */
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
