import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
// @ts-expect-error -- plain JavaScript, shared with the scripts
import { chromiumFlags, chromiumPath } from '../../scripts/browser.mjs';
import { editOf } from '../support/edits.js';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { buildTreeWriter, startWriter } from '../support/tree-writer.js';
import { filesBelow, root } from '../support/trees.js';

let browser: Browser;
let service: TestService;
let page: Page;
let trees: string;
let problems: string[];

beforeAll(async () => {
  browser = await chromium.launch({
    executablePath: chromiumPath as string,
    args: chromiumFlags as string[],
  });
});
afterAll(() => browser.close());

beforeEach(async () => {
  trees = temporaryFolder();
  service = await testService({ roots: [trees] });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  page = await context.newPage();
  page.setDefaultTimeout(15_000);
  problems = [];
  page.on('pageerror', (error) => problems.push(error.message));
  page.on('console', (message) => {
    // A refused write is shown on the page; the browser logs the status of every such answer by itself.
    if (message.type() === 'error' && !message.text().includes('status of 4')) problems.push(message.text());
  });
});
afterEach(async () => {
  await page.context().close();
  await service.stop();
  rmSync(trees, { recursive: true, force: true });
  expect(problems).toEqual([]);
});

const api = (path: string) => `${service.url}/api/v1${path}`;

async function demo(): Promise<string> {
  const at = join(trees, 'tidewick');
  cpSync(join(root, 'demo/trees/tidewick'), at, { recursive: true });
  await http(api('/roster/import'), 'POST', {
    document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
  });
  await http(api('/trees'), 'POST', { title: 'tidewick', path: at });
  return at;
}

const states = () =>
  page
    .locator('td[data-state]')
    .evaluateAll((cells) => cells.map((cell) => (cell as HTMLElement).dataset.state));

describe('the console', () => {
  it('says that a write to the tree was interrupted, and how to go on', async () => {
    const at = await demo();
    const scripts = temporaryFolder();
    const path = 'android/build.gradle.kts';
    const edit = editOf(path, readFileSync(join(at, path), 'utf8'), '// written\n');
    writeFileSync(join(scripts, 'edits.json'), JSON.stringify([edit]));
    const writer = await buildTreeWriter(scripts);
    await startWriter(process.execPath, [writer, at, join(scripts, 'edits.json'), service.home, '0']).ended;
    await page.goto(`${service.url}/titles/tidewick`);
    const notice = page.getByRole('alert');
    await notice.getByText('was interrupted').waitFor();
    expect(await notice.textContent()).toContain(`syndexa undo ${at}`);
    rmSync(scripts, { recursive: true });
  });

  it('begins with what to do first, and keeps what was typed when it is refused', async () => {
    await page.goto(service.url);
    await page.getByRole('heading', { name: 'Which title do you want to keep true?' }).waitFor();
    await page.getByLabel('Name', { exact: true }).fill('Kelp');
    await page.getByLabel('Short name').fill('Kelp!');
    await page.getByLabel('Application ID (Android)').fill('example.brine.kelp');
    await page.getByRole('button', { name: 'Add the title' }).click();
    await page.locator('.field-fault').filter({ hasText: 'Small letters' }).waitFor();
    expect(await page.getByLabel('Application ID (Android)').inputValue()).toBe('example.brine.kelp');
    await page.getByLabel('Short name').fill('kelp');
    await page.getByRole('button', { name: 'Add the title' }).click();
    await page.getByRole('heading', { name: 'What does the record say of Kelp?' }).waitFor();
    expect(new URL(page.url()).pathname).toBe('/titles/kelp/record');
    await page.getByRole('link', { name: 'Board' }).click();
    await page.getByText('No network is wired into Kelp yet').waitFor();
    await page.getByRole('link', { name: 'Android' }).click();
    await page.getByText('No tree of this edition was read yet').waitFor();
  });

  it('shows the board: placements by platform and stage, each with a word for its state', async () => {
    await demo();
    await page.goto(service.url);
    await page.getByRole('heading', { name: 'Which ID does each build of Tidewick carry?' }).waitFor();
    await page.locator('td[data-state="not in build"]').first().waitFor();
    const rows = await page
      .locator('tbody tr')
      .evaluateAll((all) => all.map((row) => row.querySelector('th')?.childNodes[0]?.textContent));
    expect(rows).toEqual([
      'app ID',
      'app key',
      'tide-list-footer',
      'station-open',
      'station-open',
      'storm-chart-day',
      'storm-chart-day',
    ]);
    // The app ID of the Android release is in an activity, where the SDK does not look.
    expect((await states()).slice(0, 4)).toEqual(['differs', 'not in build', 'differs', 'differs']);
    const id = page.getByRole('button', { name: 'CH-U-204418-P4N7C2VJ' });
    expect(await id.locator('strong').textContent()).toBe('204418-P4N7C2VJ');
    await id.click();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('CH-U-204418-P4N7C2VJ');
  });

  it('shows the chain of evidence and the findings with their lines', async () => {
    await demo();
    await page.goto(`${service.url}/titles/tidewick/android`);
    await page.getByRole('heading', { name: 'What would the Android build of Tidewick ship?' }).waitFor();
    await page.getByText('libs.versions.minSdk.get().toInt()').first().waitFor();
    await page.getByRole('link', { name: 'What is wrong' }).click();
    const nested = page.locator('article').filter({ hasText: 'app-id/nested-too-deep' });
    await nested.locator('.source .at').first().waitFor();
    expect(await nested.locator('.source .at').allTextContents()).toEqual([
      '24            <meta-data',
      '25                android:name="example.cobaltheron.ads.APP_ID"',
      '26                android:value="CH-A-204418-7KQ2M9TD" />',
    ]);
    expect(await nested.textContent()).toContain('wiring fixes it');
  });

  it('drafts a title from trees that exist, and takes it in once it was looked at', async () => {
    await demo();
    const [tree] = (await (await fetch(`${service.url}/api/v1/trees`)).json()) as { path: string }[];
    await page.goto(`${service.url}/titles/adopt`);
    await page.getByLabel('Folders, below a root of this service').fill(tree!.path);
    await page.getByRole('button', { name: 'Draft a title' }).click();
    const document = page.getByLabel('Change what is not right; leave out what you do not want');
    await document.waitFor();
    await page.getByText('It was found on android only.').waitFor();
    await page.getByRole('button', { name: 'Take it into the roster' }).click();
    await page.getByText('There is a title tidewick already.').waitFor();
    // Another title, with units of its own: the ones of Tidewick are held already.
    const draft = (await document.inputValue()).replace('  tidewick:', '  adopted:');
    await document.fill(draft.replaceAll('204418', '204419'));
    await page.getByRole('button', { name: 'Take it into the roster' }).click();
    await page.waitForURL(/titles\/adopted$/);
    await page.getByText('footer-banner').first().waitFor();
  });

  it('writes the edits into a linked tree, and the board turns good for what they mend', async () => {
    const at = await demo();
    await page.goto(`${service.url}/titles/tidewick/ios?view=edits`);
    await page.getByRole('button', { name: /Write these \d+ files/ }).click();
    await page.getByText('there is nothing to write').waitFor();
    expect(Object.keys(filesBelow(at))).toContain('ios/Tidewick/Placebook.swift');
    await page.getByRole('link', { name: 'Board' }).click();
    await page.locator('td[data-state="sample"]').first().waitFor();
    const now = await states();
    // No code names two of the placements yet; the app IDs, and the banner that code has, are in their builds.
    expect(now.filter((state) => state === 'not in build')).toHaveLength(16);
    expect(now.filter((state) => state === 'set' || state === 'sample').length).toBeGreaterThanOrEqual(8);
  });

  it('writes the parts that are chosen, says the command that does the same, and takes them back', async () => {
    const at = await demo();
    const before = filesBelow(at);
    await page.goto(`${service.url}/titles/tidewick/android?view=edits`);
    await page.getByRole('button', { name: /Write these \d+ files/ }).waitFor();
    for (const group of await page.locator('.edit-group').all())
      if (!(await group.innerText()).includes('android/cobalt-heron/permissions'))
        await group.getByRole('checkbox').uncheck();
    const command = page.locator('code.command');
    await expect
      .poll(() => command.innerText())
      .toBe(`syndexa wire ${at} --title tidewick --part android/cobalt-heron/permissions --write`);
    await page.getByRole('button', { name: 'Write this 1 file' }).click();
    await page.getByText('What that restores: 1 file').click();
    await page.getByLabel('Take back').getByText('android/app/src/main/AndroidManifest.xml').waitFor();
    const path = 'android/app/src/main/AndroidManifest.xml';
    const after = filesBelow(at);
    expect(after[path]?.toString()).toContain('ACCESS_NETWORK_STATE');
    expect({ ...after, [path]: before[path] }).toEqual(before);
    await page.getByRole('button', { name: 'Take the last write back' }).click();
    await expect.poll(() => page.getByLabel('Take back').count()).toBe(0);
    expect(filesBelow(at)).toEqual(before);
    // With nothing chosen there is nothing to write.
    for (const box of await page.getByRole('checkbox').all()) await box.uncheck();
    expect(await page.getByRole('button', { name: 'Nothing is chosen' }).isDisabled()).toBe(true);
  });

  it('follows a file that changed since it was read, and overwrites nothing of it', async () => {
    const at = await demo();
    const list = join(at, 'ios/Tidewick/Info.plist');
    const snapshot = async () =>
      ((await (await fetch(`${service.url}/api/v1/trees`)).json()) as { snapshot: string }[])[0]?.snapshot;
    await page.goto(`${service.url}/titles/tidewick/android?view=edits`);
    await page.getByRole('button', { name: /Write these/ }).waitFor();
    const before = await snapshot();
    writeFileSync(list, `${readFileSync(list, 'utf8')}<!-- mine -->\n`);
    await expect.poll(snapshot, { timeout: 10_000 }).not.toBe(before);
    // The page has asked again once the diff is the one for the changed file; until then a write is refused.
    await expect
      .poll(
        async () => {
          await page
            .getByRole('button', { name: /Write these/ })
            .click({ timeout: 1_000 })
            .catch(() => undefined);
          return page.getByText('there is nothing to write').isVisible();
        },
        { timeout: 20_000 },
      )
      .toBe(true);
    expect(readFileSync(list, 'utf8')).toMatch(/<!-- mine -->\n$/);
    expect(readFileSync(list, 'utf8')).toContain('$(COBALT_HERON_APP_ID)');
  });

  it('keeps what two people change in one title at once, and shows both where they meet', async () => {
    await demo();
    const record = async () => (await http(api('/titles/tidewick'))).body.title;
    const before = await record();
    const other = await page.context().newPage();
    for (const tab of [page, other]) await tab.goto(`${service.url}/titles/tidewick/record`);
    const save = (tab: Page) => tab.getByRole('button', { name: 'Save the title' }).click();

    // Different fields, in one part that is written whole: both stay, and so does what no field shows.
    await page.getByLabel('Builds for testing').fill('debug');
    await other.getByLabel('Builds that ship').fill('release, store');
    await save(other);
    await other.getByText('saved').waitFor();
    await page.getByText('version', { exact: false }).first().waitFor();
    await save(page);
    await page.getByText('saved').waitFor();
    const { stages, editions } = await record();
    expect(stages).toEqual({ test: ['debug'], production: ['release', 'store'] });
    expect(editions).toEqual(before.editions);

    // The same field: nobody's value goes unseen.
    await page.getByLabel('Name', { exact: true }).fill('Tidewick One');
    await other.getByLabel('Name', { exact: true }).fill('Tidewick Two');
    await save(other);
    const conflict = page.getByRole('alert', { name: 'Name was changed elsewhere' });
    await conflict.waitFor();
    expect(await conflict.innerText()).toMatch(/theirs\s+Tidewick Two\s+yours\s+Tidewick One/);
    expect(await page.getByRole('button', { name: 'Save the title' }).isDisabled()).toBe(true);
    expect((await record()).name).toBe('Tidewick Two');
    await conflict.getByRole('button', { name: 'Keep mine' }).click();
    await save(page);
    await expect.poll(async () => (await record()).name).toBe('Tidewick One');

    // A field that is saved on leaving it, and an ID.
    const where = (tab: Page) => tab.getByLabel('Where is tide-list-footer', { exact: true });
    await where(page).fill('below the list');
    await where(other).fill('at the very end');
    await where(other).press('Enter');
    await page.getByRole('alert', { name: 'Where is tide-list-footer was changed elsewhere' }).waitFor();
    await where(page).press('Enter');
    expect((await record()).placements['tide-list-footer'].where).toBe('at the very end');
    await page.getByRole('button', { name: 'Take theirs' }).click();
    expect(await where(page).inputValue()).toBe('at the very end');

    const id = (tab: Page) =>
      tab.getByLabel('tide-list-footer on cobalt-heron, Android production', { exact: true });
    await id(page).fill('CH-U-204418-AAAAAAAA');
    await id(other).fill('CH-U-204418-BBBBBBBB');
    await id(other).press('Enter');
    await page.getByRole('alert', { name: /^tide-list-footer on cobalt-heron/ }).waitFor();
    await page.getByRole('button', { name: 'Keep mine' }).click();
    await id(page).press('Enter');
    await expect
      .poll(
        async () => (await record()).placements['tide-list-footer'].units['cobalt-heron'].android.production,
      )
      .toBe('CH-U-204418-AAAAAAAA');
    await other.close();
  });

  it('saves over a change that it has not heard of yet only where nobody else changed the same', async () => {
    await demo();
    const record = async () => (await http(api('/titles/tidewick'))).body;
    await page.route('**/api/v1/events', (route) => route.abort());
    await page.goto(`${service.url}/titles/tidewick/record`);
    await page.getByLabel('Name', { exact: true }).fill('Tidewick One');
    const change = async (body: object) => {
      const match = { 'If-Match': `"v${(await record()).version}"` };
      expect((await http(api('/titles/tidewick'), 'PATCH', body, match)).status).toBe(200);
    };
    await change({ audience: 'mixed' });
    await page.getByRole('button', { name: 'Save the title' }).click();
    await expect
      .poll(async () => (await record()).title)
      .toMatchObject({ name: 'Tidewick One', audience: 'mixed' });
    await page.getByLabel('Name', { exact: true }).fill('Tidewick Three');
    await change({ name: 'Tidewick Two' });
    await page.getByRole('button', { name: 'Save the title' }).click();
    await page.getByRole('alert', { name: 'Name was changed elsewhere' }).waitFor();
    expect((await record()).title.name).toBe('Tidewick Two');
    problems = problems.filter((problem) => !problem.includes('ERR_FAILED'));
  });

  it('edits the record with the same words of refusal as the terminal', async () => {
    await demo();
    await page.goto(`${service.url}/titles/tidewick/record`);
    const field = page.getByLabel('tide-list-footer on cobalt-heron, Android production');
    await field.fill('CH-A-204418-7KQ2M9TX');
    await field.press('Enter');
    await page
      .getByText('CH-A-204418-7KQ2M9TX is an app ID of Cobalt Heron, and a unit ID belongs here.')
      .waitFor();
    expect(await field.inputValue()).toBe('CH-A-204418-7KQ2M9TX');
    await field.fill('CH-U-204418-NEWNEWNE');
    await field.press('Enter');
    await expect
      .poll(
        async () =>
          (await http(api('/titles/tidewick'))).body.title.placements['tide-list-footer'].units[
            'cobalt-heron'
          ].android.production,
      )
      .toBe('CH-U-204418-NEWNEWNE');

    const refresh = page.getByLabel('Refresh of tide-list-footer');
    await refresh.fill('5s');
    await refresh.press('Enter');
    await page.getByText('Cobalt Heron does not take the refresh 5s.').waitFor();
    await refresh.fill('90s');
    await refresh.press('Enter');
    await expect
      .poll(
        async () =>
          (await http(api('/titles/tidewick'))).body.title.placements['tide-list-footer'].settings.refresh,
      )
      .toBe('90s');

    await page.getByRole('textbox', { name: 'New placement' }).fill('moon-page-banner');
    await page.getByRole('button', { name: 'Add the placement' }).click();
    await page.getByRole('rowheader', { name: 'moon-page-banner' }).first().waitFor();
    await page.getByRole('button', { name: 'Take out moon-page-banner' }).click();
    await expect
      .poll(async () => Object.keys((await http(api('/titles/tidewick'))).body.title.placements))
      .not.toContain('moon-page-banner');

    await page.getByLabel('Builds for testing').fill('debug');
    await page.getByRole('button', { name: 'Save the title' }).click();
    await expect
      .poll(async () => (await http(api('/titles/tidewick'))).body.title.stages.test)
      .toEqual(['debug']);
  });

  it('follows what others change, by itself', async () => {
    await demo();
    await page.goto(service.url);
    await page.getByRole('heading', { name: /build of Tidewick/ }).waitFor();
    const { version } = (await http(api('/titles/tidewick'))).body;
    await page.waitForTimeout(300);
    await http(api('/titles/tidewick'), 'PATCH', { name: 'Tidewick Four' }, { 'If-Match': `"v${version}"` });
    await page.getByRole('heading', { name: /build of Tidewick Four/ }).waitFor();
  });

  it('is reached by keyboard, is readable when narrow, and remembers dark', async () => {
    await demo();
    await page.goto(service.url);
    await page.getByRole('heading', { name: /build of Tidewick/ }).waitFor();
    await page.keyboard.press('Tab');
    expect(await page.evaluate(() => document.activeElement?.textContent)).toBe('Syndexa');
    await page.getByRole('button', { name: /dark/ }).press('Enter');
    await page.reload();
    expect(await page.evaluate(() => document.documentElement.dataset.bsTheme)).toBe('dark');
    await page.setViewportSize({ width: 420, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });

  it('shows the steps in order, and takes the word of a person for what nobody can see', async () => {
    await page.goto(`${service.url}/titles`);
    await http(api('/titles'), 'POST', {
      id: 'kelp',
      title: { name: 'Kelp', editions: { android: { identifier: 'example.brine.kelp' } } },
    });
    await page.goto(`${service.url}/titles/kelp/steps`);
    await page.getByText('No network is named at any placement yet').waitFor();
    await http(
      api('/titles/kelp/placements/footer'),
      'PUT',
      { format: 'banner', units: { 'cobalt-heron': {} } },
      { 'If-None-Match': '*' },
    );
    await page.getByRole('heading', { name: 'Android: Cobalt Heron' }).waitFor();
    const rows = page.locator('table.steps tr');
    const names = await rows.locator('th').allTextContents();
    expect(names.indexOf('Register with the network')).toBeLessThan(names.indexOf('Accept the terms'));
    expect(names.at(-1)).toBe('Check the release');
    await page.getByText('syndexa publisher set --credential cobalt-heron.inventory=secret:NAME').waitFor();
    await page.getByLabel('only what can be done now').click();
    await page.waitForURL(/\?show=next$/);
    expect(new URL(page.url()).search).toBe('?show=next');
    // The address follows the switch before the rows do.
    await expect.poll(() => rows.filter({ hasText: 'blocked' }).count()).toBe(0);
    await page.getByLabel('Note on Link the store listing').fill('seen in the store');
    await rows
      .filter({ hasText: 'Link the store listing' })
      .getByRole('button', { name: 'It is done' })
      .click();
    await page.getByLabel('only what can be done now').click();
    await page.waitForURL(/\/steps$/);
    const listing = rows.filter({ hasText: 'Link the store listing' });
    await listing.getByText('● done', { exact: false }).or(listing.getByText('ticked by')).first().waitFor();
    await listing.getByRole('button', { name: 'take it back' }).click();
    await listing.getByRole('button', { name: 'It is done' }).waitFor();
  });

  it('shows what placements earn, with releases and what is silent, all in the address', async () => {
    await demo();
    await page.goto(`${service.url}/titles/tidewick/tally`);
    await page.getByText('No numbers are on record.').waitFor();
    const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
    const rows = Array.from({ length: 40 }, (_, at) => at + 1).flatMap((ago) => [
      `${day(ago)},CH-U-204418-P4N7C2VJ,1000,900,800,8,1.50,EUR`,
      ...(ago > 5 ? [`${day(ago)},CH-U-204418-Z8L3D6GF,1000,900,800,8,2.50,EUR`] : []),
    ]);
    const table = ['Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency', ...rows].join('\n');
    const sent = await http(api('/tally/imports?network=cobalt-heron'), 'POST', table, {
      'Content-Type': 'text/csv',
    });
    expect(sent.body).toMatchObject({ rows: 75, oddCount: 0 });
    await http(api('/titles/tidewick/releases'), 'POST', {
      title: 'tidewick',
      platform: 'ios',
      version: '3.2.0',
      day: day(6),
    });
    await page.goto(`${service.url}/titles/tidewick/tally`);
    const figures = page.locator('section table.figures').first();
    await figures.getByRole('row', { name: /tide-list-footer.* 51,000/ }).waitFor();
    expect(await figures.locator('tfoot').textContent()).toContain('99.50');
    await page.getByText(/tide-list-footer has made no request to Cobalt Heron since/).waitFor();
    await page.getByText('iOS 3.2.0').first().waitFor();
    await page.getByLabel('Rows').selectOption('platform');
    await figures.getByRole('row', { name: /^iOS 23,000/ }).waitFor();
    await page.getByLabel('Days').selectOption('7d');
    await figures.getByRole('row', { name: /^iOS 2,000/ }).waitFor();
    expect(new URL(page.url()).search).toBe('?by=platform&days=7d');
    await page.reload();
    await figures.getByRole('row', { name: /^iOS 2,000/ }).waitFor();
    // The chart answers to the keyboard: the brush moves, and the days with it.
    const end = page.locator('.recharts-brush-traveller').first();
    await end.focus();
    for (let press = 0; press < 3; press++) await page.keyboard.press('ArrowLeft');
    await page.waitForURL(/days=\d{4}-\d{2}-\d{2}\.\.\d{4}-\d{2}-\d{2}/);
    await page.getByText('The days as a table').click();
    expect(await page.locator('.chart details tbody tr').count()).toBe(40);
    await page.goto(`${service.url}/titles/tidewick`);
    await page.locator('.spark').first().waitFor();
  });

  it('rehearses: verdicts by placement and variant, a session that is gone through by keyboard, all in the address', async () => {
    await demo();
    await page.goto(`${service.url}/titles/tidewick/rehearsal`);
    const cell = page
      .getByRole('row', { name: /^tide-list-footer/ })
      .getByRole('button')
      .first();
    await cell.filter({ hasText: 'refused' }).waitFor();
    expect(
      await page
        .getByRole('row', { name: /^station-open/ })
        .getByRole('button')
        .first()
        .innerText(),
    ).toContain('never requested');
    await cell.click();
    expect(page.url()).toContain('placement=tide-list-footer');
    const line = page.getByRole('application', { name: 'Timeline' });
    await line.focus();
    await page.keyboard.press('End');
    const time = page.getByLabel('Time in the session');
    const end = Number(await time.inputValue());
    await page.keyboard.press('ArrowLeft');
    expect(Number(await time.inputValue())).toBeLessThan(end);
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
    const now = page.locator('.event-now');
    expect(await now.innerText()).toMatch(/^0:\d/);
    await page.getByText('events as a list').click();
    expect(await page.locator('.event-list li').count()).toBeGreaterThan(5);
    await page.getByText(/exchanges? with the partner/).click();
    await page.locator('.exchanges summary').first().click();
    expect(await page.locator('.exchanges .message').first().innerText()).toContain('"tagid"');
    await page.getByLabel('Scenario').selectOption('impatient-user');
    await page.getByText('Impatient user, seed 1').waitFor();
    await page.getByLabel('The network').selectOption('offline');
    await page.waitForURL(/scenario=impatient-user.*fault=offline|fault=offline.*scenario=impatient-user/);
    await page.reload();
    await page.getByText('Impatient user, seed 1').waitFor();
    expect(await page.getByLabel('The network').inputValue()).toBe('offline');
  });

  it('shows networks with their reasons, and says when an address leads nowhere', async () => {
    await page.goto(`${service.url}/networks`);
    await page.getByRole('link', { name: 'Cobalt Heron' }).click();
    await page.getByText('Ads are fetched over the network.').first().waitFor();
    await page.goto(`${service.url}/nowhere/at/all`);
    await page.getByRole('heading', { name: 'There is no such page' }).waitFor();
    await page.goto(`${service.url}/titles/nobody`);
    await page.getByText('There is no title nobody.').waitFor();
  });

  it('keeps long boards quick: only the rows in view are drawn', async () => {
    const placements = Object.fromEntries(
      Array.from({ length: 600 }, (_, i) => [
        `spot-${i}-banner`,
        { format: 'banner', units: { 'cobalt-heron': {} } },
      ]),
    );
    await http(api('/titles'), 'POST', {
      id: 'big',
      title: {
        name: 'Big',
        editions: { android: { identifier: 'a.b' } },
        networks: { 'cobalt-heron': { android: {} } },
        placements,
      },
    });
    await page.goto(`${service.url}/titles/big`);
    await page.getByText('spot-0-banner').waitFor();
    expect(await page.locator('tbody tr').count()).toBeLessThan(120);
    await page.locator('.ledger-scroll').evaluate((element) => (element.scrollTop = element.scrollHeight));
    await page.getByText('spot-599-banner').waitFor();
  });
});
