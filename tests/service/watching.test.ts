import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:http';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { androidFiles, kelp } from '../support/trees.js';

const manifestPath = 'app/src/main/AndroidManifest.xml';
let folder: string;
let service: TestService;
const api = (path: string) => `${service.url}/api/v1${path}`;
const write = (files: Record<string, string>) => {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(folder, path, '..'), { recursive: true });
    writeFileSync(join(folder, path), content);
  }
};
const open = async () => {
  const { status, body } = await http(api('/folders'), 'POST', { path: folder });
  expect(body).toMatchObject({ snapshot: expect.any(String) });
  expect(status).toBe(200);
  return body.snapshot as string;
};
const snapshotOf = async (tree: string) =>
  (await http(api('/trees'))).body.find((one: { id: string }) => one.id === tree).snapshot as string;

beforeAll(async () => {
  folder = temporaryFolder();
  write(androidFiles());
  service = await testService({ roots: [folder] });
  const { name, stages, editions, networks } = kelp();
  await http(
    api('/titles'),
    'POST',
    { id: 'kelp', title: { name, stages, editions, networks } },
    { 'If-None-Match': '*' },
  );
});
afterAll(async () => {
  await service.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Waits for the next event of a kind; what is done meanwhile starts only once the stream is open. */
function nextEvent(kind: string, act: () => void): Promise<number> {
  return new Promise((resolve, reject) => {
    const call = get(api('/events'), (response) => {
      let started = 0;
      response.setEncoding('utf8').on('data', (chunk: string) => {
        if (started === 0) {
          started = performance.now();
          act();
        } else if (chunk.includes(`event: ${kind}\n`)) {
          resolve(performance.now() - started);
          call.destroy();
        }
      });
    });
    call.on('error', (error) => (error.message.includes('hang up') ? undefined : reject(error)));
  });
}

describe('a folder below a root', () => {
  it('is the same snapshot until something that matters changes', async () => {
    const first = await open();
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    expect(await open()).toBe(first);
    write({ 'notes.txt': 'nothing of ads' });
    expect(await open()).toBe(first);
    write({ 'app/src/main/res/values/more.xml': '<resources/>' });
    const second = await open();
    expect(second).not.toBe(first);
    rmSync(join(folder, 'app/src/main/res/values/more.xml'));
    expect(await open()).toBe(first);
  });

  it('shows a change at once, however soon it is asked for', async () => {
    const path = join(folder, manifestPath);
    const before = readFileSync(path, 'utf8');
    const seen = new Set<string>();
    for (let turn = 0; turn < 12; turn++) {
      writeFileSync(path, `${before}<!-- ${turn} -->\n`);
      seen.add(await open());
    }
    expect(seen.size).toBe(12);
    writeFileSync(path, before);
  });

  it('follows folders that come and go', async () => {
    const first = await open();
    write({ 'app/src/beta/res/values/ids.xml': '<resources/>' });
    const second = await open();
    expect(second).not.toBe(first);
    renameSync(join(folder, 'app/src/beta'), join(folder, 'app/src/gamma'));
    const third = await open();
    expect(third).not.toBe(second);
    rmSync(join(folder, 'app/src/gamma'), { recursive: true });
    expect(await open()).toBe(first);
  });

  it('is refused outside', async () => {
    const answer = await http(api('/folders'), 'POST', { path: '/etc' });
    expect(answer.status).toBe(403);
  });
});

describe('a linked tree', () => {
  it('is read again when a file is saved, and says so', async () => {
    const { body: tree } = await http(api('/trees'), 'POST', { title: 'kelp', path: folder });
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    const before = await snapshotOf(tree.id);
    const path = join(folder, manifestPath);
    const text = readFileSync(path, 'utf8');
    const took = await nextEvent('reading', () =>
      writeFileSync(path, text.replace(/.*uses-permission.*\n/g, '')),
    );
    expect(took).toBeLessThan(5_000);
    expect(await snapshotOf(tree.id)).not.toBe(before);
    const { body: board } = await http(api('/titles/kelp/board'));
    expect(JSON.stringify(board)).toContain('"blocker":2');
    await nextEvent('reading', () => writeFileSync(path, text));
    expect(await snapshotOf(tree.id)).toBe(before);
  });

  it('is let go when it is unlinked', async () => {
    const { body: trees } = await http(api('/trees'));
    expect((await http(api(`/trees/${trees[0].id}`), 'DELETE')).status).toBe(200);
  });
});
