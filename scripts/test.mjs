// Runs every test: makes sure of the programs that judge them, builds what is not built, and closes with
// the true counts. Arguments go on to vitest.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromiumPath, ensurePackages } from './browser.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const ready = ensurePackages({
  chromium: chromiumPath,
  'libplist-utils': '/usr/bin/plistutil',
  'libxml2-utils': '/usr/bin/xmllint',
  aapt: '/usr/bin/aapt',
  'android-framework-res': '/usr/share/android-framework-res/framework-res.apk',
  git: '/usr/bin/git',
  'default-jdk-headless': '/usr/bin/javac',
  kotlin: '/usr/bin/kotlinc',
  clang: '/usr/bin/clang',
  'mono-mcs': '/usr/bin/mcs',
  'mono-runtime': '/usr/bin/mono',
});
if (!ready) process.exit(2);

const built = spawnSync(process.execPath, [join(root, 'scripts', 'build.mjs')], {
  cwd: root,
  stdio: 'inherit',
});
if (built.status !== 0) process.exit(built.status ?? 1);

const folder = mkdtempSync(join(tmpdir(), 'syndexa-test-'));
const report = join(folder, 'report.json');
const vitest = join(root, 'node_modules', 'vitest', 'vitest.mjs');
const args = [
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${report}`,
  ...process.argv.slice(2),
];
const run = spawnSync(process.execPath, [vitest, ...args], { cwd: root, stdio: 'inherit' });
let line = '0 passed, 1 failed';
let failed = 1;
let failures = [];
try {
  const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(report, 'utf8'));
  // A file that could not even be loaded counts as one failure.
  const broken = testResults.filter(
    ({ status, assertionResults }) => status === 'failed' && assertionResults.length === 0,
  ).length;
  failed = numFailedTests + broken;
  failures = testResults.flatMap(failuresOf);
  line = `${numPassedTests} passed, ${failed} failed`;
} catch (error) {
  process.stderr.write(`The tests left no report: ${error.message}\n`);
}
rmSync(folder, { recursive: true, force: true });
// What failed is told again at the end, where a long log is read first.
const closing = [...failures, line].join('\n');
if (process.env.SYNDEXA_TEST_COUNTS) writeFileSync(process.env.SYNDEXA_TEST_COUNTS, `${closing}\n`);
process.stdout.write(`\n${closing}\n`);
process.exit(run.status === 0 && failed === 0 ? 0 : 1);

/** The failed tests of one file, a line each with the first line of what was wrong. */
function failuresOf({ name, status, message, assertionResults }) {
  const file = relative(root, name);
  if (status === 'failed' && assertionResults.length === 0) {
    return [`!! ${file}: ${firstLine(message)}`];
  }
  return assertionResults
    .filter((test) => test.status === 'failed')
    .map((test) => `!! ${file} > ${test.fullName}: ${firstLine(test.failureMessages?.[0])}`);
}

function firstLine(text) {
  return (text ?? '').trim().split('\n', 1)[0].slice(0, 300);
}
