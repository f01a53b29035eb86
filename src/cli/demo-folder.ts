import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CommandError, exit } from './io.js';

/** The folder `demo/` of the checkout. */
export function demoFolder(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  // Two folders up from the bundle, and from the sources.
  const candidates = [join(here, '..', '..', 'demo')];
  const found = candidates.find((folder) => existsSync(join(folder, 'roster.yaml')));
  if (!found)
    throw new CommandError(
      'The files of the demo are missing.',
      exit.wrongUse,
      'Run it from a checkout of the project.',
    );
  return found;
}
