// A tree of 400,000 files: three first surveys in a row against a search of the same tree, read by the client and sent,
// and read by the service itself.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { introduce, line, measuring, report } from './measure.mjs';
import { makeMonorepo } from './tree.mjs';

const { folder, tree, env, client, syndexa, serve, forget, search } = measuring();
const rounds = 3;
const demo = join(dirname(fileURLToPath(import.meta.url)), '..', 'demo', 'trees');
introduce(makeMonorepo(tree, demo, 400_000), rounds);

/** The time of a survey (ms), and the peak memory of the client (MB). */
function survey() {
  const peak = join(folder, 'peak');
  const from = performance.now();
  const command = ['-f', '%M', '-o', peak, process.execPath, client, 'survey', tree, '--json'];
  const { status, stderr } = spawnSync('/usr/bin/time', command, { env, maxBuffer: 1 << 28 });
  if (status !== 0) throw new Error(`A survey ended with ${status}: ${stderr}`);
  return { time: performance.now() - from, memory: Number(readFileSync(peak, 'utf8')) / 1024 };
}

/** A survey that ends with a code other than 0 ends the run. */
async function firstSurveys(...options) {
  const times = [];
  let [resident, memory] = [0, 0];
  for (let round = 0; round < rounds; round++) {
    forget();
    const service = await serve(...options);
    syndexa('network', 'list');
    const done = survey();
    times.push(done.time);
    memory = Math.max(memory, done.memory);
    resident = Math.max(resident, service.peak());
    await service.stop();
  }
  return { times, peaks: `${resident.toFixed(0)} MB, ${memory.toFixed(0)} MB` };
}

try {
  search();
  const plain = Array.from({ length: rounds }, search);
  const sent = await firstSurveys();
  const own = await firstSurveys('--root', folder);
  report('400,000 files: first survey, read by the service, against rg', 10, own.times, plain);
  report('400,000 files: first survey, read by the client, against rg', 10, sent.times, plain);
  line('Peak memory of service and client, read by the service (bound 500 MB)', own.peaks);
  line('Peak memory of service and client, read by the client (bound 500 MB)', sent.peaks);
  line('Surveys that ended with 0', `${sent.times.length + own.times.length} of ${2 * rounds}`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
