import { asc, gt, inArray, lt, notInArray, sql, type SQL } from 'drizzle-orm';
import * as z from 'zod';
import type { Settings } from '../../api/settings.js';
import { atomically, type Db } from './open.js';
import { blobs, linkedTrees, readings, snapshots, tidied, wirings } from './schema.js';

const day = 24 * 60 * 60_000;
const chunk = 500;
/** Wirings beyond this many go, the oldest first. */
const maxWirings = 1_000;
/** Free pages are given back to the disk from this share of the file on (and this many bytes). */
const vacuumThreshold = { share: 0.25, bytes: 16 * 1024 * 1024 };

/** What was removed. */
export interface Removed {
  snapshots: number;
  wirings: number;
  contents: number;
}

const Hashes = z.array(z.object({ hash: z.string() }));

/**
 * Removes what nobody needs any more from the record: wirings and snapshots by age, then by size, and contents that no
 * snapshot refers to. Snapshots of linked trees and of the last two readings stay. Works in steps, between which others
 * go on.
 */
export class Upkeep {
  constructor(
    private readonly db: Db,
    private readonly settings: Pick<Settings, 'keepDays' | 'keepMegabytes'>,
    private readonly now: () => Date,
  ) {}

  /** Whether a day has gone by since the last time, or there is too much. A clock that was set back counts as a day. */
  isDue(): boolean {
    if (this.isFull()) return true;
    const last = this.db.select().from(tidied).get()?.at ?? 0;
    return Math.abs(this.now().getTime() - last) > day;
  }

  /** @param pause lets others go on between two steps */
  async tidy(pause: () => Promise<void> = () => Promise.resolve()): Promise<Removed> {
    const before = this.now().getTime() - this.settings.keepDays * day;
    const removed: Removed = { snapshots: 0, wirings: this.removeWirings(before), contents: 0 };
    await pause();
    removed.snapshots = this.removeSnapshots(lt(snapshots.used, before));
    await pause();
    removed.contents = await this.removeContents(pause);
    while (this.isFull()) {
      const oldest = this.oldestUnneeded();
      if (oldest.length === 0) break;
      removed.snapshots += this.removeSnapshots(inArray(snapshots.id, oldest));
      removed.contents += await this.removeContents(pause);
    }
    const at = this.now().getTime();
    this.db.insert(tidied).values({ id: 1, at }).onConflictDoUpdate({ target: tidied.id, set: { at } }).run();
    return removed;
  }

  /** Gives free pages back to the disk, when there are many. Nothing else can use the record meanwhile. */
  giveBack(): boolean {
    const { pages, free, pageSize } = this.pages();
    if (free * pageSize < vacuumThreshold.bytes || free / pages < vacuumThreshold.share) return false;
    this.db.run(sql`vacuum`);
    return true;
  }

  private removeWirings(before: number): number {
    const newest = this.db
      .select({ id: wirings.id })
      .from(wirings)
      .orderBy(sql`rowid desc`)
      .limit(maxWirings);
    const old = this.db.delete(wirings).where(lt(wirings.at, before)).run().changes;
    return old + this.db.delete(wirings).where(notInArray(wirings.id, newest)).run().changes;
  }

  private removeSnapshots(which: SQL): number {
    const needed = this.needed();
    const found = this.db.select({ id: snapshots.id }).from(snapshots).where(which).all();
    const ids = found.map(({ id }) => id).filter((id) => !needed.has(id));
    for (let at = 0; at < ids.length; at += chunk)
      this.db
        .delete(snapshots)
        .where(inArray(snapshots.id, ids.slice(at, at + chunk)))
        .run();
    return ids.length;
  }

  /** The snapshots of linked trees, those that the last readings are of, and those of the readings before. */
  private needed(): Set<string> {
    const linked = this.db.select({ id: linkedTrees.snapshot }).from(linkedTrees).all();
    const read = this.db
      .select({
        last: sql<string | null>`json_extract(${readings.reading}, '$.snapshot')`,
        before: sql<string | null>`json_extract(${readings.reading}, '$.before')`,
      })
      .from(readings)
      .all();
    return new Set([
      ...linked.flatMap(({ id }) => id ?? []),
      ...read.flatMap(({ last, before }) => [last ?? [], before ?? []].flat()),
    ]);
  }

  /**
   * A tenth of the snapshots that may be removed, least recently requested first. The most recently requested one
   * stays.
   */
  private oldestUnneeded(): string[] {
    const needed = this.needed();
    const all = this.db
      .select({ id: snapshots.id })
      .from(snapshots)
      .orderBy(asc(snapshots.used), sql`rowid`)
      .all();
    const unneeded = all.slice(0, -1).flatMap(({ id }) => (needed.has(id) ? [] : id));
    return unneeded.slice(0, Math.min(chunk, Math.ceil(unneeded.length / 10)));
  }

  /** Removes contents that no snapshot refers to, those of snapshots that come in meanwhile included. */
  private async removeContents(pause: () => Promise<void>): Promise<number> {
    const used = new Set<string>();
    let seen = 0;
    const look = (most: number): boolean => {
      const rows = this.db
        .select({ row: sql<number>`rowid`, files: snapshots.files })
        .from(snapshots)
        .where(gt(sql`rowid`, seen))
        .orderBy(sql`rowid`)
        .limit(most)
        .all();
      for (const { row, files } of rows) {
        seen = row;
        for (const { hash } of Hashes.parse(files)) used.add(hash);
      }
      return rows.length > 0;
    };
    while (look(1)) await pause();
    let removed = 0;
    let from = '';
    for (;;) {
      const hashes = this.db
        .select({ hash: blobs.hash })
        .from(blobs)
        .where(gt(blobs.hash, from))
        .orderBy(blobs.hash)
        .limit(chunk)
        .all();
      from = hashes.at(-1)?.hash ?? '';
      if (from === '') return removed;
      removed += atomically(this.db, () => {
        // A snapshot that came in since may refer to contents that were there already.
        while (look(10));
        const unused = hashes.flatMap(({ hash }) => (used.has(hash) ? [] : hash));
        return unused.length === 0
          ? 0
          : this.db.delete(blobs).where(inArray(blobs.hash, unused)).run().changes;
      });
      await pause();
    }
  }

  /** Whether the record takes up more than it may, free pages left out. */
  isFull(): boolean {
    const { pages, free, pageSize } = this.pages();
    return (pages - free) * pageSize > this.settings.keepMegabytes * 1024 * 1024;
  }

  private pages(): { pages: number; free: number; pageSize: number } {
    const value = (name: string) =>
      Object.values(this.db.get<Record<string, number>>(sql.raw(`pragma ${name}`)))[0] ?? 0;
    return { pages: value('page_count'), free: value('freelist_count'), pageSize: value('page_size') };
  }
}
