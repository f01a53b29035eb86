import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: ['./src/service/store/schema.ts', './src/service/store/tally-schema.ts'],
  out: './src/service/store/migrations',
});
