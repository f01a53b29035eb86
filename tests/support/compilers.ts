import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach } from 'vitest';
import { temporaryFolder } from './service.js';

/** A folder for each test, to put files into and to run compilers in. */
export function compiling() {
  let home = '';
  beforeEach(() => {
    home = temporaryFolder();
  });
  afterEach(() => rmSync(home, { recursive: true, force: true }));
  return {
    at: (path: string) => join(home, path),
    run: (command: string, args: string[]) =>
      execFileSync(command, args, { cwd: home, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] }),
    put(files: Record<string, string>): void {
      for (const [path, content] of Object.entries(files)) {
        mkdirSync(join(home, path, '..'), { recursive: true });
        writeFileSync(join(home, path), content);
      }
    },
  };
}
