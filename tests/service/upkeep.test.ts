import { createHash, randomBytes } from 'node:crypto';
import { rmSync } from 'node:fs';
import Database from 'better-sqlite3';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { openStore, type OpenStore } from '../../src/service/store/open.js';
import { TreeStore } from '../../src/service/store/tree-store.js';
import { Upkeep } from '../../src/service/store/upkeep.js';
import { http, temporaryFolder, testService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

const day = 24 * 60 * 60_000;
let home: string;
let store: OpenStore;
let time: number;
let trees: TreeStore;
beforeEach(() => {
  home = temporaryFolder();
  store = openStore(home);
  time = Date.UTC(2026, 0, 1);
  trees = new TreeStore(store.db, now);
});
afterEach(() => {
  store.close();
  rmSync(home, { recursive: true, force: true });
});
const now = () => new Date(time);
const hash = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
const upkeep = (keepMegabytes = 1_024) => new Upkeep(store.db, { keepDays: 30, keepMegabytes }, now);

/** A snapshot of files with these contents. */
function snapshot(name: string, contents: Buffer[]): string {
  const files = contents.map((bytes, at) => ({ path: `${at}`, hash: hash(bytes), size: bytes.length }));
  const { id } = trees.addSnapshot({ name, files, folders: [], skipped: [] });
  trees.addBlobs(contents.map((bytes) => ({ hash: hash(bytes), bytes })));
  return id;
}
/** A snapshot of a file whose contents are not sent. */
const refer = (bytes: Buffer) =>
  trees.addSnapshot({
    name: 'fresh',
    files: [{ path: 'a', hash: hash(bytes), size: bytes.length }],
    folders: [],
    skipped: [],
  }).id;
const isKept = (bytes: Buffer) => trees.missing([hash(bytes)]).length === 0;
const isThere = (id: string) => {
  try {
    trees.contents(id);
    return true;
  } catch {
    return false;
  }
};
const wiring = { edits: [], groups: [], patch: '', byHand: [] };

it('goes by age: what was asked for lately stays, with the contents that it shares', async () => {
  const shared = Buffer.from('shared');
  const old = snapshot('old', [shared, Buffer.from('old')]);
  const asked = snapshot('asked', [shared, Buffer.from('asked')]);
  const gone = trees.addWiring('kelp', old, wiring).id;
  time += 20 * day;
  trees.contents(asked);
  const kept = trees.addWiring('kelp', asked, wiring).id;
  time += 15 * day;
  expect(await upkeep().tidy()).toEqual({ snapshots: 1, wirings: 1, contents: 1 });
  expect([isThere(old), isThere(asked)]).toEqual([false, true]);
  expect(() => trees.wiring(gone)).toThrow('no wiring');
  expect(trees.wiring(kept).snapshot).toBe(asked);
  expect(await upkeep().tidy()).toEqual({ snapshots: 0, wirings: 0, contents: 0 });
});

it('goes by size, those asked for longest ago first, and leaves the latest', async () => {
  const ids = Array.from({ length: 40 }, (_, at) => {
    time += 2 * 60 * 60_000;
    return snapshot(`${at}`, [randomBytes(1024 * 1024)]);
  });
  expect(upkeep(1_000).isDue()).toBe(true);
  await upkeep(1_000).tidy();
  expect(upkeep(1_000).isDue()).toBe(false);
  expect(upkeep(16).isDue()).toBe(true);
  const { snapshots, contents } = await upkeep(16).tidy();
  expect(contents).toBe(snapshots);
  const there = ids.map(isThere);
  expect(there.indexOf(true)).toBe(snapshots);
  expect(there.slice(snapshots).every(Boolean)).toBe(true);
  expect(snapshots).toBeGreaterThan(20);
  expect(upkeep(16).isDue()).toBe(false);
  await upkeep(0).tidy();
  expect(ids.filter(isThere)).toEqual([ids.at(-1)]);
  expect(upkeep().giveBack()).toBe(true);
  expect(upkeep().giveBack()).toBe(false);
});

it('goes by the order in which they were asked for, also when the clock is set back', async () => {
  const first = snapshot('first', [randomBytes(9_000_000)]);
  time -= 400 * day;
  const later = ['a', 'b'].map((name) => snapshot(name, [randomBytes(9_000_000)]));
  await upkeep(16).tidy();
  expect([first, ...later].map(isThere)).toEqual([false, false, true]);
});

it('leaves snapshots of linked trees, and contents that come in while it works', async () => {
  const db = new Database(join(home, 'syndexa.sqlite'));
  db.exec(`insert into titles (id, version, position, name, audience, stages, editions, networks)
    values ('kelp', 1, 0, 'Kelp', 'general', '{}', '{}', '{}')`);
  db.close();
  const linked = snapshot('linked', [Buffer.from('linked')]);
  trees.setSnapshot(trees.link('kelp', '/kelp').id, linked);
  // However far the work is when it comes.
  let mostPauses = 1;
  for (let wanted = 0; wanted < mostPauses; wanted++) {
    const again = randomBytes(100);
    snapshot('gone', [again]);
    time += 90 * day;
    let fresh = '';
    let pauses = 0;
    await upkeep().tidy(() => {
      // Contents that are there already are not sent again.
      if (pauses++ === wanted && isKept(again)) fresh = refer(again);
      return Promise.resolve();
    });
    mostPauses = pauses;
    expect(isThere(linked)).toBe(true);
    if (fresh !== '') expect(isThere(fresh)).toBe(true);
  }
  expect(mostPauses).toBeGreaterThan(3);
});

it('leaves what the last readings are of, and the readings before', async () => {
  const [last, before, other] = ['last', 'before', 'other'].map((name) =>
    snapshot(name, [Buffer.from(name)]),
  );
  const db = new Database(join(home, 'syndexa.sqlite'));
  db.exec(`insert into titles (id, version, position, name, audience, stages, editions, networks)
    values ('dulse', 1, 0, 'Dulse', 'general', '{}', '{}', '{}')`);
  db.prepare('insert into readings (title, platform, reading) values (?, ?, ?)').run(
    'dulse',
    'android',
    JSON.stringify({ snapshot: last, before }),
  );
  db.close();
  snapshot('asked for last', [Buffer.from('asked for last')]);
  time += 90 * day;
  await upkeep().tidy();
  expect([last, before, other].map((id) => isThere(id!))).toEqual([true, true, false]);
});

it('is done by a command that starts the service for itself, once a day', async () => {
  const files = Object.entries(androidFiles());
  const run = async () => {
    const service = await testService({ home, brief: true, now });
    const api = `${service.url}/api/v1`;
    const { body } = await http(`${api}/snapshots`, 'POST', {
      name: `kelp ${time}`,
      files: files.map(([path, text]) => ({ path, hash: hash(Buffer.from(text)), size: 1 })),
    });
    const wanted = files.filter(([, text]) => body.missing.includes(hash(Buffer.from(text))));
    await http(`${api}/blobs`, 'POST', {
      blobs: wanted.map(([, text]) => ({
        hash: hash(Buffer.from(text)),
        base64: Buffer.from(text).toString('base64'),
      })),
    });
    await service.close();
    return body.id as string;
  };
  const first = await run();
  time += 40 * day;
  const second = await run();
  expect([isThere(first), isThere(second)]).toEqual([false, true]);
});
