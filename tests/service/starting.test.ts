import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openStore } from '../../src/service/store/open.js';
import { temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

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
      db.exec('drop index snapshots_by_turn; alter table snapshots drop column turn');
      // As a record of the version before there were daily numbers.
      const { entries } = JSON.parse(
        readFileSync(join(root, 'src/service/store/migrations/meta/_journal.json'), 'utf8'),
      ) as { entries: { tag: string; when: number }[] };
      const first = entries.find(({ tag }) => tag === '0010_tally')?.when;
      db.prepare('delete from __drizzle_migrations where created_at >= ?').run(first);
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
