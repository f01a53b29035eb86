// Benchmarks, each a ratio of two things measured side by side in this one run.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
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
const check = () => syndexa('check', tree, '--json', '--fail-on', 'never').time;
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

function report(name, aim, ours, theirs) {
  const [a, b] = [median(ours), median(theirs)];
  const ratio = a / b;
  console.log(
    `${name.padEnd(58)} ${a.toFixed(0).padStart(5)} ms / ${b.toFixed(0).padStart(5)} ms = ${ratio.toFixed(2)}   (aim ${aim})${ratio <= aim ? '' : '   MISSED'}`,
  );
}

/** Starts a service; with a root it reads and follows trees below it by itself. */
async function serve(...more) {
  const service = spawn(
    process.execPath,
    [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'warn', ...more],
    { env, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  await new Promise((resolve) => service.stdout.once('data', resolve));
  return {
    peak: () =>
      Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${service.pid}/status`, 'utf8'))?.[1]) / 1024,
    async stop() {
      service.kill('SIGTERM');
      await new Promise((resolve) => service.on('exit', resolve));
    },
  };
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const saved = join(tree, 'app', 'src', 'main', 'AndroidManifest.xml');

try {
  const apart = { ours: [], theirs: [] };
  survey();
  search();
  for (let round = 0; round < rounds; round++) {
    apart.ours.push(survey());
    apart.theirs.push(search());
  }
  report('first survey, service started for it, against rg', 2.5, apart.ours, apart.theirs);

  const first = [];
  const second = [];
  const changed = [];
  const plain = [];
  let resident = 0;
  for (let round = 0; round < 7; round++) {
    const service = await serve('--root', folder);
    syndexa('network', 'list');
    first.push(survey());
    plain.push(search());
    // The folder is followed from now on; setting that up goes on in the background.
    await pause(5_000);
    survey();
    second.push(survey(), survey(), survey());
    for (let turn = 0; turn < 3; turn++) {
      writeFileSync(
        saved,
        readFileSync(saved, 'utf8').replace(
          /(<!-- turn \d+-\d+ -->\n)?$/,
          `<!-- turn ${round}-${turn} -->\n`,
        ),
      );
      changed.push(survey());
    }
    resident = Math.max(resident, service.peak());
    await service.stop();
  }
  report('first survey, with a running service, against rg', 1.5, first, plain);
  report('second survey, with a running service, against rg', 1.5, second, plain);
  report('second survey of an unchanged tree against the first', 0.3, second, first);
  report('survey after one file changed against the first', 0.5, changed, first);

  const few = [];
  const many = [];
  const service = await serve('--root', folder);
  const titles = (count) => {
    const names = Array.from({ length: count }, (_, index) => `title-${index}`);
    const title = (name) =>
      `  ${name}:\n    name: ${name}\n    editions: { android: { identifier: example.bench.${name} } }\n`;
    const document = join(folder, 'roster.yaml');
    writeFileSync(document, `syndexa: 1\ntitles:\n${names.map(title).join('')}`);
    syndexa('roster', 'import', document, '--yes');
  };
  titles(1);
  check();
  await pause(5_000);
  for (let round = 0; round < rounds; round++) few.push(check());
  titles(1_000);
  check();
  for (let round = 0; round < rounds; round++) many.push(check());
  report('check with a roster of 1,000 titles against 1 title', 1.5, many, few);
  resident = Math.max(resident, service.peak());
  await service.stop();

  const { stderr } = spawnSync(
    '/usr/bin/time',
    ['-v', process.execPath, join(root, 'bin', 'run-bundle.cjs'), 'survey', tree, '--json'],
    { env, maxBuffer: 1 << 28 },
  );
  const peak = Number(/Maximum resident set size \(kbytes\): (\d+)/.exec(stderr.toString())?.[1]) / 1024;
  console.log(
    `\nPeak memory: ${peak.toFixed(0)} MB with the service in the same process, ${resident.toFixed(0)} MB in a running service (bound 300 MB).`,
  );
} finally {
  rmSync(folder, { recursive: true, force: true });
}
