import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type Database from 'better-sqlite3';
import { TreeBusyError } from './errors.js';

/**
 * Locks a tree for one writer. It is the lock of a database: the system releases it when the process ends, in whatever
 * way, so no stale lock is left behind.
 * @param folder the write folder of the tree
 * @returns a function that releases the tree
 * @throws TreeBusyError when another writer has it
 */
export async function lockTree(folder: string): Promise<() => void> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const { openDatabase } = await import('../sqlite.js');
  const lock: Database.Database = openDatabase(join(folder, 'lock'), { timeout: 0 });
  try {
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (error instanceof Error && 'code' in error && String(error.code).startsWith('SQLITE_BUSY'))
      throw new TreeBusyError();
    throw error;
  }
  return () => {
    lock.exec('ROLLBACK');
    lock.close();
  };
}
