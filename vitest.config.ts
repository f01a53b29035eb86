import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['tests/{core,disk,api,partner,service,cli}/**/*.test.ts'],
          testTimeout: 90_000,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          testTimeout: Number(process.env.SYNDEXA_TEST_TIMEOUT ?? 300_000),
          hookTimeout: 300_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
