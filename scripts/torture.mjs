// The long forms of tests that every run has in short: kills at many moments. Prints what was tried.
import { spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const files = ['writing', 'kills'].map((name) => `tests/e2e/${name}.test.ts`);
const vitest = join(root, 'node_modules', 'vitest', 'vitest.mjs');
const run = spawnSync(process.execPath, [vitest, 'run', '--project', 'e2e', '--reporter=verbose', ...files], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, SYNDEXA_TORTURE: '1', SYNDEXA_TEST_TIMEOUT: '3600000' },
});
process.exit(run.status ?? 1);
