// Makes the pictures in docs/screenshots from the demo: pages in Chromium, commands in a terminal window.
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from 'playwright-core';
import { chromiumFlags, chromiumPath, ensurePackages } from './browser.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const folder = join(root, 'docs', 'screenshots');
const only = process.argv.slice(2);
const wanted = (name) => only.length === 0 || only.includes(name);
const ready = ensurePackages({
  chromium: chromiumPath,
  xvfb: '/usr/bin/Xvfb',
  xterm: '/usr/bin/xterm',
  imagemagick: '/usr/bin/import',
  'fonts-dejavu-core': '/usr/share/fonts/truetype/dejavu/DejaVuSansMono.ttf',
});
if (!ready) process.exit(2);
mkdirSync(folder, { recursive: true });

const home = mkdtempSync(join(tmpdir(), 'syndexa-shots-'));
const port = 4877;
const url = `http://127.0.0.1:${port}`;
const env = { ...process.env, SYNDEXA_HOME: home };
const demo = spawn(process.execPath, [join(root, 'bin', 'syndexa'), 'demo', '--port', String(port)], {
  env,
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((resolve) => demo.stdout.once('data', resolve));
try {
  await pages();
  await terminals();
} finally {
  demo.kill('SIGTERM');
  rmSync(home, { recursive: true, force: true });
}

async function pages() {
  const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumFlags });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
  const shoot = async (name, path, prepare) => {
    if (!wanted(name)) return;
    await page.goto(url + path);
    await page.waitForLoadState('networkidle').catch(() => undefined);
    await prepare?.();
    await page.waitForTimeout(300);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const settled = (text) => page.getByText(text).first().waitFor();
  await shoot('portfolio', '/', () => settled('needs work'));
  await shoot('board', '/titles/tidewick', () => settled('not in build'));
  await shoot('edition', '/titles/tidewick/android', () => settled('Evidence'));
  await shoot('findings', '/titles/tidewick/android?view=findings', async () => {
    await page.locator('.source').first().waitFor();
    await page.getByText('write just this').first().click();
    await page.locator('.diff-file').first().waitFor();
  });
  await shoot('edits', '/titles/tidewick/android?view=edits', () =>
    page.locator('.edit-group').first().waitFor(),
  );
  await shoot('record', '/titles/tidewick/record', async () => {
    const field = page.getByLabel('tide-list-footer on cobalt-heron, Android production');
    await field.fill('CH-A-204418-7KQ2M9TD');
    await field.press('Enter');
    await settled('a unit ID belongs here');
    await field.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  });
  await shoot('adopt', '/titles/adopt', async () => {
    const trees = await (await fetch(`${url}/api/v1/trees`)).json();
    await page.getByLabel('Folders, below a root of this service').fill(trees[0].path);
    await page.getByRole('button', { name: 'Draft a title' }).click();
    await settled('What the draft is based on');
    await page.locator('#adopt-document').evaluate((element) => element.scrollIntoView({ block: 'start' }));
  });
  await shoot('steps', '/titles/tidewick/steps', () => settled('steps are done'));
  await shoot('earnings', '/titles/tidewick/tally?in=EUR', () => settled('Why did it change?'));
  await shoot(
    'rehearsal',
    '/titles/plumebook/rehearsal?at=android/debug&placement=sighting-leave',
    async () => {
      await settled('as a list');
      await page.getByLabel('Time in the session').fill('74000');
    },
  );
  await shoot('network', '/networks/marlstone/profile', async () => {
    await settled('is right');
    await page.locator('.cm-line').first().waitFor();
  });
  await browser.close();
}

/** Commands as a person sees them: a terminal window under a virtual display. */
async function terminals() {
  const display = ':87';
  const xvfb = spawn('Xvfb', [display, '-screen', '0', '1280x800x24'], { stdio: 'ignore' });
  await sleep(800);
  for (const title of ['tidewick', 'plumebook'])
    cpSync(join(root, 'demo', 'trees', title), join(home, 'work', title), { recursive: true });
  const shoot = async (name, command) => {
    if (!wanted(name)) return;
    const script = `cd ${join(home, 'work')}; export COLUMNS=150 SYNDEXA_URL=${url} PATH=${join(root, 'bin')}:$PATH; printf '\\033[1m$ %s\\033[0m\\n\\n' '${command}'; ${command} | head -n 52; sleep 30`;
    const xterm = spawn(
      'xterm',
      [
        '-display',
        display,
        '-geometry',
        '158x58+0+0',
        '-fa',
        'DejaVu Sans Mono',
        '-fs',
        '9',
        '-bg',
        '#fdfaf3',
        '-fg',
        '#23211c',
        '-b',
        '10',
        '-xrm',
        'XTerm*color1: #9c3a1a',
        '-xrm',
        'XTerm*color2: #2c6442',
        '-xrm',
        'XTerm*color3: #85600a',
        '-xrm',
        'XTerm*color6: #0b5d66',
        '-xrm',
        'XTerm*color4: #46586a',
        '-xrm',
        'XTerm*colorBD: #23211c',
        '-e',
        'sh',
        '-c',
        script,
      ],
      { env: { ...env, FORCE_COLOR: '1' }, stdio: 'ignore' },
    );
    await sleep(3500);
    spawnSync('import', ['-display', display, '-window', 'root', join(folder, `${name}.png`)]);
    xterm.kill();
    await sleep(300);
  };
  await shoot('terminal-survey', 'syndexa survey tidewick');
  await shoot('terminal-check', 'syndexa check tidewick --title tidewick');
  await shoot('terminal-wire', 'syndexa wire tidewick --title tidewick');
  await shoot('terminal-rehearse', 'syndexa rehearse plumebook --title plumebook');
  await shoot('terminal-board', 'syndexa board tidewick');
  writeFileSync(
    join(home, 'work', 'app-ads.txt'),
    '# Saltmarsh Software\ncobaltheron.example, 204418, RESELLER, c0ba17he # since 2021\nother.example, 55\n',
  );
  spawnSync(
    join(root, 'bin', 'syndexa'),
    'placement add tidewick moon-page --format native --content text image --network cobalt-heron'.split(' '),
    { env: { ...env, SYNDEXA_URL: url } },
  );
  await shoot('terminal-provision', 'syndexa provision tidewick --network cobalt-heron --dry-run');
  await shoot('terminal-tally', 'syndexa tally silent');
  cpSync(join(root, 'demo', 'tags'), join(home, 'work', 'tags'), { recursive: true });
  await shoot(
    'terminal-tag',
    'syndexa tag play tags/evening-tide.xml --no-media --do pause@4s resume@9s skip@12s',
  );
  xvfb.kill();
}
