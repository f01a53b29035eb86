import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './src/partner/store/schema.ts',
  out: './src/partner/store/migrations',
});
