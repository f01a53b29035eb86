// Collecting 10,000 units from a network, against the bare HTTP time of the same pages, in one run.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const home = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));
const { SYNDEXA_URL: _, NODE_EXTRA_CA_CERTS: __, ...inherited } = process.env;
const key = 'benchmark-key-of-this-run';
const count = 10_000;
const rounds = 11;
const aim = 1.5;

const partner = spawn(
  process.execPath,
  [join(root, 'dist', 'node', 'partner.cjs'), '--port', '0', '--rate', '1000000/1'],
  { stdio: ['ignore', 'pipe', 'inherit'] },
);
const card = JSON.parse(String(await new Promise((resolve) => partner.stdout.once('data', resolve))));
const service = spawn(
  process.execPath,
  [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'silent'],
  {
    env: { ...inherited, SYNDEXA_HOME: home, SYNDEXA_PARTNERS: card.url, SYNDEXA_SECRET_BENCH: key },
    stdio: ['ignore', 'pipe', 'inherit'],
  },
);
await new Promise((resolve) => service.stdout.once('data', resolve));
const { url, pid } = JSON.parse(readFileSync(join(home, 'service.json'), 'utf8'));

async function ask(address, method, body, headers = {}) {
  const response = await fetch(address, {
    method,
    headers: { 'Content-Type': 'application/json', ...headers },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!response.ok) throw new Error(`${address}: ${response.status} ${await response.text()}`);
  return response.json();
}
const control = (path, body) =>
  ask(`${card.url}/control/${path}`, 'POST', body, { 'Control-Token': card.token });

await control('accounts', { network: 'cobalt-heron', name: 'Bench', key });
await control('many', { network: 'cobalt-heron', key, count });
await ask(`${url}/api/v1/publisher`, 'PUT', {
  name: 'Bench',
  domain: 'bench.example',
  credentials: { 'cobalt-heron': { inventory: 'secret:BENCH' } },
});
await ask(`${url}/api/v1/titles`, 'POST', {
  id: 'bench',
  title: {
    name: 'Bench',
    editions: { android: { identifier: 'example.bench.app' } },
    placements: { footer: { format: 'banner', units: { 'cobalt-heron': {} } } },
  },
});

/** The pages as they come, one after another, their texts read and nothing more. */
async function bare() {
  let next;
  let pages = 0;
  for (const path of ['apps', 'units']) {
    do {
      const response = await fetch(
        `${card.url}/cobalt-heron/${path}?limit=200${next ? `&after=${next}` : ''}`,
        { headers: { Authorization: `Bearer ${key}` } },
      );
      const text = await response.text();
      next = /"next":"([^"]+)"/.exec(text)?.[1];
      pages++;
    } while (next);
  }
  return pages;
}

async function collect() {
  const answer = await ask(`${url}/api/v1/titles/bench/collect`, 'POST', { network: 'cobalt-heron' });
  if (answer.units !== count) throw new Error(`${answer.units} units came, not ${count}.`);
}

async function timed(work) {
  const from = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - from) / 1e6;
}
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

try {
  const pages = await bare();
  await collect();
  const [ours, theirs] = [[], []];
  for (let round = 0; round < rounds; round++) {
    ours.push(await timed(collect));
    theirs.push(await timed(bare));
    await sleep(50);
  }
  const [a, b] = [median(ours), median(theirs)];
  const ratio = a / b;
  console.log(
    `collect ${count} units, against the bare ${pages} pages`.padEnd(52) +
      ` ${a.toFixed(0).padStart(5)} ms / ${b.toFixed(0).padStart(5)} ms = ${ratio.toFixed(2)}   (aim ${aim})${ratio <= aim ? '' : '   MISSED'}`,
  );
  const resident = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
  console.log(
    `${'  at most in memory, of the service'.padEnd(52)} ${(Number(resident) / 1024).toFixed(0).padStart(5)} MB`,
  );
} finally {
  service.kill('SIGTERM');
  partner.kill('SIGTERM');
  await sleep(300);
  rmSync(home, { recursive: true, force: true });
}
