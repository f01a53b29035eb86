import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { pages } from '../../src/api/pages.js';
import { consoleTest, demoIn } from '../support/console.js';
import { http } from '../support/service.js';
import { filesBelow } from '../support/trees.js';
import { inline, tag } from '../support/vast.js';

// Pages that change many things, or things besides titles: each with a write from its beginning to its end.

const c = consoleTest();
const api = (path: string) => `${c.service.url}/api/v1${path}`;
const goto = (path: string) => c.page.goto(c.service.url + path);
const titleNow = async (id = 'tidewick') => (await http(api(`/titles/${id}`))).body;
const button = (name: string | RegExp) => c.page.getByRole('button', { name });

describe('network profiles', () => {
  it('are drafted question by question, corrected where the fault is, kept, and removed', async () => {
    await demoIn(c);
    await goto('/networks');
    await c.page.getByRole('link', { name: 'Describe another network.' }).click();
    await c.page.getByLabel('Short name').fill('pebblegate');
    await c.page.getByLabel('Name', { exact: true }).fill('Pebblegate');
    await button('Next: What do its IDs look like?').click();
    await c.page.getByLabel('Unit ID, Android', { exact: true }).fill('pbg-4411-banner01');
    await button('4 What does the build need?').click();
    await c.page.getByLabel('Gradle dependencies').fill('example.pebblegate:ads:4.2.0');
    // What was answered is there when the page is loaded again.
    await c.page.reload();
    await expect
      .poll(() => c.page.getByLabel('Gradle dependencies').inputValue())
      .toBe('example.pebblegate:ads:4.2.0');
    await button('Draft it').click();
    const editor = c.page.getByRole('textbox', { name: 'The profile' });
    await editor.waitFor();
    await c.page.getByText('The profile of pebblegate is right.').waitFor();
    await editor.click();
    await c.page.keyboard.press('Control+Home');
    await c.page.keyboard.type('serving-dely: 2h\n');
    await c.page.getByText('serving-dely').last().waitFor();
    await c.page.getByRole('status').filter({ hasText: '1 fault' }).waitFor();
    await c.page.getByText('line 1, column 1').waitFor();
    for (let at = 0; at < 'serving-dely: 2h\n'.length; at++) await c.page.keyboard.press('Backspace');
    await c.page.getByText('Pebblegate is new here').waitFor();
    await button('Keep the profile').click();
    await c.page.waitForURL(/networks\/pebblegate$/);
    expect((await http(api('/networks/pebblegate'))).body.profile.name).toBe('Pebblegate');
    await button('Remove the profile').click();
    await expect.poll(() => c.page.evaluate(() => document.activeElement?.textContent)).toBe('Yes');
    await button('Yes').click();
    await c.page.waitForURL(/networks$/);
    expect((await http(api('/networks/pebblegate'))).status).toBe(404);
  });

  it('are completed from their schema, tried on a tree, and compared before they replace another', async () => {
    await demoIn(c);
    await goto('/networks/cobalt-heron/profile');
    const editor = c.page.getByRole('textbox', { name: 'The profile' });
    await editor.click();
    await c.page.keyboard.press('Control+End');
    await c.page.keyboard.type('\na');
    await c.page.keyboard.press('Control+Space');
    await c.page.getByRole('option', { name: /^audiences/ }).waitFor();
    // What is there already is not offered again.
    expect(await c.page.getByRole('option', { name: /^(about|app-ads|android)/ }).count()).toBe(0);
    await c.page.keyboard.press('Escape');
    for (let at = 0; at < '\na'.length; at++) await c.page.keyboard.press('Backspace');
    await c.page.keyboard.press('Control+Home');
    await c.page.keyboard.type('# Ours since the move.\n');
    await c.page.getByText('It replaces the built-in profile of cobalt-heron.').waitFor();
    await c.page.getByText('+# Ours since the move.').waitFor();
    await c.page.getByLabel('Tree', { exact: true }).selectOption({ index: 1 });
    await button('Try it').click();
    await c.page.getByRole('heading', { name: 'What it recognises' }).waitFor();
    await c.page.getByText('CH-A-204418-7KQ2M9TD').first().waitFor();
    // Leaving the page loses nothing of it.
    await c.page.getByRole('link', { name: 'Networks' }).first().click();
    await c.page.goBack();
    await c.page.getByText('+# Ours since the move.').waitFor();
    await button('Replace the profile').click();
    await c.page.waitForURL(/networks\/cobalt-heron$/);
    const { source, shipped } = (await http(api('/networks/cobalt-heron'))).body;
    expect([source.split('\n')[0], shipped]).toEqual(['# Ours since the move.', false]);
  });
});

describe('what all titles have in common', () => {
  it('app-ads.txt: says what a file lacks, and brings it in', async () => {
    await demoIn(c);
    await goto('/app-ads');
    await c.page.getByRole('link', { name: 'Cobalt Heron' }).waitFor();
    await c.page
      .getByLabel('Or its text')
      .fill('# ours\ncobaltheron.example, 1, DIRECT, c0ba17he\nnonsense\n');
    await c.page.getByText('1 record, 1 fault').waitFor();
    await c.page.getByText('+ferrowick.example, 420, DIRECT, fe770w1c').waitFor();
    const saved = c.page.waitForEvent('download');
    await button('Save the file with these').click();
    const text = readFileSync(await (await saved).path(), 'utf8');
    expect(text).toContain('# ours\n');
    expect(text).toContain('marlstone.example, SM-20418, DIRECT');
    c.expected = /status of (4|502)/;
    await c.page.getByLabel('Address of the file').fill(`${c.service.url}/app-ads.txt`);
    await button('Fetch and compare').click();
    // The service fetches from the internet alone.
    await c.page.getByText('is a private address').waitFor();
  });

  it('the publisher: is changed field by field, also when somebody else changed another', async () => {
    await demoIn(c);
    await goto('/publisher');
    await c.page.getByLabel('Ferrowick', { exact: true }).fill('420-b');
    const before = (await http(api('/publisher'))).body;
    const read = await fetch(api('/publisher'));
    await http(
      api('/publisher'),
      'PUT',
      { ...before, name: 'Saltmarsh Two' },
      { 'If-Match': read.headers.get('ETag') ?? '' },
    );
    await button('Save the publisher').click();
    await c.page
      .getByText('The publisher is on record.')
      .waitFor()
      .catch(() => button('Save the publisher').click());
    await expect.poll(async () => (await http(api('/publisher'))).body.accounts?.ferrowick).toBe('420-b');
    expect((await http(api('/publisher'))).body.name).toBe('Saltmarsh Two');
    await c.page.getByLabel('Ferrowick, works key').fill('secret:FERROWICK_KEY');
    await button('Save the publisher').click();
    await c.page.getByRole('rowheader', { name: 'FERROWICK_KEY' }).waitFor();
  });

  it('attribution: compares a tree and a list, and brings in what is missing', async () => {
    await demoIn(c);
    await goto('/attribution');
    await c.page.getByLabel('Tree', { exact: true }).selectOption({ index: 1 });
    await button('Compare').click();
    await c.page.getByText('1 identifier in the tree, 2 missing.').waitFor();
    await c.page.getByLabel('Or its text').fill('["ch7k2m9td4.skadnetwork", "CH7K2M9TD4.skadnetwork"]');
    await c.page.getByText('1 identifier, 1 fault').waitFor();
    await c.page.getByText('m4r1st0n3q.skadnetwork').last().waitFor();
    const saved = c.page.waitForEvent('download');
    await button('Save the file with these').click();
    expect(readFileSync(await (await saved).path(), 'utf8')).toContain('h3r0nw8ngs.skadnetwork');
  });

  it('video tags: follows a document, and plays it with what a user does', async () => {
    await goto('/tags');
    await c.page.getByLabel('Or a VAST document').fill(tag(inline({})));
    await button('Follow it').click();
    await c.page.getByRole('heading', { name: 'Ads', exact: true }).waitFor();
    await c.page.getByLabel('What the user does').selectOption('mute');
    await c.page.getByLabel('After how many seconds').fill('2');
    await button('Add it').click();
    await button('Play it').click();
    await c.page.getByText(/calls in total; none was made/).waitFor();
    await c.page.getByRole('cell', { name: /^mute/ }).waitFor();
    await c.page.getByLabel('Address of the tag').fill(c.service.url);
    await button('Follow it').click();
    await c.page.getByText('unreachable').waitFor();
  });
});

describe('many at once', () => {
  it('sets IDs from a table, and says which rows it cannot take', async () => {
    await demoIn(c);
    await goto('/bulk?title=tidewick');
    await c.page
      .getByLabel(/^The table/)
      .fill(
        'tide-list-footer,cobalt-heron,android,production,CH-U-204418-ZZZZ0001\nnowhere,cobalt-heron,ios,test,X',
      );
    await c.page.getByText('1 ID to set').waitFor();
    await c.page.getByText('row 2 is left out').waitFor();
    await button('Show what would change').click();
    await button('Take 1 change into the record').click();
    await c.page.getByText('1 change is in the record').waitFor();
    const { units } = (await titleNow()).title.placements['tide-list-footer'];
    expect(units['cobalt-heron'].android.production).toBe('CH-U-204418-ZZZZ0001');
  });

  it('renames placements by a pattern, whole or not at all', async () => {
    await demoIn(c);
    const before = Object.keys((await titleNow()).title.placements);
    await goto('/bulk?do=rename&title=tidewick&from=*-day&to=station-open');
    await c.page.getByText('Another placement already has this name.').waitFor();
    expect(await button('Show what would change').isDisabled()).toBe(true);
    await c.page.getByLabel('New names').fill('*-noon');
    await button('Show what would change').click();
    await button(/^Take \d+ changes into the record/).click();
    await c.page.getByText('changes are in the record').waitFor();
    expect(Object.keys((await titleNow()).title.placements).sort()).toEqual(
      before.map((name) => name.replace('storm-chart-day', 'storm-chart-noon')).sort(),
    );
  });

  it('copies a title without its IDs, and uses a network in several titles', async () => {
    await demoIn(c);
    await goto('/bulk?do=copy&title=tidewick');
    await c.page.getByLabel('Short name').fill('tidewick-two');
    await c.page.getByLabel('Name', { exact: true }).fill('Tidewick Two');
    await c.page.getByLabel('Application ID (Android)').fill('example.saltmarsh.tidewick.two');
    await button('Show what would change').click();
    await button('Take 1 change into the record').click();
    await c.page.getByRole('link', { name: 'See the record of Tidewick Two.' }).waitFor();
    const copied = JSON.stringify((await titleNow('tidewick-two')).title);
    expect(copied).toContain('tide-list-footer');
    expect(copied).not.toContain('204418');
    await button('Use a network in many titles').click();
    await c.page.getByLabel('Network', { exact: true }).selectOption('ferrowick');
    await c.page.getByLabel('Find a title').fill('tidewick');
    await button('Choose all 2').click();
    await button('Show what would change').click();
    await button(/^Take \d+ changes into the record/).click();
    await c.page.getByText('changes are in the record').waitFor();
    for (const id of ['tidewick', 'tidewick-two'])
      expect((await titleNow(id)).title.placements['tide-list-footer'].units).toHaveProperty('ferrowick');
  });

  it('brings a document up to the record where both changed the same', async () => {
    await demoIn(c);
    const old = (await http(api('/roster'))).body.document as string;
    const { version } = await titleNow();
    await http(
      api('/titles/tidewick'),
      'PATCH',
      { name: 'Tidewick Six', audience: 'mixed' },
      { 'If-Match': `"v${version}"` },
    );
    await goto('/documents');
    await c.page
      .getByLabel('Or its text')
      .fill(`# ours\n${old.replace('name: Tidewick\n', 'name: Tidewick Seven\n')}`);
    await button('Show what would change').click();
    await c.page.getByText('both changed it').waitFor();
    expect(await button('1 field is still to choose').isDisabled()).toBe(true);
    await c.page.getByLabel('titles.tidewick.name: take what is in the document').check();
    await button('Update the document from the record').click();
    await button('Show what would change').click();
    await button('Take 1 change into the record').click();
    await c.page.getByText('1 change is in the record').waitFor();
    expect((await titleNow()).title).toMatchObject({ name: 'Tidewick Seven', audience: 'mixed' });
  });
});

describe('an edition', () => {
  it('says once what its variants share, and finds by kind and network', async () => {
    await demoIn(c);
    await goto('/titles/tidewick/android');
    await c.page.getByRole('heading', { name: /The same in all 3 variants/ }).waitFor();
    expect(await c.page.getByRole('rowheader', { name: 'minSdk' }).count()).toBe(1);
    await c.page.getByLabel('Kind', { exact: true }).selectOption('app-id');
    await expect.poll(() => c.page.getByRole('rowheader').count()).toBe(1);
    await c.page.reload();
    await c.page.getByRole('heading', { name: /Where the variants differ/ }).waitFor();
    expect(await c.page.getByRole('rowheader').count()).toBe(1);
    await c.page.locator('details.evidence summary').first().click();
    await c.page.locator('.source .at').first().waitFor();
    await expect.poll(() => c.page.locator('.source .hljs-name').count()).toBeGreaterThan(0);
  });

  it('is gone through by keyboard; one finding alone is fixed, and what changed is said', async () => {
    const at = await demoIn(c);
    await goto('/titles/tidewick/android?view=findings');
    await c.page.locator('article.finding').first().waitFor();
    await c.page.keyboard.press('j');
    await c.page.keyboard.press('j');
    const focused = () => c.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
    const second = await c.page.locator('article.finding').nth(1).getAttribute('aria-label');
    expect(await focused()).toBe(second);
    await c.page.keyboard.press('k');
    expect(await focused()).not.toBe(second);
    const before = filesBelow(at);
    const missing = c.page.locator('article').filter({ hasText: 'build/dependency-missing' }).first();
    await missing.getByText('write just this').click();
    await missing.getByRole('button', { name: /Write th/ }).click();
    await expect.poll(() => c.page.getByText('build/dependency-missing').count()).toBe(0);
    const changed = Object.entries(filesBelow(at)).flatMap(([path, bytes]) =>
      before[path]?.equals(bytes) ? [] : [path],
    );
    expect(changed.sort()).toEqual(['android/app/build.gradle.kts', 'android/gradle/libs.versions.toml']);
    await c.page.getByRole('link', { name: 'What changed' }).click();
    await c.page.getByRole('heading', { name: /Findings that are gone/ }).waitFor();
    await c.page
      .getByRole('rowheader', { name: /marlstone/ })
      .first()
      .waitFor();
    // What the tree was like is not taken for how it is.
    await c.page.getByRole('link', { name: 'What is wrong' }).click();
    await c.page.locator('article.finding').first().waitFor();
    expect(await c.page.getByText('build/dependency-missing').count()).toBe(0);
  });

  it('opens in the editor of one’s choice', async () => {
    const at = await demoIn(c);
    await goto('/settings');
    await c.page.getByLabel('Editor', { exact: true }).selectOption('own');
    await c.page.getByLabel('Address that opens a file').fill('javascript://x?{path}');
    await c.page.getByText('Write the address of an editor').waitFor();
    await c.page.getByLabel('Address that opens a file').fill('inkpot://open?file={path}&line={line}');
    await goto('/titles/tidewick/android?view=findings');
    const link = c.page.getByRole('link', { name: 'open in the editor' }).first();
    await link.waitFor();
    expect(await link.getAttribute('href')).toMatch(
      new RegExp(`^inkpot://open\\?file=${at}/android/.*&line=\\d+$`),
    );
  });

  it('loses a network, with what only that needs', async () => {
    const at = await demoIn(c);
    await goto('/titles/tidewick/android?view=out');
    await c.page.getByLabel('Network', { exact: true }).selectOption('cobalt-heron');
    await button(/^Write these \d+ files/).click();
    await c.page.getByText('The tree contains nothing of it').waitFor();
    expect(filesBelow(at)['android/app/build.gradle.kts']?.toString()).not.toContain('cobalt');
    await button('Undo the last write').click();
    await button(/^Write these \d+ files/).waitFor();
  });
});

describe('the record', () => {
  it('keeps what is typed and not saved, and asks before a placement goes', async () => {
    await demoIn(c);
    await goto('/titles/tidewick/record');
    await c.page.getByLabel('Name', { exact: true }).fill('Tidewick Eight');
    await c.page.getByRole('link', { name: 'History' }).click();
    await c.page.goBack();
    await c.page.getByText('not saved yet').waitFor();
    expect(await c.page.getByLabel('Name', { exact: true }).inputValue()).toBe('Tidewick Eight');
    await c.page.reload();
    await button('Save the title').click();
    await expect.poll(async () => (await titleNow()).title.name).toBe('Tidewick Eight');
    await expect.poll(() => c.page.getByText('not saved yet').count()).toBe(0);
    await button('Take out station-open').click();
    await c.page.getByText(/Take station-open out with its \d+ IDs\?/).waitFor();
    await c.page.keyboard.press('Escape');
    expect(Object.keys((await titleNow()).title.placements)).toContain('station-open');
    await button('Take out station-open').click();
    await button('Yes').click();
    await expect
      .poll(async () => Object.keys((await titleNow()).title.placements))
      .not.toContain('station-open');
    await expect.poll(() => c.page.evaluate(() => document.activeElement?.tagName)).toBe('H2');
  });

  it('of 300 placements at five networks is typed in without waiting, whichever row it is', async () => {
    const units = Object.fromEntries(
      ['cobalt-heron', 'ferrowick', 'quincebury'].map((network) => [network, {}]),
    );
    const placements = Object.fromEntries(
      Array.from({ length: 300 }, (_, at) => [
        `place-${at}`,
        { format: 'banner', units: at % 2 ? units : { 'cobalt-heron': {} } },
      ]),
    );
    const editions = {
      android: { identifier: 'example.brine.long' },
      ios: { identifier: 'example.brine.long' },
    };
    await http(api('/titles'), 'POST', { id: 'long', title: { name: 'Long', editions, placements } });
    await goto('/titles/long/record');
    await c.page.getByLabel('Where is place-0', { exact: true }).waitFor();
    expect(await c.page.evaluate(() => document.querySelectorAll('*').length)).toBeLessThan(5_000);
    await c.page.getByLabel('Find a placement').fill('place-299');
    await c.page.getByLabel('Where is place-299').fill('at the very end');
    await c.page.getByLabel('Where is place-299').press('Enter');
    await expect
      .poll(async () => (await titleNow('long')).title.placements['place-299'].where)
      .toBe('at the very end');
  });

  it('is where it was, on the way back and when it is loaded again', async () => {
    const placements = Object.fromEntries(
      Array.from({ length: 200 }, (_, at) => [
        `place-${at}`,
        { format: 'banner', units: { 'cobalt-heron': {} } },
      ]),
    );
    const editions = { android: { identifier: 'example.brine.long' } };
    await http(api('/titles'), 'POST', { id: 'long', title: { name: 'Long', editions, placements } });
    await goto('/titles/long');
    await c.page.getByRole('rowheader', { name: 'place-0' }).waitFor();
    const table = c.page.locator('.ledger-scroll');
    await table.evaluate((box) => box.scrollTo(0, 3_000));
    await c.page
      .getByRole('rowheader', { name: /^place-[4-9]\d/ })
      .first()
      .waitFor();
    const top = () => table.evaluate((box) => Math.round(box.scrollTop));
    // Rows that are drawn may be a little higher or lower than those that are only reckoned with.
    const isWhereItWas = async () => Math.abs((await top()) - 3_000) < 150;
    await expect
      .poll(() => c.page.evaluate(() => sessionStorage.getItem('scroll')))
      .toMatch(/,(29|30)\d\d\]/);
    await c.page.getByRole('link', { name: 'History' }).click();
    await c.page.getByRole('heading', { name: /What changed in Long/ }).waitFor();
    await c.page.goBack();
    await expect.poll(isWhereItWas).toBe(true);
    await c.page.reload();
    await expect.poll(isWhereItWas).toBe(true);
  });

  it('forgets a title only when its name is typed', async () => {
    await demoIn(c);
    await goto('/titles/kilnlog/record');
    await c.page.getByText('Remove the title from the record').click();
    const out = button('Take Kilnlog out');
    expect(await out.isDisabled()).toBe(true);
    await c.page.getByLabel('Type kilnlog to confirm').fill('kilnlog');
    await out.click();
    await c.page.waitForURL(`${c.service.url}/`);
    expect((await http(api('/titles/kilnlog'))).status).toBe(404);
  });
});

describe('by keyboard alone', () => {
  it('everything on every page that can be pressed is reached, and nothing is asked for twice', async () => {
    await demoIn(c);
    const asked: string[] = [];
    c.page.on('request', (request) => {
      if (request.url().includes('/api/v1/') && !request.url().endsWith('/events'))
        asked.push(`${request.method()} ${request.url()} ${request.postData() ?? ''}`);
    });
    writeFileSync(join(c.trees, 'note.txt'), 'so that there is something to browse');
    const missed: string[] = [];
    for (const page of Object.values(pages)) {
      const address = page
        .replace(':title', 'tidewick')
        .replace(':platform', 'ios')
        .replace(':network', 'marlstone')
        .replace(':id', 'CH-U-204418-P4N7C2VJ')
        .replace(':group/:name', 'tally/silent');
      asked.length = 0;
      await goto(address);
      await c.page.locator('h1').first().waitFor();
      await c.page.waitForLoadState('networkidle').catch(() => undefined);
      // A rehearsal is put on the board, which is then looked at again.
      const twice = address.endsWith('/rehearsal')
        ? []
        : asked.filter((one, at) => asked.indexOf(one) !== at);
      missed.push(...twice.map((one) => `${address}: ${one} is asked for again`));
      const reachable = await c.page.evaluate(() => {
        const wanted = 'a[href], button, input, select, textarea, summary, [contenteditable=true]';
        return [...document.querySelectorAll<HTMLElement>(wanted)].flatMap((one) => {
          const isShown = one.checkVisibility({ visibilityProperty: true }) && !one.matches(':disabled');
          const isRadio = one instanceof HTMLInputElement && one.type === 'radio';
          if (!isShown || isRadio || one.closest('[role=dialog]') || one.isContentEditable) return [];
          return one.tabIndex === 0
            ? []
            : [`${one.tagName} ${one.textContent?.slice(0, 40)} (${one.tabIndex})`];
        });
      });
      missed.push(...reachable.map((one) => `${address}: ${one}`));
      // Nothing keeps the focus: it comes to the end of the page, or goes round.
      const seen: (string | null)[] = [];
      for (let at = 0; at < 12; at++) {
        await c.page.keyboard.press('Tab');
        seen.push(
          await c.page.evaluate(() => {
            const one = document.activeElement;
            return one && one !== document.body ? one.outerHTML.slice(0, 80) : null;
          }),
        );
      }
      if (new Set(seen).size < 6) missed.push(`${address}: the focus stays at ${seen.at(-1)}`);
    }
    expect(missed).toEqual([]);
  });
});
