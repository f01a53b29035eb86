// Builds what is not built: `node` (client and service, bundled), `console` (the web console), and `worker` (the worker
// threads alone, which a service that is run from its sources needs too).
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const parts = process.argv.length > 2 ? process.argv.slice(2) : ['node', 'console'];

/** What the client loads only for some commands: bundles of their own. */
const apart = {
  service: 'src/service/boot.ts',
  docs: 'src/cli/commands/docs.ts',
  'demo-partner': 'src/cli/commands/demo-partner.ts',
};
const othersApart = {
  name: 'others-apart',
  setup(build) {
    for (const [name, entry] of Object.entries(apart)) {
      const end = entry.split('/').at(-1).replace(/ts$/, 'js');
      const filter = new RegExp(`/${end.replace('.', '\\.')}$`);
      build.onResolve({ filter }, ({ kind }) =>
        kind === 'dynamic-import' || name === 'service'
          ? { path: `./${name}.cjs`, external: true }
          : undefined,
      );
    }
  },
};

/** Reads the shipped profiles once and for all, so that starting the service need not. */
async function writeProfiles(build, folder) {
  const reader = join(folder, 'read.cjs');
  await build({
    entryPoints: [join(root, 'src', 'core', 'network', 'read.ts')],
    outfile: reader,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    logLevel: 'warning',
  });
  const { readProfile } = await import(pathToFileURL(reader).href);
  for (const name of readdirSync(join(root, 'profiles'))) {
    const source = readFileSync(join(root, 'profiles', name), 'utf8');
    const { profile, problems } = readProfile(source);
    if (!profile) throw new Error(`profiles/${name}: ${JSON.stringify(problems)}`);
    writeFileSync(join(folder, name.replace(/\.yaml$/, '.json')), JSON.stringify({ profile, source }));
  }
  rmSync(reader);
}

/** Tells one build of the readers from another: by their sources, and by the packages that they read with. */
function stamp() {
  const hash = createHash('sha256').update(readFileSync(join(root, 'package-lock.json')));
  const core = join(root, 'src', 'core');
  for (const path of readdirSync(core, { recursive: true }).sort())
    if (path.endsWith('.ts')) hash.update(path).update(readFileSync(join(core, path)));
  return hash.digest('hex').slice(0, 16);
}

const outdir = join(root, 'dist', 'node');

/** How everything that runs on Node is bundled. */
function bundling() {
  return {
    absWorkingDir: root,
    bundle: true,
    platform: 'node',
    target: 'node20',
    // One plain script each, so that what V8 compiles of it can be kept (bin/run-bundle.cjs).
    format: 'cjs',
    supported: { 'dynamic-import': false },
    define: {
      'import.meta.url': 'bundleUrl',
      BUILT_STAMP: JSON.stringify(stamp()),
    },
    banner: { js: "const bundleUrl=require('node:url').pathToFileURL(__filename).href;" },
    minify: true,
    sourcemap: 'linked',
    external: ['better-sqlite3', 'piscina'],
    // Its other form asks for its parts in a way that cannot be bundled.
    alias: {
      'jsonc-parser': 'jsonc-parser/lib/esm/main.js',
      'web-tree-sitter': join(root, 'node_modules', 'web-tree-sitter', 'tree-sitter.cjs'),
    },
    logLevel: 'warning',
  };
}

async function bundle(name, entry, plugins = []) {
  const { build } = await import('esbuild');
  await build({
    ...bundling(),
    entryPoints: { [name]: entry },
    outdir,
    outExtension: { '.js': '.cjs' },
    plugins,
  });
}

const worker = { 'tree-worker': 'src/worker/main.ts' };

if (parts.includes('worker')) await bundle('tree-worker', worker['tree-worker']);

/** The grammars that the core names: those of the languages, as `grammar: 'kotlin'`, and those of formats, as `visit('ruby'`. */
function grammarsInUse() {
  const core = join(root, 'src', 'core');
  const texts = readdirSync(core, { recursive: true })
    .filter((name) => name.endsWith('.ts'))
    .map((name) => readFileSync(join(core, name), 'utf8'));
  const named = texts.flatMap((text) => [...text.matchAll(/\b(?:grammar: |syntax\.visit\()'(\w+)'/g)]);
  return new Set(named.map(([, name]) => name));
}

if (parts.includes('node')) {
  rmSync(outdir, { recursive: true, force: true });
  mkdirSync(outdir, { recursive: true });
  const bundles = { client: 'src/cli/main.ts', partner: 'src/partner/main.ts', ...worker, ...apart };
  for (const [name, entry] of Object.entries(bundles))
    await bundle(name, entry, name === 'client' ? [othersApart] : []);
  for (const [layer, name] of [
    ['service', 'migrations'],
    ['partner', 'partner-migrations'],
  ]) {
    const made = join(root, 'dist', name);
    rmSync(made, { recursive: true, force: true });
    cpSync(join(root, 'src', layer, 'store', 'migrations'), made, { recursive: true });
  }
  const grammars = join(root, 'dist', 'grammars');
  rmSync(grammars, { recursive: true, force: true });
  mkdirSync(grammars, { recursive: true });
  const packages = join(root, 'node_modules');
  cpSync(join(packages, 'web-tree-sitter', 'tree-sitter.wasm'), join(grammars, 'tree-sitter.wasm'));
  for (const name of grammarsInUse())
    cpSync(
      join(packages, 'tree-sitter-wasms', 'out', `tree-sitter-${name}.wasm`),
      join(grammars, `tree-sitter-${name}.wasm`),
    );
  const scenarios = join(root, 'dist', 'scenarios');
  rmSync(scenarios, { recursive: true, force: true });
  cpSync(join(root, 'scenarios'), scenarios, { recursive: true });
  const profiles = join(root, 'dist', 'profiles');
  rmSync(profiles, { recursive: true, force: true });
  mkdirSync(profiles, { recursive: true });
  await writeProfiles((await import('esbuild')).build, profiles);
}

if (parts.includes('console')) {
  const { build } = await import('vite');
  await build({ configFile: join(root, 'vite.config.ts'), logLevel: 'warn' });
}
