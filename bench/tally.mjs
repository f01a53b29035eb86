// Daily numbers: what the rules find in simulated years beside a rule of thumb; a million rows imported beside the
// database's own importer; figures of ten million rows beside hand-written SQL. `--detect` and `--speed` do one of these.
import { spawnSync } from 'node:child_process';
import { build } from 'esbuild';
import { createWriteStream, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { once } from 'node:events';
import { createReadStream } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { ensurePackages } from '../scripts/browser.mjs';
import { line, median } from './measure.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const folder = mkdtempSync(join(root, 'node_modules', '.bench-'));
const outfile = join(folder, 'core.mjs');
await build({
  stdin: {
    contents: `export { readProfile } from './src/core/network/read.js';
      export { tallyFindings } from './src/core/tallying.js';
      export { readDay, dayText } from './src/core/tally/days.js';
      export { ReportTable } from './src/core/tally/table.js';
      export { openStore } from './src/service/store/open.js';
      export { TallyStore } from './src/service/store/tally-store.js';
      export { figuresOf, neededFor } from './src/core/tally/report.js';
      export * from './tests/support/simulated.js';`,
    resolveDir: root,
    loader: 'ts',
  },
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  define: { 'import.meta.url': JSON.stringify(pathToFileURL(join(root, 'src/service/store/open.ts')).href) },
  outfile,
  logLevel: 'error',
});
const core = await import(pathToFileURL(outfile).href);
rmSync(folder, { recursive: true, force: true });

const profiles = readdirSync(join(root, 'profiles')).map(
  (name) => core.readProfile(readFileSync(join(root, 'profiles', name), 'utf8')).profile,
);
const only = process.argv.find((word) => word.startsWith('--'));
if (only !== '--detect' && !ensurePackages({ sqlite3: '/usr/bin/sqlite3' })) process.exit(2);
if (only !== '--speed') detect();
if (only !== '--detect') await speed();

/** Twenty-four titles of two years with three events each: how soon each is found, and what is found that is not there. */
function detect() {
  const titles = Number(process.env.TITLES ?? 24);
  const from = core.readDay('2024-06-01');
  const days = 730;
  const settled = 60;
  const ours = { soon: 0, late: 0, missed: 0, wrong: 0 };
  const thumb = { soon: 0, late: 0, missed: 0, wrong: 0 };
  let events = 0;
  for (let number = 1; number <= titles; number++) {
    const title = core.simulatedTitle(number, from, days);
    const planted = core.plantEvents(title, from);
    events += planted.length;
    const rows = core.rowsOf(title, from, from + days);
    const whole = core.wholeHistory(title, rows, { profiles, from, to: from + days });
    count(ours, planted, from + settled, from + days, (day) =>
      core
        .tallyFindings({
          title: { id: title.id, title: title.title },
          profiles,
          tally: core.upTo(whole, day),
          now: '',
        })
        .map(({ rule, placement, platform }) => ({ rule, placement, platform })),
    );
    count(thumb, planted, from + settled, from + days, (day) => byThumb(whole, day));
  }
  const years = (titles * (days - settled)) / 365;
  for (const [name, found] of [
    ['the rules', ours],
    ['7-day mean below half of the 28 days before', thumb],
  ])
    line(
      'tally',
      `${name}: ${found.soon} of ${events} events found within 3 days, ${found.late} later, ${found.missed} not at all; ${(found.wrong / years).toFixed(2)} false alarms for each title and year (aim: all, at most 1)`,
    );
}

/** What most people do by hand: revenue of the last week beside that of the four weeks before. */
function byThumb(history, day) {
  return history.units.flatMap(({ from, revenue, owner }) => {
    const end = day - from + 1;
    const mean = (first, last) => {
      const part = revenue.slice(Math.max(0, first), Math.max(0, last));
      return part.reduce((sum, value) => sum + (value ?? 0), 0) / Math.max(1, part.length);
    };
    const before = mean(end - 35, end - 7);
    return end > 35 && before > 0 && mean(end - 7, end) < before / 2
      ? [{ rule: null, placement: owner.placement, platform: owner.platform }]
      : [];
  });
}

/** Day by day: an alarm that is new is right if its event has happened, and wrong otherwise. */
function count(result, planted, from, to, findings) {
  let open = new Set();
  const seen = new Map();
  for (let day = from; day < to; day++) {
    const now = new Set();
    for (const { rule, placement, platform } of findings(day)) {
      const name = `${rule} ${placement} ${platform}`;
      now.add(name);
      if (open.has(name)) continue;
      const event = planted.find(
        (one) =>
          (rule === null || one.rule === rule) &&
          one.placement === placement &&
          one.platform === platform &&
          day >= one.day,
      );
      if (!event) result.wrong++;
      else if (!seen.has(event)) seen.set(event, day - event.day + 1);
    }
    open = now;
  }
  for (const event of planted) {
    const after = seen.get(event);
    if (after === undefined) result.missed++;
    else if (after <= 3) result.soon++;
    else result.late++;
  }
}

/** A million rows by us and by sqlite3; then ten million, and figures of one title among them. */
async function speed() {
  const place = mkdtempSync(join(tmpdir(), 'tally-'));
  try {
    const table = join(place, 'rows.csv');
    await writeRows(table, 1_000_000);
    const rounds = [1, 2, 3].map((round) => ({ theirs: importedBySqlite(place, table, round), round }));
    const ours = [];
    for (const { round } of rounds) ours.push((await importedByUs(join(place, `ours-${round}`), table)).ms);
    const theirs = rounds.map((one) => one.theirs);
    line(
      'tally',
      `1,000,000 rows imported: ${median(ours).toFixed(0)} ms, sqlite3 .import ${median(theirs).toFixed(0)} ms, ${(median(ours) / median(theirs)).toFixed(2)} times (aim 2)`,
    );
    const half = join(place, 'half.csv');
    await writeRows(half, 500_000);
    const some = await importedByUs(join(place, 'half'), half);
    line(
      'tally',
      `time for each row, beside half as many: ${(median(ours) / 1_000_000 / (some.ms / 500_000)).toFixed(2)} (linear is 1); memory ${Math.round(process.resourceUsage().maxRSS / 1024)} MB (aim 300 MB)`,
    );
    await figuresOfMany(place);
  } finally {
    rmSync(place, { recursive: true, force: true });
  }
}

async function writeRows(file, rows, units = 200) {
  const out = createWriteStream(file);
  const countries = ['PT', 'ES', 'FR', 'DE', 'IT', 'US', 'BR', 'JP', 'GB', 'NL'];
  out.write('Day,Unit ID,App ID,Country,Requests,Matched,Impressions,Clicks,Revenue,Currency\n');
  const first = core.readDay('2024-01-01');
  let block = '';
  for (let row = 0; row < rows; row++) {
    const country = countries[row % 10];
    const unit = Math.floor(row / 10) % units;
    const day = core.dayText(first + Math.floor(row / (10 * units)));
    block += `${day},CH-U-204418-${String(unit).padStart(8, '0')},CH-A-204418-7KQ2M9TD,${country},${1000 + ((row * 7919) % 5000)},${900 + ((row * 31) % 900)},${500 + (row % 400)},${row % 20},${((row * 37) % 99999) / 100},EUR\n`;
    if (block.length > 1_000_000) {
      if (!out.write(block)) await once(out, 'drain');
      block = '';
    }
  }
  out.end(block);
  await once(out, 'finish');
}

function importedBySqlite(place, table, round) {
  const columns =
    'day text, unit text, app text, country text, requests integer, matched integer, impressions integer';
  const script = [
    `create table rows(${columns}, clicks integer, revenue text, currency text, primary key(unit, day, country)) without rowid;`,
    '.mode csv',
    `.import --skip 1 ${table} rows`,
    '',
  ].join('\n');
  const from = performance.now();
  const { status, stderr } = spawnSync('sqlite3', [join(place, `theirs-${round}.sqlite`)], { input: script });
  if (status !== 0) throw new Error(String(stderr));
  return performance.now() - from;
}

async function importedByUs(home, table) {
  const { db, close } = core.openStore(makeHome(home));
  const store = new core.TallyStore(db);
  const from = performance.now();
  await importInto(store, table);
  const ms = performance.now() - from;
  close();
  return { ms };
}

function makeHome(home) {
  return mkdtempSync(`${home}-`);
}

async function importInto(store, table) {
  const heron = profiles.find(({ id }) => id === 'cobalt-heron');
  const reader = new core.ReportTable(heron, { now: new Date() });
  const id = store.begin({ network: 'cobalt-heron', source: 'csv', name: '', at: '', who: '' });
  const waiting = [];
  const flush = (least) => {
    while (waiting.length >= least)
      store.write({ network: 'cobalt-heron', source: 'csv' }, id, waiting.splice(0, 8_000));
  };
  for await (const block of createReadStream(table, { encoding: 'utf8', highWaterMark: 64 * 1024 })) {
    waiting.push(...reader.push(block).rows);
    flush(8_000);
  }
  waiting.push(...reader.end().rows);
  flush(1);
}

/** Ten million rows of 2,000 units; a title has twenty of them. */
async function figuresOfMany(place) {
  const { db, close } = core.openStore(makeHome(join(place, 'many')));
  const store = new core.TallyStore(db);
  const table = join(place, 'many.csv');
  await writeRows(table, Number(process.env.ROWS ?? 10_000_000), 2_000);
  await importInto(store, table);
  const all = store.series();
  const span = store.span(null);
  const own = all.slice(0, 20);
  const owner = (at) => ({
    title: 'kelp',
    placement: `placement-${at % 10}`,
    platform: 'ios',
    format: 'banner',
  });
  const owned = (some) =>
    some.map((one, at) => ({ ...one, owner: owner(at), title: 'kelp', appTitle: null }));
  const show = (series) => () => {
    const rows = store.sums(
      series.length === all.length ? null : series.map(({ id }) => id),
      span,
      core.neededFor('placement', false),
    );
    return core.figuresOf({ rows, series, by: 'placement', title: 'kelp', releases: [], exchange: null });
  };
  const sums = 'sum(requests), sum(matched), sum(impressions), sum(clicks), sum(rewards), sum(revenue)';
  const bare = (series) => {
    const which =
      series.length === all.length ? '' : `and series in (${series.map(({ id }) => id).join(', ')})`;
    const plain = db.$client.prepare(
      `select series, currency, ${sums} from tally_days where day between ? and ? ${which} group by series, currency`,
    );
    return () => plain.all(span.from, span.to);
  };
  for (const [name, series] of [
    ['one title', own],
    ['all titles', all],
  ]) {
    const [ours, theirs] = [show(owned(series)), bare(series)].map(warm);
    line(
      'tally',
      `figures by placement over ${store.series().length} units, ${name}: ${ours.toFixed(1)} ms, plain SQL ${theirs.toFixed(1)} ms, ${(ours / theirs).toFixed(2)} times (aim 1.5; one title under 150 ms)`,
    );
  }
  close();
}

function warm(work) {
  work();
  return median(
    Array.from({ length: 7 }, () => {
      const from = performance.now();
      work();
      return performance.now() - from;
    }),
  );
}
