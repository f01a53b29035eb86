import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          globalSetup: 'tests/support/build-worker.ts',
          include: ['tests/{core,disk,api,partner,service,cli}/**/*.test.ts'],
          testTimeout: 90_000,
          expect: { poll: { timeout: 20_000 } },
          // One worker less than there are processors is the default, which leaves half of two idle.
          maxWorkers: Math.max(2, availableParallelism() - 1),
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          testTimeout: Number(process.env.SYNDEXA_TEST_TIMEOUT ?? 300_000),
          hookTimeout: 300_000,
          expect: { poll: { timeout: 60_000 } },
          // Most of their time goes into waiting for the processes that they drive.
          maxWorkers: 2,
        },
      },
    ],
  },
});
