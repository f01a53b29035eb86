// What every benchmark of surveys needs: the client as a process, a service, medians, and a line for each ratio.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensurePackages } from '../scripts/browser.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const client = join(root, 'bin', 'run-bundle.cjs');
const patterns =
  'CH-[AI]-[0-9]{6}-[A-Z0-9]{8}|CH-U-[0-9]{6}-[A-Z0-9]{8}|mrl1-[0-9a-f]{24}|mrl-[A-Z]{4}-[0-9]{7}';

/** Makes sure of the programs and of the build, and gives a folder for a run with what measures in it. */
export function measuring() {
  if (!ensurePackages({ ripgrep: '/usr/bin/rg', time: '/usr/bin/time' })) process.exit(2);
  const built = spawnSync(process.execPath, [join(root, 'scripts', 'build.mjs'), 'node'], {
    stdio: 'inherit',
  });
  if (built.status !== 0) process.exit(1);
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));
  const tree = join(folder, 'tree');
  // NODE_EXTRA_CA_CERTS makes every start of Node read a file of certificates, for a reason of the machine it is
  // set on; nothing here speaks TLS, so it is left out.
  const { SYNDEXA_URL: _, NODE_EXTRA_CA_CERTS: __, ...inherited } = process.env;
  const home = join(folder, 'home');
  const env = { ...inherited, SYNDEXA_HOME: home };

  function timed(command, args) {
    const from = process.hrtime.bigint();
    const { status, stderr, stdout } = spawnSync(command, args, { env, maxBuffer: 1 << 28 });
    const time = Number(process.hrtime.bigint() - from) / 1e6;
    if (status !== 0) throw new Error(`${command} ended with ${status}: ${stderr}`);
    return { time, stdout: stdout.toString() };
  }
  const syndexa = (...args) => timed(process.execPath, [client, ...args]);

  /** Starts a service; with a root it reads and follows trees below it by itself. */
  async function serve(...more) {
    const service = spawn(
      process.execPath,
      [client, 'serve', '--port', '0', '--log-level', 'warn', ...more],
      { env, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    const said = await new Promise((resolve) => service.stdout.once('data', resolve));
    const [url] = /http:\/\/[\d.:]+/.exec(String(said));
    async function call(path, body) {
      const headers = { 'Content-Type': 'application/json' };
      const answer = await fetch(`${url}/api/v1${path}`, {
        method: 'POST',
        headers,
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${path} was answered with ${answer.status}`);
      return answer.json();
    }
    return {
      /** How long (milliseconds) the service takes for a survey, the start of a client left out. */
      async surveyed() {
        const from = performance.now();
        const { snapshot } = await call('/folders', { path: tree });
        await call(`/snapshots/${snapshot}/survey`, {});
        return performance.now() - from;
      },
      peak: () =>
        Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${service.pid}/status`, 'utf8'))?.[1]) / 1024,
      async stop() {
        service.kill('SIGTERM');
        await new Promise((resolve) => service.on('exit', resolve));
      },
    };
  }

  return {
    folder,
    tree,
    env,
    client,
    syndexa,
    serve,
    survey: () => syndexa('survey', tree, '--json').time,
    /** Takes away all that was ever known: the data folder is empty. */
    forget: () => rmSync(home, { recursive: true, force: true }),
    check: () => syndexa('check', tree, '--json', '--any-title', '--fail-on', 'never').time,
    search: () => timed('rg', ['--no-ignore', '--hidden', '-n', patterns, tree]).time,
  };
}

/** What a run measures on: the tree, and the machine. */
export function introduce({ files, bytes }, rounds) {
  console.log(
    `A tree of ${files} files, ${(bytes / 1e6).toFixed(0)} MB; ${rounds} rounds, medians; node ${process.version}, ${cpus().length} cores.\n`,
  );
}

/** What a run measures on, when there is no tree. */
export function introduceService() {
  console.log(`node ${process.version}, ${cpus().length} cores.\n`);
}

/** One line: what was measured, and what it came to. */
export function line(name, text) {
  console.log(`${name.padEnd(72)} ${text}`);
}

export const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** One line: what was measured, both medians (milliseconds), their ratio and the aim. */
export function report(name, aim, ours, theirs) {
  const [a, b] = [median(ours), median(theirs)];
  const ratio = a / b;
  console.log(
    `${name.padEnd(58)} ${a.toFixed(0).padStart(5)} ms / ${b.toFixed(0).padStart(5)} ms = ${ratio.toFixed(2)}   (aim ${aim})${ratio <= aim ? '' : '   MISSED'}`,
  );
}

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
