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
      const made = db.prepare("select name from sqlite_master where name like 'tally%' and type = 'table'");
      for (const name of made.pluck().all()) db.exec(`drop table ${String(name)}`);
      db.exec(
        'delete from __drizzle_migrations where created_at = (select max(created_at) from __drizzle_migrations)',
      );
    });
    openStore(home).close();
    expect(
      inRecord((db) =>
        db
          .prepare("select count(*) - 6 from sqlite_master where name like 'tally%' and type = 'table'")
          .pluck()
          .get(),
      ),
    ).toBe(0);
  });
});
