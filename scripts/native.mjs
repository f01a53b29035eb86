// Builds what is in machine code, with the C++ compiler of this machine.
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const headers = join(dirname(createRequire(import.meta.url).resolve('node-api-headers')), 'include');
const flags = [
  '-std=c++17',
  '-O2',
  '-Wall',
  '-Wextra',
  '-Werror',
  '-fPIC',
  '-fvisibility=hidden',
  '-pthread',
];
// Node's own names are found in the process that loads it.
const shared = process.platform === 'darwin' ? ['-bundle', '-undefined', 'dynamic_lookup'] : ['-shared'];

/**
 * Compiles the files of a folder into a module that Node loads. Where there is no compiler that can, it says so, and
 * nothing is made: what is in machine code has a twin in TypeScript, which is slower and finds the same.
 */
export function buildNative(folder, made) {
  const sources = readdirSync(folder).filter((name) => name.endsWith('.cc'));
  const [compiler, ...first] = (process.env.CXX || 'c++').split(' ');
  const { status, stderr, error } = spawnSync(
    compiler,
    [...first, ...flags, ...shared, '-I', headers, '-o', made, ...sources.map((name) => join(folder, name))],
    { encoding: 'utf8' },
  );
  if (status === 0) return true;
  process.stderr.write(
    `${compiler} did not build the quick reading of folders; they are read the slower way.\n${error?.message ?? stderr}\n`,
  );
  return false;
}
