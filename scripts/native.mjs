// Builds what is in machine code, with the C++ compiler of this machine.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const folder = join(root, 'src', 'service', 'trees', 'native');
const made = join(root, 'dist', 'native', 'walk.node');

const headers = join(dirname(createRequire(import.meta.url).resolve('node-api-headers')), 'include');
const flags = ['-std=c++17', '-O2', '-fPIC', '-fvisibility=hidden', '-pthread', '-I', headers];
// Node's own names are found in the process that loads it.
const shared = process.platform === 'darwin' ? ['-bundle', '-undefined', 'dynamic_lookup'] : ['-shared'];

function compile(...more) {
  const [compiler, ...first] = (process.env.CXX || 'c++').split(' ');
  const sources = readdirSync(folder).filter((name) => name.endsWith('.cc'));
  const args = [...first, ...flags, ...more, ...sources.map((name) => join(folder, name))];
  const { status, stderr, error } = spawnSync(compiler, args, { encoding: 'utf8' });
  return { ok: status === 0, compiler, says: error?.message ?? stderr };
}

/**
 * Compiles the module that Node loads, unless it is newer than its sources. Where there is no compiler that can, it
 * says so, and nothing is made: what is in machine code has a twin in TypeScript, which is slower and finds the same.
 */
export function buildNative() {
  const newest = Math.max(...readdirSync(folder).map((name) => statSync(join(folder, name)).mtimeMs));
  if (existsSync(made) && statSync(made).mtimeMs > newest) return;
  mkdirSync(dirname(made), { recursive: true });
  // A process that runs keeps the file that it has loaded.
  const draft = `${made}.${process.pid}`;
  const { ok, compiler, says } = compile(...shared, '-o', draft);
  if (ok) renameSync(draft, made);
  else
    process.stderr.write(
      `${compiler} did not build the quick reading of folders; they are read the slower way.\n${says}\n`,
    );
}

/** What the compiler has to say of the sources; nothing when they are good. */
export function compilerSays() {
  const { ok, says } = compile('-Wall', '-Wextra', '-Werror', '-fsyntax-only');
  return ok ? '' : says;
}
