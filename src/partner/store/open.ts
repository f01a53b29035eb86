import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema.js';

export type PartnerDb = BetterSQLite3Database<typeof schema>;

/** Opens the partner's books in a folder; null keeps them in memory only. */
export function openBooks(folder: string | null): { db: PartnerDb; close: () => void } {
  if (folder !== null) mkdirSync(folder, { recursive: true, mode: 0o700 });
  const sqlite = new Database(folder === null ? ':memory:' : join(folder, 'partner.sqlite'));
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = NORMAL');
  const db = drizzle(sqlite, { schema });
  const here = dirname(fileURLToPath(import.meta.url));
  const candidates = [join(here, 'migrations'), join(here, '..', 'partner-migrations')];
  migrate(db, { migrationsFolder: candidates.find((path) => existsSync(path)) ?? join(here, 'migrations') });
  return { db, close: () => sqlite.close() };
}
