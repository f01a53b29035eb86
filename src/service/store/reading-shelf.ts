import { deserialize, serialize } from 'node:v8';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { ReadingShelf } from '../../core/tree/readings.js';
import type { KeptReading } from '../../worker/messages.js';
import { atomically, type Db } from './open.js';
import { keptReadings } from './schema.js';

/** Readings that are kept; those that were written longest ago go first. */
const maxKept = 5_000;
/** A reading of more bytes takes too much room: such a file is read again. */
const maxBytes = 500_000;
const chunk = 500;

/**
 * Readings by syntax tree, kept from one run to the next: a command that starts the service for itself would else
 * compile a grammar to read again what did not change. A reading counts only for the build that made it.
 */
export class StoredReadings implements ReadingShelf {
  #waiting: (typeof keptReadings.$inferInsert)[] = [];

  /** @param build tells one build of the readers from another */
  constructor(
    private readonly db: Db,
    private readonly build: string,
  ) {}

  take(reader: string, hash: string): unknown {
    const row = this.db
      .select({ build: keptReadings.build, reading: keptReadings.reading })
      .from(keptReadings)
      .where(and(eq(keptReadings.reader, reader), eq(keptReadings.hash, hash)))
      .get();
    if (row?.build !== this.build) return undefined;
    try {
      return deserialize(row.reading);
    } catch {
      // It is damaged: the file is read again.
      return undefined;
    }
  }

  /** All readings of files of these hashes, as bytes. */
  of(hashes: readonly string[]): KeptReading[] {
    const wanted = [...new Set(hashes)];
    const found: KeptReading[] = [];
    for (let at = 0; at < wanted.length; at += chunk)
      found.push(
        ...this.db
          .select({ reader: keptReadings.reader, hash: keptReadings.hash, reading: keptReadings.reading })
          .from(keptReadings)
          .where(
            and(eq(keptReadings.build, this.build), inArray(keptReadings.hash, wanted.slice(at, at + chunk))),
          )
          .all(),
      );
    return found;
  }

  keep(reader: string, hash: string, reading: unknown): void {
    this.keepBytes({ reader, hash, reading: serialize(reading) });
  }

  /** Takes a reading down; it is written once whoever asked has been answered. */
  keepBytes({ reader, hash, reading }: KeptReading): void {
    if (reading.length > maxBytes) return;
    if (this.#waiting.length === 0) setImmediate(() => this.flush());
    this.#waiting.push({ reader, hash, build: this.build, reading: Buffer.from(reading) });
  }

  /** Writes the collected readings. They can be made again, so they are dropped if they cannot be written. */
  flush(): void {
    const rows = this.#waiting;
    if (rows.length === 0) return;
    this.#waiting = [];
    try {
      atomically(this.db, () => {
        for (const row of rows)
          this.db
            .insert(keptReadings)
            .values(row)
            .onConflictDoUpdate({
              target: [keptReadings.reader, keptReadings.hash],
              set: { build: row.build, reading: row.reading },
            })
            .run();
        const last = this.db.select({ row: sql`max(rowid)` }).from(keptReadings);
        this.db
          .delete(keptReadings)
          .where(sql`rowid <= (${last}) - ${maxKept}`)
          .run();
      });
    } catch {
      // Another process writes, or the disk is full.
    }
  }
}
