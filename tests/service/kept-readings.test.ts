import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { serialize } from 'node:v8';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { lastingReaderOf, lastingReaders } from '../../src/core/code/lasting-readers.js';
import { Readings } from '../../src/core/tree/readings.js';
import { openStore } from '../../src/service/store/open.js';
import { StoredReadings } from '../../src/service/store/reading-shelf.js';
import { http, temporaryFolder, testService, type Answer } from '../support/service.js';
import { root } from '../support/trees.js';

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

/** What a service says of a demo tree: its own process would start with nothing in memory. */
async function surveyed(name: string, build: string | null): Promise<Answer['body']> {
  const service = await testService({ home, build, roots: [join(root, 'demo', 'trees')] });
  try {
    const api = `${service.url}/api/v1`;
    const { body } = await http(`${api}/folders`, 'POST', { path: join(root, 'demo', 'trees', name) });
    const { body: survey } = await http(`${api}/snapshots/${body.snapshot}/survey`, 'POST', {});
    const { body: report } = await http(`${api}/snapshots/${body.snapshot}/check`, 'POST', {});
    return { survey, report };
  } finally {
    await service.close();
  }
}

const inRecord = <Result>(work: (db: Database.Database) => Result): Result => {
  const db = new Database(join(home, 'syndexa.sqlite'));
  try {
    return work(db);
  } finally {
    db.close();
  }
};

describe('readings that are kept from one run to the next', () => {
  it.each(readdirSync(join(root, 'demo', 'trees')))('say the same of %s as reading anew', async (name) => {
    const anew = await surveyed(name, null);
    expect(inRecord((db) => db.prepare('select count(*) from kept_readings').pluck().get())).toBe(0);
    expect(await surveyed(name, 'one')).toEqual(anew);
    expect(inRecord((db) => db.prepare('select count(*) from kept_readings').pluck().get())).not.toBe(0);
    expect(await surveyed(name, 'one')).toEqual(anew);
  });

  it('are used by the build that made them, and by no other', async () => {
    const anew = await surveyed('plumebook', 'one');
    const nothing = { strings: [], calls: [], methods: [], types: [], choices: [], constants: new Map() };
    const emptied = serialize({ reading: nothing, problems: [] });
    inRecord((db) => db.prepare('update kept_readings set reading = ?').run(emptied));
    expect(await surveyed('plumebook', 'one')).not.toEqual(anew);
    expect(await surveyed('plumebook', 'two')).toEqual(anew);
    expect(inRecord((db) => db.prepare('select distinct build from kept_readings').pluck().all())).toEqual([
      'two',
    ]);
  });

  it('that are damaged are made again', async () => {
    const anew = await surveyed('plumebook', 'one');
    inRecord((db) => db.prepare('update kept_readings set reading = ?').run(Buffer.from('no value at all')));
    expect(await surveyed('plumebook', 'one')).toEqual(anew);
  });

  it('are bounded, those written longest ago going first', () => {
    const store = openStore(home);
    const shelf = new StoredReadings(store.db, 'one');
    for (let at = 0; at < 5_010; at++) shelf.keep('code kotlin', String(at), at);
    shelf.keep('code kotlin', 'long', 'x'.repeat(600_000));
    shelf.flush();
    expect(shelf.take('code kotlin', 'long')).toBeUndefined();
    expect([0, 9, 10, 5_009].map((at) => shelf.take('code kotlin', String(at)))).toEqual([
      undefined,
      undefined,
      10,
      5_009,
    ]);
    store.close();
  });

  it('do without the record when it cannot be written', () => {
    const store = openStore(home);
    const shelf = new StoredReadings(store.db, 'one');
    shelf.keep('code kotlin', 'a', 1);
    store.close();
    expect(() => shelf.flush()).not.toThrow();
  });

  it('are taken for those readers only whose readings are plain data', () => {
    const reader = lastingReaderOf('app/Main.kt');
    const kept = new Map<string, unknown>([['code kotlin a', 'kept']]);
    const shelf = {
      take: (name: string, hash: string) => kept.get(`${name} ${hash}`),
      keep: (name: string, hash: string, reading: unknown) => void kept.set(`${name} ${hash}`, reading),
    };
    const readings = new Readings(1_000, { names: lastingReaders, shelf });
    const file = (hash: string) => ({ hash, bytes: new Uint8Array(10) });
    const make = vi.fn(() => 'made');
    const other = () => 'other';
    expect(readings.has(reader, file('a'))).toBe(true);
    expect(readings.of(reader, file('a'), make)).toBe('kept');
    expect(make).not.toHaveBeenCalled();
    expect(readings.has(reader, file('b'))).toBe(false);
    expect(readings.of(reader, file('b'), make)).toBe('made');
    expect(kept.get('code kotlin b')).toBe('made');
    expect(readings.of(other, file('a'), other)).toBe('other');
    expect(readings.has(other, file('c'))).toBe(false);
    expect(readings.has(reader, file(''))).toBe(false);
    expect(kept.size).toBe(2);
    expect(
      ['Podfile', 'ios/Podfile', 'a.cs', 'a.txt'].map((path) => lastingReaders.get(lastingReaderOf(path))),
    ).toEqual(['podfile', 'podfile', 'code c_sharp', undefined]);
  });
});
