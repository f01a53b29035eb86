import { cpSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { syndexa } from '../support/cli.js';
import { consoleTest, demoIn } from '../support/console.js';
import { partneredService, type PartneredService } from '../support/partner.js';
import { http, temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

// On each page, one write from its beginning to what it changed.

const c = consoleTest();
const api = (path: string) => `${c.service.url}/api/v1${path}`;
const goto = (path: string) => c.page.goto(c.service.url + path);
const titleNow = async () => (await http(api('/titles/tidewick'))).body;

/** A file to choose on a page. */
function fileOf(name: string, text: string): string {
  const path = join(temporaryFolder(), name);
  writeFileSync(path, text);
  return path;
}

describe('the console writes', () => {
  it('a change back that somebody made, and says when it changed again since', async () => {
    await demoIn(c);
    const { version } = await titleNow();
    await http(api('/titles/tidewick'), 'PATCH', { name: 'Tidewick Two' }, { 'If-Match': `"v${version}"` });
    await goto('/titles/tidewick/history');
    await c.page.getByRole('button', { name: /Revert change/ }).click();
    await expect.poll(async () => (await titleNow()).title.name).toBe('Tidewick');
    await c.page
      .getByRole('button', { name: /Revert change/ })
      .nth(1)
      .waitFor();
    await c.page
      .getByRole('button', { name: /Revert change/ })
      .nth(1)
      .click();
    await c.page.getByText('has changed since: it is "Tidewick" now').waitFor();
    await c.page.getByLabel('Find a field, a value, a person').fill('Tidewick Two');
    await c.page.getByText('2 changes').waitFor();
  });

  it('a document into the record, once it was seen what changes', async () => {
    await demoIn(c);
    await goto('/documents');
    const document =
      'syndexa: 1\ntitles:\n  kelp:\n    name: Kelp\n    editions: { android: { identifier: example.brine.kelp } }\n';
    await c.page.getByLabel(/A document, and the profiles/).setInputFiles(fileOf('roster.yaml', document));
    await c.page.getByRole('button', { name: 'Show what would change' }).click();
    await c.page.getByText('titles.kelp').waitFor();
    expect((await http(api('/titles/kelp'))).status).toBe(404);
    await c.page.getByRole('button', { name: 'Take 1 change into the record' }).click();
    await c.page.getByText('1 change is in the record').waitFor();
    expect((await http(api('/titles/kelp'))).body.title.name).toBe('Kelp');
    const old = (await http(api('/roster'))).body.document as string;
    const { version } = await titleNow();
    await http(api('/titles/tidewick'), 'PATCH', { name: 'Tidewick Six' }, { 'If-Match': `"v${version}"` });
    await c.page.getByLabel('Or its text').fill(old.replace('name: Tidewick\n', 'name: Tidewick Seven\n'));
    await c.page.getByRole('button', { name: 'Show what would change' }).click();
    const conflict = c.page.getByRole('row', { name: /titles\.tidewick\.name.*both changed it/ });
    await conflict.waitFor();
    expect(await conflict.textContent()).toMatch(/Tidewick.*Tidewick Six.*Tidewick Seven/);
    const download = c.page.waitForEvent('download');
    await c.page.getByRole('button', { name: 'Save roster.yaml' }).click();
    expect((await download).suggestedFilename()).toBe('roster.yaml');
  });

  it('a table of daily numbers, and a release', async () => {
    await demoIn(c);
    await goto('/tally/numbers');
    const row = (day: string, revenue: string) =>
      `2026-10-${day},CH-U-204418-P4N7C2VJ,100,50,${revenue},EUR\n`;
    const table = `Day,Unit ID,Requests,Impressions,Revenue,Currency\n${row('01', '1.50')}${row('02', '2.50')}${row('3x', '1')}`;
    await c.page.getByLabel('Network of the table').selectOption('cobalt-heron');
    await c.page.getByLabel('Table of daily numbers').setInputFiles(fileOf('october.csv', table));
    await c.page.getByRole('button', { name: 'Read it' }).click();
    await c.page.getByText('cobalt-heron from october.csv: 2 rows, 2026-10-01 to 2026-10-02').waitFor();
    await c.page.getByText('1 row left out').waitFor();
    await c.page.getByRole('row', { name: /cobalt-heron october\.csv 2026-10-01 to 2026-10-02/ }).waitFor();
    // A long table is cancelled: what was read until then is kept as a part, as when a connection breaks off.
    const long = fileOf('long.csv', table + row('03', '3.50').repeat(1_500_000));
    await c.page.getByLabel('Table of daily numbers').setInputFiles(long);
    await c.page.getByRole('button', { name: 'Read it' }).click();
    await c.page.getByText(/^MB of long\.csv: \d+ of \d\d$/).waitFor();
    // The browser is busy with sending.
    await c.page.getByRole('button', { name: 'Cancel' }).click({ timeout: 60_000 });
    await expect.poll(() => c.page.getByRole('button', { name: 'Read it' }).isEnabled()).toBe(true);
    expect(await c.page.getByRole('alert').count()).toBe(0);
    const whole = async () =>
      new Map((await http(api('/tally/imports'))).body.map(({ name, complete }: any) => [name, complete]));
    await expect.poll(whole).toEqual(
      new Map([
        ['october.csv', true],
        ['long.csv', false],
      ]),
    );
    await goto('/titles/tidewick/tally');
    await c.page.getByLabel('Version', { exact: true }).fill('3.2.0');
    await c.page.getByLabel('Release day').fill('2026-10-02');
    await c.page.getByRole('button', { name: 'Add the release' }).click();
    await c.page.getByText('Android 3.2.0, 2026-10-02').waitFor();
    expect((await http(api('/titles/tidewick/releases'))).body).toMatchObject([{ version: '3.2.0' }]);
    await c.page.getByRole('button', { name: 'Remove Android 3.2.0' }).click();
    await expect.poll(async () => (await http(api('/titles/tidewick/releases'))).body).toEqual([]);
  });

  it('a link to a folder that was found by browsing, and takes it back', async () => {
    await demoIn(c);
    cpSync(join(root, 'demo/trees/plumebook'), join(c.trees, 'work/plumebook'), { recursive: true });
    await goto('/titles/plumebook/trees');
    await c.page.getByText('No tree of this title is linked yet').waitFor();
    await c.page.getByRole('button', { name: `Open ${c.trees}` }).click();
    await c.page.getByRole('button', { name: 'Open work' }).click();
    await c.page.getByLabel('take plumebook').check();
    await c.page.getByText(/Android example\.saltmarsh\.plumebook/).waitFor();
    await c.page.getByRole('button', { name: 'Link it' }).click();
    const tree = c.page.getByRole('listitem').filter({ hasText: join(c.trees, 'work/plumebook') });
    await tree.getByRole('button', { name: 'Read it again' }).click();
    await tree.getByRole('button', { name: 'Unlink' }).click();
    await c.page.getByText('No tree of this title is linked yet').waitFor();
    const outside = await http(api('/folders?path=/etc'));
    expect([outside.status, outside.body.code]).toEqual([403, 'forbidden']);
  });

  it('edits into a linked folder that a client has read since, for it is the same tree', async () => {
    const at = await demoIn(c);
    const env = { SYNDEXA_URL: c.service.url };
    const checked = await syndexa(['check', at, '--title', 'tidewick'], c.service.home, { env });
    expect(checked.err).toBe('');
    const [tree] = (await http(api('/trees'))).body;
    const { editions } = (await http(api('/titles/tidewick/board'))).body;
    for (const edition of editions)
      expect(edition).toMatchObject({ tree: tree.path, snapshot: tree.snapshot });
    await goto('/titles/tidewick/android?view=edits');
    await c.page.getByRole('button', { name: /^Write these \d+ files$/ }).waitFor();
    // Another folder with other files is another tree.
    const copy = join(c.trees, 'copy');
    cpSync(at, copy, { recursive: true });
    writeFileSync(join(copy, 'settings.gradle.kts'), '// other\n');
    await syndexa(['check', copy, '--title', 'tidewick'], c.service.home, { env });
    await c.page.getByText('The last reading was of another tree').waitFor();
  });

  it('that a finding may stay for a while, with the reason, and takes it back', async () => {
    await demoIn(c);
    await goto('/titles/tidewick/android?view=findings');
    const left = c.page.getByRole('region', { name: 'Left to you' });
    const card = left.locator('article').first();
    await card.getByText('accept it until a day').click();
    await card.getByLabel('Why it may stay').fill('short');
    await card.getByLabel('Until when').fill('2099-01-31');
    await card.getByRole('button', { name: 'Accept', exact: true }).click();
    await card.getByText('Say in a few words why it is acceptable').waitFor();
    await card.getByLabel('Why it may stay').fill('known, and gone with the next release');
    await card.getByRole('button', { name: 'Accept', exact: true }).click();
    const accepted = c.page.getByRole('region', { name: 'Accepted', exact: true });
    await accepted.getByText('known, and gone with the next release').waitFor();
    expect((await http(api('/titles/tidewick/accepted'))).body.acceptances).toHaveLength(1);
    await accepted.getByRole('button', { name: 'Withdraw the acceptance' }).click();
    await expect.poll(() => c.page.getByRole('region', { name: 'Accepted', exact: true }).count()).toBe(0);
  });
});

describe('the console works with networks', () => {
  it('creates what is missing there, shows how far it is, and brings lists in', async () => {
    const partnered: PartneredService = await partneredService(['cobalt-heron']);
    try {
      const at = (path: string) => partnered.api(path);
      await http(at('/titles'), 'POST', {
        id: 'kelp',
        title: {
          name: 'Kelp',
          editions: { android: { identifier: 'example.brine.kelp' } },
          placements: { page: { format: 'interstitial', units: { 'cobalt-heron': {} } } },
        },
      });
      await c.page.goto(`${partnered.url}/titles/kelp/networks`);
      await c.page.getByRole('button', { name: 'Show what would be created' }).click();
      await c.page.getByText('interstitial kelp_page_interstitial_android').waitFor();
      const before = (await http(at('/titles/kelp'))).body;
      expect(before.title.networks).toEqual({});
      await c.page.getByRole('button', { name: 'Do these 2 steps' }).click();
      await c.page.getByText('2 steps done; the IDs are in the record.').waitFor();
      const { title } = (await http(at('/titles/kelp'))).body;
      const unit = title.placements.page.units['cobalt-heron'].android.production as string;
      expect(unit).toMatch(/^CH-U-/);
      const ids = { network: 'cobalt-heron', platform: 'android', stage: 'production', placement: 'page' };
      await http(at('/titles/kelp/ids'), 'PUT', { ...ids, value: null }, { 'If-Match': '*' });
      await c.page.getByRole('button', { name: 'Fetch from the network' }).click();
      await c.page.getByRole('row', { name: new RegExp(unit) }).waitFor();
      await c.page.getByRole('button', { name: 'Add 1 ID to the record' }).click();
      await c.page.getByText('1 ID added to the record').waitFor();
      expect(
        (await http(at('/titles/kelp'))).body.title.placements.page.units['cobalt-heron'].android.production,
      ).toBe(unit);
      // Work that is cancelled ends at once, although the network keeps it waiting.
      await partnered.partner.control('faults', { network: 'cobalt-heron', kinds: ['timeout'], every: 1 });
      const show = c.page.getByRole('button', { name: 'Show what would be created' });
      await show.click();
      await c.page.getByRole('button', { name: 'Cancel' }).waitFor();
      expect(await show.isEnabled()).toBe(false);
      await c.page.getByRole('button', { name: 'Cancel' }).click();
      await expect.poll(() => show.isEnabled()).toBe(true);
      expect(await c.page.getByRole('progressbar').count()).toBe(0);
      expect(await c.page.getByRole('alert').count()).toBe(0);
    } finally {
      // The page would go on asking a service that is gone.
      await c.page.goto('about:blank');
      await partnered.stop();
    }
  });
});

describe('work on a tree that takes long', () => {
  it('shows how far it is, is cancelled, and is done when it is asked for again', async () => {
    await demoIn(c);
    // The first check says how far it is and then nothing more, until somebody cancels it.
    await c.page.addInitScript(() => {
      const real = window.fetch;
      let isFirst = true;
      window.fetch = (input, init) => {
        if (!isFirst || !String(input).endsWith('/check')) return real(input, init);
        isFirst = false;
        const step = { doing: 'native Android in \u202eapp', done: 1, total: 3 };
        const body = new ReadableStream({
          start(stream) {
            stream.enqueue(new TextEncoder().encode(`event: progress\ndata: ${JSON.stringify(step)}\n\n`));
            init?.signal?.addEventListener('abort', () => stream.error(init.signal?.reason));
          },
        });
        return Promise.resolve(new Response(body, { headers: { 'Content-Type': 'text/event-stream' } }));
      };
    });
    await c.page.goto(`${c.service.url}/titles/tidewick/android?view=findings`);
    await c.page.getByText('native Android in \\u202eapp: 1 of 3').waitFor();
    await c.page.getByRole('button', { name: 'Cancel' }).click();
    await c.page.getByText('It was cancelled.').waitFor();
    await c.page.getByRole('button', { name: 'Try again' }).click();
    await c.page.getByText('write just this').first().waitFor();
    expect(await c.page.getByText('It was cancelled.').count()).toBe(0);
  });

  it('reads a linked tree again, and says what went wrong where it cannot', async () => {
    const at = await demoIn(c);
    await c.page.goto(`${c.service.url}/titles/tidewick/trees`);
    await c.page.getByRole('button', { name: 'Read it again' }).click();
    await c.page.getByRole('button', { name: 'Read it again' }).waitFor();
    expect(await c.page.getByRole('alert').count()).toBe(0);
    rmSync(at, { recursive: true, force: true });
    await c.page.getByRole('button', { name: 'Read it again' }).click();
    await c.page
      .getByRole('alert')
      .getByText(/There is no folder/)
      .waitFor();
  });
});
