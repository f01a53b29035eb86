import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openStore } from '../../src/service/store/open.js';
import { temporaryFolder } from '../support/service.js';

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

const inRecord = <Result>(work: (db: Database.Database) => Result): Result => {
  const db = new Database(join(home, 'syndexa.sqlite'));
  try {
    return work(db);
  } finally {
    db.close();
  }
};

describe('opening a record', () => {
  it('makes the migrations that it lacks', () => {
    openStore(home).close();
    inRecord((db) => {
      db.exec('drop index snapshots_by_use');
      db.exec(
        'delete from __drizzle_migrations where created_at = (select max(created_at) from __drizzle_migrations)',
      );
    });
    openStore(home).close();
    expect(
      inRecord((db) =>
        db.prepare("select count(*) - 1 from sqlite_master where name = 'snapshots_by_use'").pluck().get(),
      ),
    ).toBe(0);
  });
});
