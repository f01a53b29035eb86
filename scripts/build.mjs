// Builds what is not built: `node` (client and service, bundled) and `console` (the web console).
import { cpSync, mkdirSync, rmSync, utimesSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const parts = process.argv.length > 2 ? process.argv.slice(2) : ['node', 'console'];

if (parts.includes('node')) {
  const { build } = await import('esbuild');
  const outdir = join(root, 'dist', 'node');
  rmSync(outdir, { recursive: true, force: true });
  mkdirSync(outdir, { recursive: true });
  await build({
    absWorkingDir: root,
    entryPoints: { main: 'src/cli/main.ts' },
    outdir,
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    minify: true,
    keepNames: true,
    sourcemap: 'linked',
    external: ['better-sqlite3'],
    banner: { js: "import{createRequire as __cr}from'node:module';const require=__cr(import.meta.url);" },
    logLevel: 'warning',
  });
  cpSync(join(root, 'src', 'service', 'store', 'migrations'), join(root, 'dist', 'migrations'), {
    recursive: true,
  });
  cpSync(join(root, 'profiles'), join(root, 'dist', 'profiles'), { recursive: true });
  const now = new Date();
  utimesSync(join(outdir, 'main.js'), now, now);
}

if (parts.includes('console')) {
  const { build } = await import('vite');
  await build({ configFile: join(root, 'vite.config.ts'), logLevel: 'warn' });
}
