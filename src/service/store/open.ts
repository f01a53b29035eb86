import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema.js';

export type Db = BetterSQLite3Database<typeof schema>;

/** An open record. */
export interface OpenStore {
  db: Db;
  close(): void;
}

/** Opens the record in a data folder, making and migrating it when needed. */
export function openStore(home: string): OpenStore {
  mkdirSync(home, { recursive: true, mode: 0o700 });
  const sqlite = new Database(join(home, 'syndexa.sqlite'), { timeout: 10_000 });
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = NORMAL');
  sqlite.pragma('foreign_keys = ON');
  const db = drizzle(sqlite, { schema });
  migrateOnce(db);
  return { db, close: () => sqlite.close() };
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
