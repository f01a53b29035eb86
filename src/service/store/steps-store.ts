import { and, eq } from 'drizzle-orm';
import * as z from 'zod';
import type { Platform } from '../../core/words/words.js';
import type { LastRehearsals } from '../../core/board/rehearsed.js';
import { LastRehearsal } from '../../core/rehearsal/report.js';
import { StoreListing, type Tick } from '../../core/steps/model.js';
import type { Db } from './open.js';
import { sightings, ticks } from './schema.js';

const AppAdsSighting = z.object({ url: z.string(), text: z.string() });

type Sighted = 'app-ads' | 'listing' | 'rehearsal';

/** What was said of a step, and of which. */
export interface TickRecord {
  title: string;
  platform: Platform;
  /** Null for steps of the edition as a whole. */
  network: string | null;
  step: string;
}

/** What steps are judged by besides trees and lists: what people said, and what was last seen elsewhere. */
export class StepsStore {
  constructor(private readonly db: Db) {}

  ticksOf(title: string, platform: Platform): (Tick & { step: string; network: string | null })[] {
    return this.db
      .select()
      .from(ticks)
      .where(and(eq(ticks.title, title), eq(ticks.platform, platform)))
      .all()
      .map(({ step, network, who, at, note }) => ({ step, network: network || null, who, at, note }));
  }

  tick({ title, platform, network, step }: TickRecord, tick: Tick | null): void {
    const key = { title, platform, network: network ?? '', step };
    if (tick === null) {
      this.db
        .delete(ticks)
        .where(
          and(
            eq(ticks.title, title),
            eq(ticks.platform, platform),
            eq(ticks.network, key.network),
            eq(ticks.step, step),
          ),
        )
        .run();
      return;
    }
    this.db
      .insert(ticks)
      .values({ ...key, ...tick })
      .onConflictDoUpdate({ target: [ticks.title, ticks.platform, ticks.network, ticks.step], set: tick })
      .run();
  }

  saveAppAds(url: string, text: string, at: string): void {
    this.save('app-ads', 'site', at, { url, text });
  }

  /** What the developer site was last seen to serve. */
  appAds(): { url: string; text: string; at: string } | undefined {
    const row = this.find('app-ads', 'site');
    return row && { ...AppAdsSighting.parse(row.seen), at: row.at };
  }

  saveListing(listing: StoreListing): void {
    this.save('listing', `${listing.platform} ${listing.identifier}`, listing.lookedAt, listing);
  }

  listing(platform: Platform, identifier: string): StoreListing | undefined {
    const row = this.find('listing', `${platform} ${identifier}`);
    return row && StoreListing.parse(row.seen);
  }

  saveRehearsal(title: string, platform: Platform, rehearsal: LastRehearsal): void {
    this.save('rehearsal', `${title} ${platform}`, rehearsal.at, rehearsal);
  }

  /** What was rehearsed last of an edition; nothing where it was kept in another shape. */
  rehearsal(title: string, platform: Platform): LastRehearsal | undefined {
    return LastRehearsal.safeParse(this.find('rehearsal', `${title} ${platform}`)?.seen).data;
  }

  /** What was rehearsed last of each edition of a title. */
  rehearsals(title: string): LastRehearsals {
    const [android, ios] = [this.rehearsal(title, 'android'), this.rehearsal(title, 'ios')];
    return { ...(android ? { android } : {}), ...(ios ? { ios } : {}) };
  }

  private find(kind: Sighted, subject: string) {
    return this.db
      .select()
      .from(sightings)
      .where(and(eq(sightings.kind, kind), eq(sightings.subject, subject)))
      .get();
  }

  private save(kind: Sighted, subject: string, at: string, seen: unknown): void {
    this.db
      .insert(sightings)
      .values({ kind, subject, at, seen })
      .onConflictDoUpdate({ target: [sightings.kind, sightings.subject], set: { at, seen } })
      .run();
  }
}
