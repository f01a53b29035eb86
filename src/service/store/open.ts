import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { makePrivate } from '../../disk/home/home-folder.js';
import { openDatabase } from '../../disk/sqlite.js';
import * as schema from './schema.js';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** An open record. */
export interface OpenStore {
  db: Db;
  close(): void;
}

/**
 * Does several writes as one: all of them, or none. The right to write is taken at the beginning, and waited for, so a
 * transaction never fails in its middle because another process wrote.
 */
export function atomically<Result>(db: Db, work: () => Result): Result {
  return db.transaction(work, { behavior: 'immediate' });
}

/**
 * Opens the record in a data folder, making and migrating it when needed.
 * @param patience how long (ms) a write waits while another process writes; everything else waits with it
 */
export function openStore(home: string, patience = 10_000): OpenStore {
  const file = join(home, 'syndexa.sqlite');
  // The database gives its side files the mode of the file itself.
  makePrivate(file);
  const sqlite = openDatabase(file, { timeout: patience });
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = NORMAL');
  // A long import changes the same pages again and again: written back every 32 MB, it takes two thirds of the time.
  sqlite.pragma('wal_autocheckpoint = 8000');
  sqlite.pragma('foreign_keys = ON');
  const db = drizzle(sqlite, { schema });
  if (!isMigrated(sqlite)) migrateOnce(db);
  return { db, close: () => sqlite.close() };
}

/** Whether the newest migration was made already, so that they need not all be read. */
function isMigrated(sqlite: Database.Database): boolean {
  const journal = JSON.parse(readFileSync(join(migrationsFolder(), 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  try {
    const newest = sqlite.prepare('select max(created_at) from __drizzle_migrations').pluck().get();
    return Number(newest) === journal.entries.at(-1)?.when;
  } catch {
    // A new record has no such table yet.
    return false;
  }
}

/** Two processes may open a new record at once: the one that comes second finds the work done when it looks again. */
function migrateOnce(db: Db): void {
  const options = { migrationsFolder: migrationsFolder() };
  try {
    migrate(db, options);
  } catch {
    migrate(db, options);
  }
}

/** Beside this file in the sources; beside the bundle in a build. */
function migrationsFolder(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  const candidates = [join(here, 'migrations'), join(here, '..', 'migrations')];
  return candidates.find((folder) => existsSync(folder)) ?? join(here, 'migrations');
}
