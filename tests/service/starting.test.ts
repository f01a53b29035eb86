import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openStore } from '../../src/service/store/open.js';
import { http, temporaryFolder, testService } from '../support/service.js';

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => {
  vi.unstubAllEnvs();
  rmSync(home, { recursive: true, force: true });
});

const inRecord = <Result>(work: (db: Database.Database) => Result): Result => {
  const db = new Database(join(home, 'syndexa.sqlite'));
  try {
    return work(db);
  } finally {
    db.close();
  }
};

describe('a service that warms up', () => {
  it('keeps nothing of it', async () => {
    const service = await testService({ home, warm: true, build: 'one' });
    expect((await http(`${service.url}/healthz`)).body.service).toBe('syndexa');
    await service.close();
    for (const table of ['snapshots', 'blobs', 'kept_readings'])
      expect(inRecord((db) => db.prepare(`select count(*) from ${table}`).pluck().get())).toBe(0);
  });

  it('starts where it cannot, and says so', async () => {
    vi.stubEnv('TMPDIR', join(home, 'gone'));
    const log = { info: vi.fn(), warn: vi.fn(), error: vi.fn() };
    const service = await testService({ home, warm: true, log });
    expect((await http(`${service.url}/healthz`)).status).toBe(200);
    expect(log.warn.mock.calls.map(([, says]: unknown[]) => says)).toEqual([
      'The service could not warm up.',
    ]);
    await service.close();
  });
});

describe('opening a record', () => {
  it('makes the migrations that it lacks', () => {
    openStore(home).close();
    inRecord((db) => {
      db.exec('drop table kept_readings');
      db.exec(
        'delete from __drizzle_migrations where created_at = (select max(created_at) from __drizzle_migrations)',
      );
    });
    openStore(home).close();
    expect(inRecord((db) => db.prepare('select count(*) from kept_readings').pluck().get())).toBe(0);
  });
});
