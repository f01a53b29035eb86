// Benchmarks, each a ratio of two things measured side by side in this one run.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensurePackages } from '../scripts/browser.mjs';
import { makeTree } from './tree.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
if (!ensurePackages({ ripgrep: '/usr/bin/rg', time: '/usr/bin/time' })) process.exit(2);
const built = spawnSync(process.execPath, [join(root, 'scripts', 'build.mjs'), 'node'], { stdio: 'inherit' });
if (built.status !== 0) process.exit(1);

const folder = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));
const tree = join(folder, 'tree');
const home = join(folder, 'home');
const rounds = 11;
const count = 20_000;
// NODE_EXTRA_CA_CERTS makes every start of Node read a file of certificates, for a reason of the machine it is
// set on; nothing here speaks TLS, so it is left out.
const { SYNDEXA_URL: _, NODE_EXTRA_CA_CERTS: __, ...inherited } = process.env;
const env = { ...inherited, SYNDEXA_HOME: home };
const patterns =
  'CH-[AI]-[0-9]{6}-[A-Z0-9]{8}|CH-U-[0-9]{6}-[A-Z0-9]{8}|mrl1-[0-9a-f]{24}|mrl-[A-Z]{4}-[0-9]{7}';

const { files, bytes } = makeTree(tree, count);
console.log(
  `A tree of ${files} files, ${(bytes / 1e6).toFixed(0)} MB; ${rounds} rounds, medians; node ${process.version}, ${cpus().length} cores.\n`,
);

function timed(command, args, options = {}) {
  const from = process.hrtime.bigint();
  const { status, stderr, stdout } = spawnSync(command, args, { env, maxBuffer: 1 << 28, ...options });
  const time = Number(process.hrtime.bigint() - from) / 1e6;
  if (status !== 0) throw new Error(`${command} ended with ${status}: ${stderr}`);
  return { time, stdout: stdout.toString() };
}

const search = () => timed('rg', ['--no-ignore', '--hidden', '-n', patterns, tree]).time;
const syndexa = (...args) => timed(process.execPath, [join(root, 'bin', 'run-bundle.cjs'), ...args]);
const survey = () => syndexa('survey', tree, '--json').time;
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** Runs both in turn, so that whatever else the machine does falls on both. */
function compare(name, aim, subject, yardstick) {
  const [ours, theirs] = [[], []];
  subject();
  yardstick();
  for (let round = 0; round < rounds; round++) {
    ours.push(subject());
    theirs.push(yardstick());
  }
  const [a, b] = [median(ours), median(theirs)];
  const ratio = a / b;
  console.log(
    `${name.padEnd(52)} ${a.toFixed(0).padStart(5)} ms / ${b.toFixed(0).padStart(5)} ms = ${ratio.toFixed(2)}   (aim ${aim})${ratio <= aim ? '' : '   MISSED'}`,
  );
}

try {
  compare('survey, service started for it, against rg', 2.5, survey, search);
  const service = spawn(
    process.execPath,
    [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'warn'],
    { env, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  await new Promise((resolve) => service.stdout.once('data', resolve));
  compare('survey, with a running service, against rg', 1.5, survey, search);
  const resident =
    Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${service.pid}/status`, 'utf8'))?.[1]) / 1024;
  service.kill('SIGTERM');
  await new Promise((resolve) => service.on('exit', resolve));
  const { stderr } = spawnSync(
    '/usr/bin/time',
    ['-v', process.execPath, join(root, 'bin', 'run-bundle.cjs'), 'survey', tree, '--json'],
    { env, maxBuffer: 1 << 28 },
  );
  const peak = Number(/Maximum resident set size \(kbytes\): (\d+)/.exec(stderr.toString())?.[1]) / 1024;
  console.log(
    `\nPeak memory: ${peak.toFixed(0)} MB with the service in the same process, ${resident.toFixed(0)} MB in a service that ran ${rounds + 1} surveys (bound 300 MB).`,
  );
} finally {
  rmSync(folder, { recursive: true, force: true });
}
