// The board page of 300 placements at five networks beside one of three: how long after the data its first rows are
// painted, and how long the frames are while it scrolls.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';
import { chromiumFlags, chromiumPath, ensurePackages } from '../scripts/browser.mjs';
import { line, median } from './measure.mjs';

if (!ensurePackages({ chromium: chromiumPath })) process.exit(2);
const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const home = mkdtempSync(join(tmpdir(), 'syndexa-bench-'));
const url = 'http://127.0.0.1:4879';
const networks = [1, 2, 3, 4, 5].map((number) => `pebblegate-${number}`);
const service = spawn(process.execPath, [join(root, 'bin', 'syndexa'), 'serve', '--port', '4879'], {
  env: { ...process.env, SYNDEXA_HOME: home },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((resolve) => service.stdout.once('data', resolve));
const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumFlags });
try {
  for (const [at, id] of networks.entries()) await post('/networks', { text: profile(id, at + 1) });
  await post('/titles', { id: 'few', title: titleOf(3) });
  await post('/titles', { id: 'many', title: titleOf(300) });
  const [few, many] = [[], []];
  for (let round = 0; round < 7; round++) {
    few.push(await painted('few'));
    many.push(await painted('many'));
  }
  line('board of 3 placements, first rows after the data', `${median(few).toFixed(0)} ms`);
  line('board of 300 placements, first rows after the data', `${median(many).toFixed(0)} ms`);
  line('the one in times of the other', (median(many) / median(few)).toFixed(2));
  for (const [pace, pixels] of [
    ['a notch of a wheel', 120],
    ['25 rows', 25 * 53],
  ]) {
    const frames = await scrolled('many', pixels);
    line(`scrolling, ${pace} a frame: median frame`, `${median(frames).toFixed(0)} ms`);
    line(`scrolling, ${pace} a frame: longest frame`, `${Math.max(...frames).toFixed(0)} ms`);
  }
} finally {
  await browser.close();
  service.kill('SIGTERM');
  rmSync(home, { recursive: true, force: true });
}

async function post(path, body) {
  const response = await fetch(`${url}/api/v1${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
}

/** A profile like that of Cobalt Heron, under another name. */
function profile(id, number) {
  return readFileSync(join(root, 'profiles', 'cobalt-heron.yaml'), 'utf8')
    .replaceAll('cobalt-heron', id)
    .replaceAll('Cobalt Heron', `Pebblegate ${number}`)
    .replaceAll('cobaltheron', `pebblegate${number}`)
    .replaceAll('CH-', `P${number}-`);
}

function titleOf(count) {
  const units = Object.fromEntries(networks.map((network) => [network, {}]));
  const placements = Object.fromEntries(
    Array.from({ length: count }, (_, at) => [`place-${at}`, { format: 'banner', units }]),
  );
  const editions = {
    android: { identifier: `example.brine.b${count}` },
    ios: { identifier: `example.brine.b${count}` },
  };
  return { name: `Of ${count}`, editions, placements };
}

/** Milliseconds from the end of the board's answer to the first frame that shows a row. */
async function painted(title) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const look = () => {
      if (document.querySelector('tbody th'))
        requestAnimationFrame(() => (window.paintedAt = performance.now()));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  await page.goto(`${url}/titles/${title}`);
  await page.waitForFunction(() => window.paintedAt !== undefined);
  const took = await page.evaluate(() => {
    const answers = performance.getEntriesByType('resource').filter(({ name }) => name.endsWith('/board'));
    return window.paintedAt - answers[0].responseEnd;
  });
  await page.close();
  return took;
}

/** The lengths of 60 frames, in milliseconds, while the table is scrolled from its first row at a given pace. */
async function scrolled(title, pixels) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/titles/${title}`);
  await page.locator('tbody th').first().waitFor();
  const frames = await page.evaluate(async (pixels) => {
    const box = document.querySelector('.ledger-scroll');
    const lengths = [];
    let before = performance.now();
    for (let at = 0; at < 60; at++) {
      box.scrollTop = at * pixels;
      await new Promise((resolve) => requestAnimationFrame(resolve));
      const now = performance.now();
      lengths.push(now - before);
      before = now;
    }
    return lengths;
  }, pixels);
  await page.close();
  return frames;
}
