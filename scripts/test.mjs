// Runs every test: makes sure of the programs that judge them, builds what is not built, and closes with
// the true counts. Arguments go on to vitest.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensurePackages, missingPackages } from './browser.mjs';
import { judges } from './packages.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
/** Whether missing packages are installed; else the test files that need them are left out, and listed. */
const installs = process.env.SYNDEXA_TEST_INSTALL !== 'no';
if (installs && !ensurePackages(judges)) {
  process.stderr.write('Or leave out the tests that need them: SYNDEXA_TEST_INSTALL=no npm test\n');
  process.exit(2);
}
const leftOut = installs ? [] : needing(missingPackages(judges));
for (const { path, names } of leftOut)
  process.stderr.write(`Left out, because ${names.join(', ')} is missing: ${path}\n`);

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
  ...leftOut.map(({ path }) => `--exclude=${path}`),
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

/** The test files that call a program of one of these packages. */
function needing(packages) {
  const files = readdirSync(join(root, 'tests'), { recursive: true }).filter((name) =>
    name.endsWith('.test.ts'),
  );
  return files.flatMap((name) => {
    const path = join('tests', name);
    const text = readFileSync(join(root, path), 'utf8');
    const calls = (command) => new RegExp(`'${command}'|'/usr/bin/${command}'|${command}Path`).test(text);
    const names = packages.filter(({ commands }) => commands.some(calls)).map((each) => each.name);
    return names.length > 0 ? [{ path, names }] : [];
  });
}

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
