// Wiring 300 files, against plain `git apply` of the same patch: whole processes, side by side in one run.
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const built = spawnSync(process.execPath, [join(root, 'scripts', 'build.mjs'), 'node'], { stdio: 'inherit' });
if (built.status !== 0) process.exit(1);

const count = 300;
const rounds = 9;
const aim = 3;
const folder = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));
const clean = join(folder, 'clean');
const tree = join(folder, 'tree');
const { SYNDEXA_URL: _, NODE_EXTRA_CA_CERTS: __, ...inherited } = process.env;
const env = { ...inherited, SYNDEXA_HOME: join(folder, 'home') };

const put = (path, text) => {
  mkdirSync(dirname(join(clean, path)), { recursive: true });
  writeFileSync(join(clean, path), text);
};
put('settings.gradle.kts', 'include(":app")\n');
put(
  'app/build.gradle.kts',
  'plugins {\n    id("com.android.application")\n    id("org.jetbrains.kotlin.android")\n}\n\nandroid {\n    namespace = "example.bench.kelp"\n    compileSdk = 35\n    defaultConfig {\n        applicationId = "example.bench.kelp"\n        minSdk = 24\n    }\n}\n\ndependencies {\n}\n',
);
put(
  'app/src/main/AndroidManifest.xml',
  '<manifest xmlns:android="http://schemas.android.com/apk/res/android">\n    <application>\n    </application>\n</manifest>\n',
);
for (let index = 0; index < count; index++)
  put(
    `app/src/main/java/example/bench/kelp/Screen${index}.kt`,
    `package example.bench.kelp\n\n${`// ${'-'.repeat(78)}\n`.repeat(40)}\nval unit${index} = "CH-U-310772-BBBB1111"\n`,
  );
const unit = (id) => `{ cobalt-heron: { android: { production: ${id} } } }`;
writeFileSync(
  join(folder, 'roster.yaml'),
  `syndexa: 1\ntitles:\n  kelp:\n    name: Kelp\n    editions: { android: { identifier: example.bench.kelp } }\n    networks: { cobalt-heron: { android: { production: { app: CH-A-310772-QK4T8W2N } } } }\n    placements:\n      footer: { format: banner, units: ${unit('CH-U-310772-BBBB1111')} }\n`,
);

function timed(command, args, options = {}) {
  const from = process.hrtime.bigint();
  const { status, stderr, stdout } = spawnSync(command, args, { env, maxBuffer: 1 << 28, ...options });
  const time = Number(process.hrtime.bigint() - from) / 1e6;
  if (status !== 0) throw new Error(`${command} ended with ${status}: ${stderr}`);
  return { time, stdout: stdout.toString() };
}
const syndexa = (...args) => timed(process.execPath, [join(root, 'bin', 'run-bundle.cjs'), ...args]);
const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
const reset = () => {
  rmSync(tree, { recursive: true, force: true });
  cpSync(clean, tree, { recursive: true });
};
const wire = (...more) => syndexa('wire', tree, '--title', 'kelp', '--call-sites', ...more);

const service = spawn(
  process.execPath,
  [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'warn'],
  { env, stdio: ['ignore', 'pipe', 'inherit'] },
);
await new Promise((resolve) => service.stdout.once('data', resolve));
try {
  syndexa('roster', 'import', join(folder, 'roster.yaml'), '--yes');
  reset();
  const { patch, edits } = JSON.parse(wire('--json').stdout);
  const file = join(folder, 'wiring.patch');
  writeFileSync(file, patch);
  const [ours, theirs] = [[], []];
  for (let round = 0; round < rounds; round++) {
    reset();
    ours.push(wire('--write').time);
    const written = readFileSync(join(tree, 'app/src/main/java/example/bench/kelp/Screen0.kt'), 'utf8');
    reset();
    theirs.push(timed('git', ['apply', file], { cwd: tree }).time);
    const applied = readFileSync(join(tree, 'app/src/main/java/example/bench/kelp/Screen0.kt'), 'utf8');
    if (written !== applied || !written.includes('Placebook.footer'))
      throw new Error('They did not do the same.');
  }
  const [a, b] = [median(ours), median(theirs)];
  console.log(
    `wire ${edits.length} files with a running service, against git apply`.padEnd(58) +
      ` ${a.toFixed(0).padStart(5)} ms / ${b.toFixed(0).padStart(5)} ms = ${(a / b).toFixed(2)}   (aim ${aim})${a / b <= aim ? '' : '   MISSED'}`,
  );
  console.log(`  per edited file ${(a / edits.length).toFixed(2)} ms / ${(b / edits.length).toFixed(2)} ms`);
  if (readdirSync(tree).some((name) => name.startsWith('.syndexa')))
    throw new Error('Something was left behind.');
} finally {
  service.kill('SIGTERM');
  await new Promise((resolve) => service.on('exit', resolve));
  rmSync(folder, { recursive: true, force: true });
}
