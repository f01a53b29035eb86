import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync, rmSync } from 'node:fs';
import { get } from 'node:http';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addressOf } from '../support/serve.js';
import { http, temporaryFolder } from '../support/service.js';
import { isLong, report, rounds } from '../support/torture.js';
import { androidFiles, iosFiles, root } from '../support/trees.js';

// With SYNDEXA_TORTURE=1 (npm run torture) there are 20 clients for ten minutes.
const clients = rounds(8, 20);
const lasts = rounds(6_000, 600_000);
/** How long a client waits between two requests (ms): together they stay below what one machine may ask. */
const between = rounds(20, 45);

let home: string;
let service: ChildProcess;
let url: string;
let snapshot: string;
beforeAll(async () => {
  home = temporaryFolder();
  // With the collector at hand, /metrics tells what is still needed.
  service = spawn(
    process.execPath,
    ['--expose-gc', join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0'],
    {
      env: { ...process.env, SYNDEXA_HOME: home },
      stdio: ['ignore', 'pipe', 'ignore'],
    },
  );
  url = await addressOf(service);
  await http(`${url}/api/v1/roster/import`, 'POST', {
    document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
  });
  const files = Object.entries({ ...androidFiles(), ...iosFiles() }).map(([path, text]) => ({
    path,
    text,
    hash: hashOf(text),
  }));
  const listed = files.map(({ path, text, hash }) => ({ path, hash, size: text.length }));
  snapshot = (await http(`${url}/api/v1/snapshots`, 'POST', { name: 'load', files: listed })).body.id;
  const blobs = files.map(({ hash, text }) => ({ hash, base64: Buffer.from(text).toString('base64') }));
  await http(`${url}/api/v1/blobs`, 'POST', { blobs });
});
afterAll(async () => {
  service.kill('SIGTERM');
  if (service.exitCode === null) await once(service, 'exit');
  rmSync(home, { recursive: true, force: true });
});

const hashOf = (text: string) => createHash('sha256').update(text).digest('hex');
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const api = (path: string) => `${url}/api/v1${path}`;

/** What a client may do, and the statuses that it may be answered with. */
const doings: ((turn: number) => Promise<{ status: number; may: number[] }>)[] = [
  async () => ({ ...(await http(api('/titles'))), may: [200] }),
  async () => ({ ...(await http(api('/titles/tidewick/board'))), may: [200] }),
  async () => ({ ...(await http(api('/titles/tidewick/steps'))), may: [200] }),
  async () => ({ ...(await http(api('/titles/tidewick/history?limit=20'))), may: [200] }),
  async () => ({
    ...(await http(api('/rules'), 'GET', undefined, { 'Accept-Encoding': 'gzip' })),
    may: [200],
  }),
  async (turn) => {
    const { body } = await http(api('/titles/plumebook'));
    const match = { 'If-Match': `"v${body.version}"` };
    return {
      ...(await http(api('/titles/plumebook'), 'PATCH', { name: `Plumebook ${turn % 50}` }, match)),
      may: [200, 412],
    };
  },
  async (turn) => {
    const slot = { network: 'cobalt-heron', platform: 'android', stage: 'production', placement: null };
    const value = `CH-A-204418-${String(turn % 90).padStart(8, '0')}`;
    return {
      ...(await http(api('/titles/kilnlog/ids'), 'PUT', { ...slot, value }, { 'If-Match': '*' })),
      may: [200, 422],
    };
  },
  async () => ({
    ...(await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'tidewick' })),
    may: [200, 422],
  }),
  async () => ({ ...(await http(api(`/snapshots/${snapshot}/survey`), 'POST', {})), may: [200] }),
  async () => ({
    ...(await http(api(`/snapshots/${snapshot}/wire`), 'POST', { title: 'tidewick' })),
    may: [200, 422],
  }),
  async () => ({ ...(await http(api('/titles'), 'POST', '{"id":')), may: [400] }),
  async () => ({ ...(await http(api('/titles/nobody'))), may: [404] }),
  // Somebody who opens a stream and goes away.
  () =>
    new Promise((resolve, reject) => {
      const call = get(api('/events'), (response) => {
        call.destroy();
        resolve({ status: response.statusCode ?? 0, may: [200] });
      });
      call.on('error', reject);
    }),
];

const value = (text: string, name: string) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]);
const mean = (numbers: number[]) => numbers.reduce((sum, one) => sum + one, 0) / numbers.length;
const percentile = (numbers: number[], part: number) =>
  [...numbers].sort((a, b) => a - b)[Math.floor((numbers.length - 1) * part)] ?? 0;

it('many clients at once meet no error, and what the service keeps in memory does not grow', async () => {
  const end = performance.now() + lasts;
  const errors: string[] = [];
  let requests = 0;
  const client = async (number: number) => {
    for (let turn = number; performance.now() < end; turn++) {
      const at = (turn * 7 + number) % doings.length;
      try {
        const { status, may } = await doings[at]!(turn);
        if (!may.includes(status)) errors.push(`${at}: ${status}`);
      } catch (error) {
        errors.push(`${at}: ${String(error)}`);
      }
      requests += 1;
      await wait(between);
    }
  };
  const pulse: number[] = [];
  const heart = async () => {
    while (performance.now() < end) {
      const from = performance.now();
      await http(`${url}/healthz`);
      pulse.push(performance.now() - from);
      await wait(50);
    }
  };
  const heap: number[] = [];
  let delay = 0;
  const watch = async () => {
    while (performance.now() < end) {
      await wait(lasts / 40);
      const { text } = await http(`${url}/metrics`);
      heap.push(value(text, 'syndexa_heap_bytes') / 1024 / 1024);
      delay = value(text, 'syndexa_event_loop_delay_seconds\\{quantile="0.99"\\}') * 1000;
    }
  };
  await Promise.all([...Array.from({ length: clients }, (_, at) => client(at)), heart(), watch()]);
  const quarter = Math.floor(heap.length / 4);
  const [early, late] = [mean(heap.slice(quarter, 2 * quarter)), mean(heap.slice(-quarter))];
  if (isLong)
    report(
      `${clients} clients, ${requests} requests, ${errors.length} errors; heap ${early.toFixed(1)} MB, at the end ${late.toFixed(1)} MB; ` +
        `healthz median ${percentile(pulse, 0.5).toFixed(1)} ms, 99 % within ${percentile(pulse, 0.99).toFixed(1)} ms; event loop delay, 99 % within ${delay.toFixed(1)} ms`,
    );
  expect(errors).toEqual([]);
  expect(requests).toBeGreaterThan(clients);
  // Right after the start there is more to warm up than to leak.
  if (isLong) expect(late).toBeLessThan(early * 1.1);
  else expect(late).toBeLessThan(early * 2);
}, 3_600_000);
