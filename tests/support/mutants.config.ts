import { join } from 'node:path';
import { defineConfig } from 'vitest/config';

/** The tests of one area, as `scripts/mutants.mjs` runs them on mutated sources. */
export default defineConfig({
  root: join(import.meta.dirname, '..', '..'),
  test: {
    include: JSON.parse(process.env.SYNDEXA_MUTANT_TESTS ?? '[]') as string[],
    isolate: false,
    testTimeout: 90_000,
  },
});
