// How long a rehearsal of a day takes: a hundred placements on five networks, 24 virtual hours, beside half of that.
import { build } from 'esbuild';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { line, median } from './measure.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const rounds = 5;
const networks = 5;

const folder = mkdtempSync(join(tmpdir(), 'rehearse-'));
const outfile = join(folder, 'core.mjs');
await build({
  stdin: {
    contents: `export { rehearse } from './src/core/rehearsal/device/rehearse.js';
      export { Scenario } from './src/core/rehearsal/scenario/model.js';`,
    resolveDir: root,
    loader: 'ts',
  },
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile,
  logLevel: 'error',
});
const { rehearse, Scenario } = await import(pathToFileURL(outfile).href);
rmSync(folder, { recursive: true, force: true });

const place = { path: 'Screen.kt', line: 1, column: 1 };
const plain = { place, follows: [], isAwaited: false, isLooped: false, isOfApp: false };
const formats = ['banner', 'interstitial', 'rewarded', 'native'];

function appWith(placements) {
  const ids = Array.from({ length: networks }, (_, at) => `network-${at}`);
  const slots = Array.from({ length: placements }, (_, at) => {
    const format = formats[at % formats.length];
    const screen = `screen-${at}`;
    return ids.map((network) => ({
      network,
      placement: `placement-${at}`,
      format,
      screen,
      unit: `unit-${network}-${at}`,
      whyNoUnit: null,
      settings: { refresh: '30s', content: ['video'], first: 2, every: 5 },
      load: { ...plain, call: 'Ads.load', triggers: ['open', 'closed'], screen, order: 1 },
      show:
        formats.indexOf(format) % 3 === 0
          ? null
          : { ...plain, call: 'Ads.show', triggers: ['tap'], screen, order: 2 },
      isOpen: false,
      isShownByCall: format === 'interstitial' || format === 'rewarded',
      checksReady: true,
      keepsCap: false,
      limitedBy: null,
      handles: { failed: true, closed: true, rewarded: true },
      release: { ...plain, call: 'Ads.release', triggers: ['leave'], screen, order: 3 },
      keepsListener: false,
      heldAt: undefined,
      covers: undefined,
    }));
  }).flat();
  return {
    title: 'large',
    platform: 'android',
    module: ':app',
    variant: 'debug',
    stage: 'test',
    identifier: 'example.large',
    recreatesOnTurn: true,
    networks: ids.map((id) => ({
      id,
      name: id,
      appId: { is: 'not-needed' },
      stopsWithoutAppId: false,
      startUp: { ...plain, call: 'Ads.start', triggers: ['launch'], screen: 'app', order: 0, isOfApp: true },
      startsAfter: null,
      needsStart: true,
      takesTime: true,
      consent: null,
      consentFirst: false,
      registersDevices: false,
      asked: 'openrtb',
      keeps: null,
      caps: new Map(),
      managedRefresh: 60_000,
    })),
    screens: Array.from({ length: placements }, (_, at) => ({ id: `screen-${at}`, name: `Screen${at}` })),
    slots,
  };
}

/** A session so long that each screen is visited for its part of the hours. */
function sessionOf(hours, placements) {
  const seconds = Math.floor((hours * 3600) / placements);
  const taps = Array.from({ length: Math.floor(seconds / 60) - 1 }, () => ({ do: 'tap', after: '60s' }));
  return Scenario.parse({
    scenario: 1,
    name: 'A day',
    about: 'Somebody looks at screens all day.',
    steps: [{ do: 'launch' }, { do: 'visit', after: '0', each: taps.slice(0, 100) }],
  });
}

const answer = ({ asks }) => (asks === 'ad' ? { is: 'filled', ad: 'a', test: true } : { is: 'noted' });

function timed(placements, hours) {
  const app = appWith(placements);
  const scenario = sessionOf(hours, placements);
  const times = [];
  let events = 0;
  for (let round = 0; round < rounds; round++) {
    const from = performance.now();
    events = rehearse({ app, scenario, seed: round }, answer).trace.length;
    times.push(performance.now() - from);
  }
  return { ms: median(times), events };
}

timed(10, 2);
const half = timed(50, 12);
const whole = timed(100, 24);
const memory = process.memoryUsage().rss / 1024 / 1024;
line(
  'rehearse',
  `24 h, 100 placements, ${networks} networks: ${Math.round(whole.ms)} ms for ${whole.events} events (aim 2,000 ms)`,
);
line(
  'rehearse',
  `time for each event, beside 12 h of 50 placements: ${(whole.ms / whole.events / (half.ms / half.events)).toFixed(2)} (linear is 1)`,
);
line('rehearse', `memory: ${Math.round(memory)} MB (aim 300 MB)`);
