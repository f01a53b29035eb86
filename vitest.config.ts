import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

/** Tests of what reads sources and formats: some break the parsers on purpose, so each file has its own. */
const readers = 'tests/core/{syntax,formats,code}/**/*.test.ts';
/** One worker less than there are processors is the default, which leaves half of two idle. */
const maxWorkers = Math.max(2, availableParallelism() - 1);

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          globalSetup: 'tests/support/build-worker.ts',
          include: ['tests/{core,disk,partner,service,cli}/**/*.test.ts'],
          exclude: [readers],
          testTimeout: 90_000,
          expect: { poll: { timeout: 20_000 } },
          // Loading the modules anew for each file takes as long as the tests.
          isolate: false,
          maxWorkers,
        },
      },
      {
        test: { name: 'readers', include: [readers], testTimeout: 90_000, maxWorkers },
      },
      {
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          testTimeout: Number(process.env.SYNDEXA_TEST_TIMEOUT ?? 300_000),
          hookTimeout: 300_000,
          // As for the unit tests.
          isolate: false,
          expect: { poll: { timeout: 60_000 } },
          // Most of their time goes into waiting for the processes that they drive.
          maxWorkers: 2,
        },
      },
    ],
  },
});
