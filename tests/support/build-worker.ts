import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..', '..');

/** Builds what cannot be run from its sources: the worker threads of the service, and the partner that rehearsals start. */
export function setup(): void {
  build('worker');
  if (!existsSync(join(root, 'dist', 'node', 'partner.cjs'))) build('node');
}

function build(part: string): void {
  const script = join(root, 'scripts', 'build.mjs');
  const built = spawnSync(process.execPath, [script, part], { stdio: 'inherit' });
  if (built.status !== 0) throw new Error(`The ${part} could not be built.`);
}
