// Rounds of changing a file, reading the tree, wiring it and taking that back, for so many minutes (60 unless another
// number is given): what the service needs in memory, after forced collection, must not grow.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { appendFileSync, cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { introduceService, line, median } from './measure.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const minutes = Number(process.argv[2] ?? 60);
const folder = mkdtempSync(join(tmpdir(), 'syndexa-rounds-'));
const tree = join(folder, 'tidewick');
cpSync(join(root, 'demo', 'trees', 'tidewick'), tree, { recursive: true });
const service = spawn(
  process.execPath,
  ['--expose-gc', join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--root', folder],
  { env: { ...process.env, SYNDEXA_HOME: join(folder, 'home') }, stdio: ['ignore', 'pipe', 'ignore'] },
);
const [said] = await once(service.stdout, 'data');
const url = /http:\/\/\S+/.exec(String(said))?.[0];

async function ask(method, path, body) {
  const answer = await fetch(`${url}/api/v1${path}`, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  const found = await answer.json();
  if (!answer.ok) throw new Error(`${path} was answered with ${answer.status}: ${JSON.stringify(found)}`);
  return found;
}

/** Memory (MB): what the main thread and the worker need, and what the process has. */
async function memory() {
  const text = await (await fetch(`${url}/metrics`)).text();
  const of = (name) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]) / 1024 / 1024;
  return {
    heap: of('syndexa_heap_bytes'),
    worker: of('syndexa_worker_bytes'),
    resident: of('syndexa_resident_bytes'),
  };
}

try {
  introduceService();
  await ask('POST', '/roster/import', { document: readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8') });
  const linked = await ask('POST', '/trees', { title: 'tidewick', path: tree });
  const changed = join(tree, 'android', 'app', 'build.gradle.kts');
  const end = performance.now() + minutes * 60_000;
  const [points, times] = [[], []];
  let sampled = -Infinity;
  while (performance.now() < end) {
    const from = performance.now();
    appendFileSync(changed, `// ${times.length}\n`);
    const { snapshot } = await ask('POST', `/trees/${linked.id}/read`, {});
    const wiring = await ask('POST', `/snapshots/${snapshot}/wire`, { title: 'tidewick' });
    await ask('POST', `/trees/${linked.id}/apply`, { wiring: wiring.id });
    await ask('POST', `/trees/${linked.id}/undo`, {});
    times.push(performance.now() - from);
    if (performance.now() - sampled < 15_000) continue;
    sampled = performance.now();
    points.push({ at: sampled / 60_000, ...(await memory()) });
  }
  // The first quarter fills what is kept on purpose.
  const settled = points.slice(Math.floor(points.length / 4));
  const slope = (name) => {
    const mean = (of) => settled.reduce((sum, point) => sum + of(point), 0) / settled.length;
    const [x, y] = [mean(({ at }) => at), mean((point) => point[name])];
    const up = settled.reduce((sum, point) => sum + (point.at - x) * (point[name] - y), 0);
    return up / settled.reduce((sum, { at }) => sum + (at - x) ** 2, 0);
  };
  line('rounds', `${times.length} in ${minutes} min, ${median(times).toFixed(0)} ms each`);
  const minutesIn = ({ at }) => Math.round(at - points[0].at);
  for (const point of points.filter((_, index) => index % Math.ceil(points.length / 12) === 0))
    line(
      `after ${minutesIn(point)} min`,
      ['heap', 'worker', 'resident'].map((name) => `${name} ${point[name].toFixed(1)} MB`).join(', '),
    );
  for (const name of ['heap', 'worker', 'resident'])
    line(
      `${name} memory, per hour after the first quarter`,
      `${(slope(name) * 60).toFixed(2)} MB (it is ${median(settled.map((point) => point[name])).toFixed(0)} MB)`,
    );
} finally {
  service.kill('SIGTERM');
  await once(service, 'exit');
  rmSync(folder, { recursive: true, force: true });
}
