import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './src/service/store/schema.ts',
  out: './src/service/store/migrations',
});
