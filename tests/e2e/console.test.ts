import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { consoleTest, demoIn } from '../support/console.js';
import { editOf } from '../support/edits.js';
import { http, temporaryFolder } from '../support/service.js';
import { buildTreeWriter, startWriter } from '../support/tree-writer.js';
import { filesBelow } from '../support/trees.js';

const c = consoleTest();
const api = (path: string) => `${c.service.url}/api/v1${path}`;
const demo = () => demoIn(c);

const states = () =>
  c.page
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
    await startWriter(process.execPath, [writer, at, join(scripts, 'edits.json'), c.service.home, '0']).ended;
    await c.page.goto(`${c.service.url}/titles/tidewick`);
    const notice = c.page.getByRole('alert');
    await notice.getByText('was interrupted').waitFor();
    expect(await notice.textContent()).toContain(`syndexa undo ${at}`);
    await notice.getByRole('button', { name: 'Undo the interrupted write' }).click();
    await expect.poll(() => notice.count()).toBe(0);
    expect(readFileSync(join(at, path), 'utf8')).not.toContain('// written');
    rmSync(scripts, { recursive: true });
  });

  it('begins with what to do first, and keeps what was typed when it is refused', async () => {
    await c.page.goto(c.service.url);
    await c.page.getByRole('heading', { name: 'Which title do you want to keep true?' }).waitFor();
    await c.page.getByLabel('Name', { exact: true }).fill('Kelp');
    await c.page.getByLabel('Short name').fill('Kelp!');
    await c.page.getByLabel('Application ID (Android)').fill('example.brine.kelp');
    await c.page.getByRole('button', { name: 'Add the title' }).click();
    await c.page.locator('.field-fault').filter({ hasText: 'Small letters' }).waitFor();
    expect(await c.page.getByLabel('Application ID (Android)').inputValue()).toBe('example.brine.kelp');
    await c.page.getByLabel('Short name').fill('kelp');
    await c.page.getByRole('button', { name: 'Add the title' }).click();
    await c.page.getByRole('heading', { name: 'What does the record say of Kelp?' }).waitFor();
    expect(new URL(c.page.url()).pathname).toBe('/titles/kelp/record');
    await c.page.getByRole('link', { name: 'Board' }).click();
    await c.page.getByText('No network is wired into Kelp yet').waitFor();
    await c.page.getByRole('link', { name: 'Android' }).click();
    await c.page.getByText('No tree has been read yet').waitFor();
  });

  it('shows the board: placements by platform and stage, each with a word for its state', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick`);
    await c.page.getByRole('heading', { name: 'Which ID does each build of Tidewick carry?' }).waitFor();
    await c.page.locator('td[data-state="not in build"]').first().waitFor();
    const rows = await c.page
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
    const id = c.page.getByRole('button', { name: 'CH-U-204418-P4N7C2VJ' });
    expect(await id.locator('strong').textContent()).toBe('204418-P4N7C2VJ');
    await id.click();
    expect(await c.page.evaluate(() => navigator.clipboard.readText())).toBe('CH-U-204418-P4N7C2VJ');
  });

  it('shows the chain of evidence and the findings with their lines', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/android`);
    await c.page.getByRole('heading', { name: 'What would the Android build of Tidewick ship?' }).waitFor();
    await c.page
      .getByRole('row', { name: /minSdk/ })
      .locator('summary')
      .click();
    await c.page.getByText('libs.versions.minSdk.get().toInt()').first().waitFor();
    await c.page.getByRole('link', { name: 'What is wrong' }).click();
    const nested = c.page.locator('article').filter({ hasText: 'app-id/nested-too-deep' });
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
    const [tree] = (await (await fetch(`${c.service.url}/api/v1/trees`)).json()) as { path: string }[];
    await c.page.goto(`${c.service.url}/titles/adopt`);
    await c.page.getByLabel('Folders, below a root of this service').fill(tree!.path);
    await c.page.getByRole('button', { name: 'Draft a title' }).click();
    const document = c.page.getByLabel('Correct what is wrong; remove what you do not want');
    await document.waitFor();
    await c.page.getByText('It was found only on Android.').waitFor();
    await c.page.getByRole('button', { name: 'Add it to the roster' }).click();
    await c.page.getByText('The title tidewick already exists.').waitFor();
    // Another title, with units of its own: the ones of Tidewick are held already.
    const draft = (await document.inputValue()).replace('  tidewick:', '  adopted:');
    await document.fill(draft.replaceAll('204418', '204419'));
    await c.page.getByRole('button', { name: 'Add it to the roster' }).click();
    await c.page.waitForURL(/titles\/adopted$/);
    await c.page.getByText('footer-banner').first().waitFor();
  });

  it('writes the edits into a linked tree, and the board turns good for what they mend', async () => {
    const at = await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/ios?view=edits`);
    await c.page.getByRole('button', { name: /Write these \d+ files/ }).click();
    await c.page.getByText('there is nothing to write').waitFor();
    expect(Object.keys(filesBelow(at))).toContain('ios/Tidewick/Placebook.swift');
    await c.page.getByRole('link', { name: 'Board' }).click();
    await c.page.locator('td[data-state="sample"]').first().waitFor();
    const now = await states();
    // No code names two of the placements yet; the app IDs, and the banner that code has, are in their builds.
    expect(now.filter((state) => state === 'not in build')).toHaveLength(16);
    expect(now.filter((state) => state === 'set' || state === 'sample').length).toBeGreaterThanOrEqual(8);
  });

  it('writes the parts that are chosen, says the command that does the same, and takes them back', async () => {
    const at = await demo();
    const before = filesBelow(at);
    await c.page.goto(`${c.service.url}/titles/tidewick/android?view=edits`);
    await c.page.getByRole('button', { name: /Write these \d+ files/ }).waitFor();
    for (const group of await c.page.locator('.edit-group').all())
      if (!(await group.innerText()).includes('android/cobalt-heron/permissions'))
        await group.getByRole('checkbox').uncheck();
    const command = c.page.locator('code.command');
    await expect
      .poll(() => command.innerText())
      .toBe(`syndexa wire ${at} --title tidewick --part android/cobalt-heron/permissions --write`);
    await c.page.getByRole('button', { name: 'Write this 1 file' }).click();
    await c.page.getByText('What that restores: 1 file').click();
    await c.page.getByLabel('Take back').getByText('android/app/src/main/AndroidManifest.xml').waitFor();
    const path = 'android/app/src/main/AndroidManifest.xml';
    const after = filesBelow(at);
    expect(after[path]?.toString()).toContain('ACCESS_NETWORK_STATE');
    expect({ ...after, [path]: before[path] }).toEqual(before);
    await c.page.getByRole('button', { name: 'Undo the last write' }).click();
    await expect.poll(() => c.page.getByLabel('Take back').count()).toBe(0);
    expect(filesBelow(at)).toEqual(before);
    // With nothing chosen there is nothing to write.
    for (const box of await c.page.getByRole('checkbox').all()) await box.uncheck();
    expect(await c.page.getByRole('button', { name: 'Nothing is chosen' }).isDisabled()).toBe(true);
  });

  it('follows a file that changed since it was read, and overwrites nothing of it', async () => {
    const at = await demo();
    const list = join(at, 'ios/Tidewick/Info.plist');
    const snapshot = async () =>
      ((await (await fetch(`${c.service.url}/api/v1/trees`)).json()) as { snapshot: string }[])[0]?.snapshot;
    await c.page.goto(`${c.service.url}/titles/tidewick/android?view=edits`);
    await c.page.getByRole('button', { name: /Write these/ }).waitFor();
    const before = await snapshot();
    writeFileSync(list, `${readFileSync(list, 'utf8')}<!-- mine -->\n`);
    await expect.poll(snapshot, { timeout: 10_000 }).not.toBe(before);
    // The page has asked again once the diff is the one for the changed file; until then a write is refused.
    await expect
      .poll(
        async () => {
          await c.page
            .getByRole('button', { name: /Write these/ })
            .click({ timeout: 1_000 })
            .catch(() => undefined);
          return c.page.getByText('there is nothing to write').isVisible();
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
    const other = await c.page.context().newPage();
    for (const tab of [c.page, other]) await tab.goto(`${c.service.url}/titles/tidewick/record`);
    const save = (tab: Page) => tab.getByRole('button', { name: 'Save the title' }).click();

    // Different fields, in one part that is written whole: both stay, and so does what no field shows.
    await c.page.getByLabel('Builds for testing').fill('debug');
    await other.getByLabel('Builds that ship').fill('release, store');
    await save(other);
    await other.getByText('saved').waitFor();
    await c.page.getByText('version', { exact: false }).first().waitFor();
    await save(c.page);
    await c.page.getByText('saved').waitFor();
    const { stages, editions } = await record();
    expect(stages).toEqual({ test: ['debug'], production: ['release', 'store'] });
    expect(editions).toEqual(before.editions);

    // The same field: nobody's value goes unseen.
    await c.page.getByLabel('Name', { exact: true }).fill('Tidewick One');
    await other.getByLabel('Name', { exact: true }).fill('Tidewick Two');
    await save(other);
    const conflict = c.page.getByRole('alert', { name: 'Name was changed elsewhere' });
    await conflict.waitFor();
    expect(await conflict.innerText()).toMatch(/theirs\s+Tidewick Two\s+yours\s+Tidewick One/);
    expect(await c.page.getByRole('button', { name: 'Save the title' }).isDisabled()).toBe(true);
    expect((await record()).name).toBe('Tidewick Two');
    await conflict.getByRole('button', { name: 'Keep your value' }).click();
    await save(c.page);
    await expect.poll(async () => (await record()).name).toBe('Tidewick One');

    // A field that is saved on leaving it, and an ID.
    const where = (tab: Page) => tab.getByLabel('Where is tide-list-footer', { exact: true });
    await where(c.page).fill('below the list');
    await where(other).fill('at the very end');
    await where(other).press('Enter');
    await c.page.getByRole('alert', { name: 'Where is tide-list-footer was changed elsewhere' }).waitFor();
    await where(c.page).press('Enter');
    expect((await record()).placements['tide-list-footer'].where).toBe('at the very end');
    await c.page.getByRole('button', { name: 'Use their value' }).click();
    expect(await where(c.page).inputValue()).toBe('at the very end');

    const id = (tab: Page) =>
      tab.getByLabel('tide-list-footer on cobalt-heron, Android production', { exact: true });
    await id(c.page).fill('CH-U-204418-AAAAAAAA');
    await id(other).fill('CH-U-204418-BBBBBBBB');
    await id(other).press('Enter');
    await c.page.getByRole('alert', { name: /^tide-list-footer on cobalt-heron/ }).waitFor();
    await c.page.getByRole('button', { name: 'Keep your value' }).click();
    await id(c.page).press('Enter');
    await expect
      .poll(
        async () => (await record()).placements['tide-list-footer'].units['cobalt-heron'].android.production,
      )
      .toBe('CH-U-204418-AAAAAAAA');
    await other.close();
  });

  it('saves over a change that it has not heard of yet only where nobody else changed the same', async () => {
    c.expected = /status of 4|ERR_FAILED/;
    await demo();
    const record = async () => (await http(api('/titles/tidewick'))).body;
    await c.page.route('**/api/v1/events', (route) => route.abort());
    await c.page.goto(`${c.service.url}/titles/tidewick/record`);
    await c.page.getByLabel('Name', { exact: true }).fill('Tidewick One');
    const change = async (body: object) => {
      const match = { 'If-Match': `"v${(await record()).version}"` };
      expect((await http(api('/titles/tidewick'), 'PATCH', body, match)).status).toBe(200);
    };
    await change({ audience: 'mixed' });
    await c.page.getByRole('button', { name: 'Save the title' }).click();
    await expect
      .poll(async () => (await record()).title)
      .toMatchObject({ name: 'Tidewick One', audience: 'mixed' });
    await c.page.getByLabel('Name', { exact: true }).fill('Tidewick Three');
    await change({ name: 'Tidewick Two' });
    // Where word of the change comes first, there is nothing to save any more: the conflict is shown already.
    await c.page
      .getByRole('button', { name: 'Save the title' })
      .click({ timeout: 2_000 })
      .catch(() => undefined);
    await c.page.getByRole('alert', { name: 'Name was changed elsewhere' }).waitFor();
    expect((await record()).title.name).toBe('Tidewick Two');
  });

  it('goes on from what it saved where somebody types on meanwhile', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/record`);
    let release = () => {};
    const released = new Promise<void>((resolve) => (release = resolve));
    await c.page.route(/\/titles\/tidewick$/, async (route) => {
      if (route.request().method() === 'PATCH') await released;
      await route.continue();
    });
    const name = c.page.getByLabel('Name', { exact: true });
    const save = c.page.getByRole('button', { name: 'Save the title' });
    await name.fill('Tidewick One');
    await save.click();
    await name.fill('Tidewick Two');
    release();
    const saved = async () => (await http(api('/titles/tidewick'))).body.title.name;
    await expect.poll(saved).toBe('Tidewick One');
    await c.page.getByRole('heading', { level: 1, name: /Tidewick One/ }).waitFor();
    await save.click();
    await expect.poll(saved).toBe('Tidewick Two');
    expect(await c.page.getByRole('alert').count()).toBe(0);
  });

  it('edits the record with the same words of refusal as the terminal', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/record`);
    const field = c.page.getByLabel('tide-list-footer on cobalt-heron, Android production');
    await field.fill('CH-A-204418-7KQ2M9TX');
    await field.press('Enter');
    await c.page
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

    const refresh = c.page.getByLabel('Refresh of tide-list-footer');
    await refresh.fill('5s');
    await refresh.press('Enter');
    await c.page.getByText('Cobalt Heron does not support a refresh time of 5s.').waitFor();
    await refresh.fill('90s');
    await refresh.press('Enter');
    await expect
      .poll(
        async () =>
          (await http(api('/titles/tidewick'))).body.title.placements['tide-list-footer'].settings.refresh,
      )
      .toBe('90s');

    await c.page.getByRole('textbox', { name: 'New placement' }).fill('moon-page-banner');
    await c.page.getByRole('button', { name: 'Add the placement' }).click();
    await c.page.getByRole('rowheader', { name: 'moon-page-banner' }).first().waitFor();
    await c.page.getByRole('button', { name: 'Take out moon-page-banner' }).click();
    await c.page.getByRole('button', { name: 'Yes' }).click();
    await expect
      .poll(async () => Object.keys((await http(api('/titles/tidewick'))).body.title.placements))
      .not.toContain('moon-page-banner');

    await c.page.getByLabel('Builds for testing').fill('debug');
    await c.page.getByRole('button', { name: 'Save the title' }).click();
    await expect
      .poll(async () => (await http(api('/titles/tidewick'))).body.title.stages.test)
      .toEqual(['debug']);
  });

  it('follows what others change, by itself', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick`);
    await c.page.getByRole('heading', { name: /build of Tidewick/ }).waitFor();
    const { version } = (await http(api('/titles/tidewick'))).body;
    await c.page.waitForTimeout(300);
    await http(api('/titles/tidewick'), 'PATCH', { name: 'Tidewick Four' }, { 'If-Match': `"v${version}"` });
    await c.page.getByRole('heading', { name: /build of Tidewick Four/ }).waitFor();
  });

  it('is reached by keyboard, is readable when narrow, and remembers dark', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick`);
    await c.page.getByRole('heading', { name: /build of Tidewick/ }).waitFor();
    await c.page.keyboard.press('Tab');
    expect(await c.page.evaluate(() => document.activeElement?.textContent)).toBe('Skip to the page');
    await c.page.keyboard.press('Tab');
    expect(await c.page.evaluate(() => document.activeElement?.textContent)).toBe('Syndexa');
    await c.page.getByRole('button', { name: /dark/ }).press('Enter');
    await c.page.reload();
    expect(await c.page.evaluate(() => document.documentElement.dataset.bsTheme)).toBe('dark');
    await c.page.setViewportSize({ width: 420, height: 800 });
    expect(await c.page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });

  it('shows the steps in order, and takes the word of a person for what nobody can see', async () => {
    await c.page.goto(`${c.service.url}/titles`);
    await http(api('/titles'), 'POST', {
      id: 'kelp',
      title: { name: 'Kelp', editions: { android: { identifier: 'example.brine.kelp' } } },
    });
    await c.page.goto(`${c.service.url}/titles/kelp/steps`);
    await c.page.getByText('No placement has a network yet').waitFor();
    await http(
      api('/titles/kelp/placements/footer'),
      'PUT',
      { format: 'banner', units: { 'cobalt-heron': {} } },
      { 'If-None-Match': '*' },
    );
    await c.page.getByRole('heading', { name: 'Android: Cobalt Heron' }).waitFor();
    const rows = c.page.locator('table.steps tr');
    const names = await rows.locator('th').allTextContents();
    expect(names.indexOf('Register with the network')).toBeLessThan(names.indexOf('Accept the terms'));
    expect(names.at(-1)).toBe('Check the release');
    await c.page.getByText('syndexa publisher set --credential cobalt-heron.inventory=secret:NAME').waitFor();
    await c.page.getByLabel('only what can be done now').click();
    await c.page.waitForURL(/\?show=next$/);
    expect(new URL(c.page.url()).search).toBe('?show=next');
    // The address follows the switch before the rows do.
    await expect.poll(() => rows.filter({ hasText: 'blocked' }).count()).toBe(0);
    await c.page.getByLabel('Note on Link the store listing').fill('seen in the store');
    await rows
      .filter({ hasText: 'Link the store listing' })
      .getByRole('button', { name: 'It is done' })
      .click();
    await c.page.getByLabel('only what can be done now').click();
    await c.page.waitForURL(/\/steps$/);
    await c.page.locator('summary', { hasText: /^\d+ done$/ }).click();
    const listing = rows.filter({ hasText: 'Link the store listing' });
    await listing.getByText('● done', { exact: false }).or(listing.getByText('ticked by')).first().waitFor();
    await listing.getByRole('button', { name: 'take it back' }).click();
    await listing.getByRole('button', { name: 'It is done' }).waitFor();
  });

  it('shows what placements earn, with releases and what is silent, all in the address', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/tally`);
    await c.page.getByText('No numbers are on record.').waitFor();
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
    await c.page.goto(`${c.service.url}/titles/tidewick/tally`);
    const figures = c.page.locator('section table.figures').first();
    await figures.getByRole('row', { name: /tide-list-footer.* 51,000/ }).waitFor();
    expect(await figures.locator('tfoot').textContent()).toContain('99.50');
    await c.page.getByText(/tide-list-footer has made no request to Cobalt Heron since/).waitFor();
    await c.page.getByText('iOS 3.2.0').first().waitFor();
    await c.page.getByLabel('Rows').selectOption('platform');
    await figures.getByRole('row', { name: /^iOS 23,000/ }).waitFor();
    await c.page.getByLabel('Days').selectOption('7d');
    await figures.getByRole('row', { name: /^iOS 2,000/ }).waitFor();
    expect(new URL(c.page.url()).search).toBe('?by=platform&days=7d');
    await c.page.reload();
    await figures.getByRole('row', { name: /^iOS 2,000/ }).waitFor();
    // The chart answers to the keyboard: the brush moves, and the days with it.
    const end = c.page.locator('.recharts-brush-traveller').first();
    await end.focus();
    for (let press = 0; press < 3; press++) await c.page.keyboard.press('ArrowLeft');
    await c.page.waitForURL(/days=\d{4}-\d{2}-\d{2}\.\.\d{4}-\d{2}-\d{2}/);
    await c.page.getByText('The days as a table').click();
    expect(await c.page.locator('.chart details tbody tr').count()).toBe(40);
    await c.page.goto(`${c.service.url}/titles/tidewick`);
    await c.page.locator('.spark').first().waitFor();
  });

  it('rehearses: verdicts by placement and variant, a session that is gone through by keyboard, all in the address', async () => {
    await demo();
    await c.page.goto(`${c.service.url}/titles/tidewick/rehearsal`);
    const cell = c.page
      .getByRole('row', { name: /^tide-list-footer/ })
      .getByRole('button')
      .first();
    await cell.filter({ hasText: 'refused' }).waitFor();
    expect(
      await c.page
        .getByRole('row', { name: /^station-open/ })
        .getByRole('button')
        .first()
        .innerText(),
    ).toContain('never requested');
    await cell.click();
    expect(c.page.url()).toContain('placement=tide-list-footer');
    const line = c.page.getByRole('application', { name: 'Timeline' });
    await line.focus();
    await c.page.keyboard.press('End');
    const time = c.page.getByLabel('Time in the session');
    const end = Number(await time.inputValue());
    await c.page.keyboard.press('ArrowLeft');
    expect(Number(await time.inputValue())).toBeLessThan(end);
    await c.page.keyboard.press('Home');
    await c.page.keyboard.press('ArrowRight');
    const now = c.page.locator('.event-now');
    expect(await now.innerText()).toMatch(/^0:\d/);
    await c.page.getByText('events as a list').click();
    expect(await c.page.locator('.event-list li').count()).toBeGreaterThan(5);
    await c.page.getByText(/exchanges? with the partner/).click();
    await c.page.locator('.exchanges summary').first().click();
    expect(await c.page.locator('.exchanges .message').first().innerText()).toContain('"tagid"');
    await c.page.getByLabel('Scenario').selectOption('impatient-user');
    await c.page.getByText('Impatient user, seed 1').waitFor();
    await c.page.getByLabel('The network').selectOption('offline');
    await c.page.waitForURL(/scenario=impatient-user.*fault=offline|fault=offline.*scenario=impatient-user/);
    await c.page.reload();
    await c.page.getByText('Impatient user, seed 1').waitFor();
    expect(await c.page.getByLabel('The network').inputValue()).toBe('offline');
  });

  it('shows networks with their reasons, and says when an address leads nowhere', async () => {
    await c.page.goto(`${c.service.url}/networks`);
    await c.page.getByRole('link', { name: 'Cobalt Heron' }).click();
    await c.page.getByText('Ads are fetched over the network.').first().waitFor();
    await c.page.goto(`${c.service.url}/nowhere/at/all`);
    await c.page.getByRole('heading', { name: 'There is no such page' }).waitFor();
    await c.page.goto(`${c.service.url}/titles/nobody`);
    await c.page.getByText('There is no title nobody.').waitFor();
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
    await c.page.goto(`${c.service.url}/titles/big`);
    await c.page.getByText('spot-0-banner').waitFor();
    expect(await c.page.locator('tbody tr').count()).toBeLessThan(120);
    await c.page.locator('.ledger-scroll').evaluate((element) => (element.scrollTop = element.scrollHeight));
    await c.page.getByText('spot-599-banner').waitFor();
  });
});
