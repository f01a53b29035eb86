import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

/** Builds the worker threads of the service: they cannot be run from their sources. */
export function setup(): void {
  const script = join(import.meta.dirname, '..', '..', 'scripts', 'build.mjs');
  const built = spawnSync(process.execPath, [script, 'worker'], { stdio: 'inherit' });
  if (built.status !== 0) throw new Error('The worker could not be built.');
}
