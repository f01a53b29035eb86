import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { testPartner, plantedKey, type TestPartner } from '../support/partner.js';
import { approve, http, putPublisher, temporaryFolder } from '../support/service.js';
import { rounds } from '../support/torture.js';
import { profiles, root } from '../support/trees.js';

// A service that is killed at any moment loses nothing that it acknowledged, and what it began is finished or begun anew.

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
const running = new Set<ChildProcess>();
afterEach(() => {
  for (const child of running) child.kill('SIGKILL');
  running.clear();
  rmSync(home, { recursive: true, force: true });
});

interface Served {
  api: (path: string) => string;
  kill(): Promise<void>;
}

async function serve(env: Record<string, string> = {}): Promise<Served> {
  const child: ChildProcess = spawn(
    process.execPath,
    [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'silent'],
    {
      env: { ...process.env, SYNDEXA_HOME: home, SYNDEXA_URL: '', ...env },
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  );
  running.add(child);
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout!.setEncoding('utf8').once('data', (line: string) => resolve(/http:\S+/.exec(line)![0]));
    child.once('exit', () => reject(new Error('The service ended.')));
  });
  return {
    api: (path) => `${url}/api/v1${path}`,
    async kill() {
      const ended = new Promise((resolve) => child.once('close', resolve));
      child.kill('SIGKILL');
      await ended;
    },
  };
}

/** Whether the record itself is whole. */
function isWhole(): boolean {
  const db = new Database(join(home, 'syndexa.sqlite'));
  try {
    return db.pragma('integrity_check', { simple: true }) === 'ok';
  } finally {
    db.close();
  }
}

describe('writes of the record', () => {
  it('that were acknowledged are there after a kill, each with its history, and none is half there', async () => {
    let next = 0;
    const acknowledged = new Set<string>();
    const many = rounds(6, 100);
    for (let round = 0; round < many; round++) {
      const service = await serve();
      const stopAt = performance.now() + 40 + ((round * 37) % 160);
      const writing = (async () => {
        for (;;) {
          const id = `title-${next++}`;
          const title = {
            name: id,
            editions: { android: { identifier: `example.brine.${id}`.replace('-', '.t') } },
            placements: { footer: { format: 'banner', units: {} } },
          };
          const { status } = await http(service.api('/titles'), 'POST', { id, title });
          if (status === 201) acknowledged.add(id);
        }
      })().catch(() => undefined);
      await wait(stopAt - performance.now());
      await service.kill();
      await writing;
      expect(isWhole()).toBe(true);
    }
    const service = await serve();
    const titles = (await http(service.api('/titles'))).body as { id: string; placements: number }[];
    const there = new Set(titles.map(({ id }) => id));
    expect([...acknowledged].filter((id) => !there.has(id))).toEqual([]);
    expect(titles.filter(({ placements }) => placements !== 1)).toEqual([]);
    for (const { id } of titles.slice(-5)) {
      const { body } = await http(service.api(`/titles/${id}/history`));
      expect(body).toHaveLength(1);
    }
    expect(acknowledged.size).toBeGreaterThan(many / 4);
    await service.kill();
  });
});

/** The units at the network, page by page. */
async function everyUnit(partner: TestPartner): Promise<any[]> {
  const { page, units } = profiles.find(({ id }) => id === 'cobalt-heron')!.inventory!.http!;
  const all = [];
  for (let cursor = ''; ;) {
    const { body } = await partner.ask(
      'cobalt-heron',
      plantedKey,
      `${units.path}?${page.size}=${page.limit}${cursor === '' ? '' : `&${page.cursor}=${cursor}`}`,
    );
    all.push(...body[units.items]);
    if (!body[page.next]) return all;
    cursor = String(body[page.next]);
  }
}

describe('provisioning', () => {
  let partner: TestPartner;
  beforeEach(async () => {
    partner = await testPartner();
    await partner.account('cobalt-heron', plantedKey);
    approve(home, 'PLANTED', partner.url);
  });
  afterEach(() => partner.close());

  it('that was killed is finished by the next run: nothing is made twice, and no ID is lost', async () => {
    const env = { SYNDEXA_PARTNERS: partner.url, SYNDEXA_SECRET_PLANTED: plantedKey };
    const first = await serve(env);
    const credentials = { 'cobalt-heron': { inventory: 'secret:PLANTED' } };
    await putPublisher(first.api('/publisher'), { name: 'Brine', domain: 'brine.example', credentials });
    await first.kill();
    const many = rounds(4, 50);
    for (let round = 0; round < many; round++) {
      const id = `title-${round}`;
      const killed = await serve(env);
      const placements = Object.fromEntries(
        Array.from({ length: 6 }, (_, at) => [
          `spot-${at}`,
          {
            format: 'banner',
            settings: { refresh: '60s', content: ['image'] },
            units: { 'cobalt-heron': {} },
          },
        ]),
      );
      const title = {
        name: id,
        editions: { android: { identifier: `example.brine.t${round}` } },
        placements,
      };
      expect((await http(killed.api('/titles'), 'POST', { id, title })).status).toBe(201);
      const begun = http(killed.api(`/titles/${id}/provision`), 'POST', {}).catch(() => undefined);
      await wait((round * 13) % 120);
      await killed.kill();
      await begun;
      expect(isWhole()).toBe(true);
      const again = await serve(env);
      const finish = () => http(again.api(`/titles/${id}/provision`), 'POST', {});
      const apps = (await partner.ask('cobalt-heron', plantedKey, '/apps')).body.apps as any[];
      let answer = await finish();
      const app = ((await partner.ask('cobalt-heron', plantedKey, '/apps')).body.apps as any[]).find(
        ({ name }) => name === id,
      );
      expect(apps.filter(({ name }) => name === id).length).toBeLessThanOrEqual(1);
      await partner.control('terms', { network: 'cobalt-heron', app: app.id });
      answer = await finish();
      expect([answer.status, answer.body.detail]).toEqual([200, undefined]);
      const units = await everyUnit(partner);
      const mine = units.filter(({ name }) => name.startsWith(`${id}_`));
      expect(mine.map(({ name }) => name).sort()).toEqual([...new Set(mine.map(({ name }) => name))].sort());
      const record = (await http(again.api(`/titles/${id}`))).body.title;
      expect(
        Object.values<any>(record.placements)
          .map(({ units: held }) => held['cobalt-heron'].android.production)
          .sort(),
      ).toEqual(mine.map((unit) => unit.id).sort());
      expect(mine).toHaveLength(6);
      await again.kill();
    }
  });
});

describe('what a killed service leaves', () => {
  it('is no half file in the data folder', async () => {
    mkdirSync(home, { recursive: true });
    writeFileSync(join(home, 'service.json.4000000.new'), '{"url":');
    const service = await serve();
    expect(JSON.parse(readFileSync(join(home, 'service.json'), 'utf8'))).toHaveProperty('url');
    await service.kill();
    const next = await serve();
    expect((await http(next.api('/titles'))).status).toBe(200);
    await next.kill();
  });
});
