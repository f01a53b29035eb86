// Plants small faults, one at a time, in a part of src, and reports which of them its tests do not notice:
//   npm run mutants -- core/board [core/roster …] [--again]
// Results are kept in .mutants; only what changed is tried again, unless --again is given.
import { mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { parseArgs } from 'node:util';
import { Stryker } from '@stryker-mutator/core';

const root = join(import.meta.dirname, '..');

/** What is mutated in each part, and which tests are expected to notice: the slow ones try what the first ones miss. */
const parts = {
  'core/board': ['core/board/**/*.ts', 'core/board/*'],
  'core/edits': ['core/{edits/*,text/{edit,patch}}.ts', 'core/{edits,text}/*'],
  'core/roster': [
    'core/roster/**/*.ts',
    'core/roster/**/*',
    'core/standards/app-ads',
    'core/network/tag-urls',
  ],
  'core/checks': [
    'core/checks/*.ts',
    'core/checks/{running,calls,scope,by-fix,tally-scope,sarif-report}',
    'core/text/versions',
  ],
  'core/wiring': ['core/wiring/*.ts', 'core/wiring/{harm,choose,outcomes}'],
  'cli/render': ['cli/render/*.ts', 'cli/{rendered*,tables}'],
  'cli/commands/titles': ['cli/commands/{titles,placements,ids}.ts', 'cli/{printed*,confirm}'],
  'cli/commands/trees': ['cli/commands/{trees,wire,undo,accept,placebook,rehearse}.ts', 'cli/printed*'],
  'cli/commands/networks': [
    'cli/commands/{networks,network-new,roster,secrets,publisher,tokens}.ts',
    'cli/{printed*,confirm}',
  ],
  'cli/commands/numbers': ['cli/commands/{tally,tags,app-ads,attribution}.ts', 'cli/{printed*,tally,tags}'],
  'cli/commands/partner': ['cli/commands/{partner,collect,provision,adopt,steps}.ts', 'cli/printed*'],
  'cli/commands/docs': ['cli/commands/{docs,json-page}.ts', 'cli/printed'],
  'cli/groups': ['cli/{groups,completion}/*.ts', 'cli/help', 'cli/printed*'],
  cli: [
    'cli/!(main|partner-process|version|demo-folder).ts',
    'cli/{client,connect,confirm,program}',
    'cli/printed*',
  ],
  'service/guards': ['service/{guards,conditions,methods,access/*}.ts', 'service/{guards,callers}'],
};

/** Tests of rules on facts that are put together by hand: no tree is read for them. */
const familyTests = new Map([
  ['app', 'core/checks/app-id-rules'],
  ['attribution', 'core/checks/attribution-list-rules'],
  ['identifier', 'core/checks/identifier-rules'],
  ['build', 'core/checks/{build-needs,build-dependency}-rules'],
  ['code', 'core/checks/code-call-rules'],
  ['companion', 'core/checks/companion-rules'],
  ['manifest', 'core/checks/manifest-needs-rules'],
  ['platform', 'core/checks/platform-rules'],
  ['plist', 'core/checks/plist-rules'],
  ['privacy', 'core/checks/privacy-rules'],
  ['partner', 'core/checks/partner-view-rules'],
  ['rehearsal', 'core/checks/rehearsal-trace-rules'],
  ['tally', 'core/checks/tally-history-rules'],
  ['roster', 'core/checks/roster-record-rules'],
  ['tree', 'core/checks/tree-rules'],
  ['stage', 'core/checks/stage-rules'],
  ['unit', 'core/checks/unit-rules'],
]);
/** Rules by what they are about. A family with tests of its own is tried with them alone, which is far quicker. */
for (const family of familiesOfRules())
  parts[`core/checks/rules/${family}`] = [
    `core/checks/rules/${family}-*.ts`,
    familyTests.get(family) ??
      'core/checks/{*-rules,rules,broken-files,manifest-attributes,places,pods-not-included,string-twice}',
  ];

const { values, positionals } = parseArgs({
  options: { again: { type: 'boolean', default: false } },
  allowPositionals: true,
});
const wanted = positionals.length > 0 ? positionals : Object.keys(parts);
const unknown = wanted.find((name) => !Object.hasOwn(parts, name));
if (unknown !== undefined) {
  process.stderr.write(`There is no part ${unknown}. Name one of ${Object.keys(parts).join(', ')}.\n`);
  process.exit(2);
}
for (const name of wanted) await run(name, parts[name]);

/** The first words of the rules' names: `app`, `build`, … */
function familiesOfRules() {
  const names = readdirSync(join(root, 'src/core/checks/rules')).filter((name) => name.includes('-'));
  return [...new Set(names.map((name) => name.split('-', 1)[0]))];
}

async function run(name, [files, ...tests]) {
  const results = new Map();
  let mutate = [`src/${files}`];
  for (const [round, test] of tests.entries()) {
    const kept = join(root, '.mutants', `${name.replaceAll('/', '-')}${round === 0 ? '' : `-${round}`}.json`);
    for (const result of await tried(mutate, test, kept)) {
      const before = results.get(keyOf(result));
      if (!before || (isMissed(before) && isNoticed(result))) results.set(keyOf(result), result);
    }
    const missed = [...results.values()].filter(isMissed);
    if (missed.length === 0) break;
    mutate = missed.map(
      ({ fileName, location: { start, end } }) =>
        `${relative(root, fileName)}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`,
    );
  }
  report(name, [...results.values()]);
}

/** A fault is the same in every round. */
function keyOf({ fileName, location, replacement }) {
  return JSON.stringify([fileName, location, replacement]);
}

function isNoticed({ status }) {
  return status === 'Killed' || status === 'Timeout';
}

function isMissed({ status }) {
  return status === 'Survived' || status === 'NoCoverage';
}

async function tried(mutate, test, kept) {
  mkdirSync(join(root, '.mutants'), { recursive: true });
  if (values.again) rmSync(kept, { force: true });
  process.env.SYNDEXA_MUTANT_TESTS = JSON.stringify([`tests/${test}.test.ts`]);
  return new Stryker({
    mutate,
    testRunner: 'vitest',
    vitest: { configFile: 'tests/support/mutants.config.ts', related: false },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    incremental: true,
    incrementalFile: kept,
    concurrency: 2,
    timeoutMS: 20_000,
    tempDirName: '.mutants/sandbox',
    ignorePatterns: ['.bench', '.mutants', 'console/dist'],
    reporters: ['progress-append-only'],
    disableTypeChecks: false,
    allowConsoleColors: false,
  }).runMutationTest();
}

/** Prints the score of a part, then each fault that went unnoticed, with its place. */
function report(name, results) {
  const noticed = results.filter(isNoticed).length;
  const missed = results.filter(isMissed);
  const share = (100 * noticed) / (noticed + missed.length || 1);
  for (const { fileName, location, replacement, status } of missed) {
    const lines = readFileSync(fileName, 'utf8').split('\n');
    const { start, end } = location;
    const first = lines[start.line - 1];
    const was =
      start.line === end.line
        ? first.slice(start.column - 1, end.column - 1)
        : `${first.slice(start.column - 1)} …`;
    const mark = status === 'NoCoverage' ? ' (never run)' : '';
    console.log(`${relative(root, fileName)}:${start.line}:${start.column}${mark}`);
    console.log(`  - ${was.trim().slice(0, 150)}\n  + ${replacement.replaceAll(/\s+/g, ' ').slice(0, 150)}`);
  }
  const left = results.length - noticed - missed.length;
  console.log(
    `${name}: ${noticed} of ${noticed + missed.length} noticed, ${share.toFixed(1)} %; ${left} static or invalid left out`,
  );
}
