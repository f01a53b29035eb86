import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';

/** Opens a database file, made when it is not there. */
export function openDatabase(file: string, options: Database.Options = {}): Database.Database {
  return new Database(file, { ...options, ...builtBinding() });
}

/** Where the compiled part of the database lies: named, it is not searched for in a dozen places. */
function builtBinding(): { nativeBinding?: string } {
  const { resolve } = createRequire(import.meta.url);
  const file = join(dirname(resolve('better-sqlite3')), '..', 'build', 'Release', 'better_sqlite3.node');
  return existsSync(file) ? { nativeBinding: file } : {};
}
