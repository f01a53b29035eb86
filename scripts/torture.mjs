// The long forms of tests that every run has in short: mutated files, load, kills at many moments. Prints what was tried.
import { spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const files = [
  'tests/core/formats/every-reader.test.ts',
  'tests/e2e/load.test.ts',
  'tests/e2e/writing.test.ts',
  'tests/e2e/kills.test.ts',
];
const vitest = join(root, 'node_modules', 'vitest', 'vitest.mjs');
const run = spawnSync(process.execPath, [vitest, 'run', '--reporter=verbose', ...files], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, SYNDEXA_TORTURE: '1', SYNDEXA_TEST_TIMEOUT: '3600000' },
});
process.exit(run.status ?? 1);
