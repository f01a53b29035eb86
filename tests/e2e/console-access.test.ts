import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import { describe, expect, it } from 'vitest';
import { pages } from '../../src/api/pages.js';
import { consoleTest, demoIn } from '../support/console.js';
import { http } from '../support/service.js';

// Every page for everybody: what a screen reader is told, what a narrow window shows, what the keyboard reaches.

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const c = consoleTest();
const api = (path: string) => `${c.service.url}/api/v1${path}`;
const goto = (path: string) => c.page.goto(c.service.url + path);
const palette = () => c.page.getByRole('combobox', { name: /Find an ID/ });
const heading = () => c.page.locator('h1').first();

/** Every page, with what its parameters are in the demo. */
const addresses = Object.values(pages).map((page) =>
  page
    .replace(':title', 'tidewick')
    .replace(':platform', 'android')
    .replace(':network', 'cobalt-heron')
    .replace(':id', 'CH-U-204418-P4N7C2VJ')
    .replace(':group/:name', 'tally/silent'),
);
addresses.push(
  '/titles/tidewick/android?view=findings',
  '/titles/tidewick/android?view=edits',
  '/titles/plumebook/ios',
  '/no-such-page',
);

/** What is wrong with the page as it is, one line each. @param rules only these; all when left out */
async function faults(rules?: string[]): Promise<string[]> {
  // Not as a script of the page: its policy lets none in.
  await c.page.evaluate(axeSource);
  return c.page.evaluate(async (only) => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(
      document,
      only ? { runOnly: only } : {},
    );
    return violations.flatMap(({ id, nodes }) => nodes.map(({ target }) => `${id}: ${target.join(' ')}`));
  }, rules);
}

const theme = (name: string) =>
  c.page.evaluate((value) => (document.documentElement.dataset.bsTheme = value), name);

async function settled(): Promise<void> {
  await heading().waitFor();
  await c.page.waitForLoadState('networkidle').catch(() => undefined);
}

describe('every page', () => {
  it('has no fault that axe finds, fits, and has a name of its own, wide and narrow, light and dark', async () => {
    await demoIn(c);
    // Colours change at once, not bit by bit.
    await c.page.emulateMedia({ reducedMotion: 'reduce' });
    const found: string[] = [];
    const names = new Map<string, string>();
    for (const address of addresses) {
      await c.page.setViewportSize({ width: 1280, height: 800 });
      await goto(address);
      await settled();
      names.set(address.split('?')[0] ?? '', await c.page.title());
      for (const [width, height] of [
        [1280, 800],
        [390, 844],
      ] as const) {
        await c.page.setViewportSize({ width, height });
        const at = `${address} at ${width}`;
        found.push(...(await faults()).map((fault) => `${at}, ${fault}`));
        // Dark is the same page in other colours.
        await theme('dark');
        found.push(...(await faults(['color-contrast'])).map((fault) => `${at}, dark, ${fault}`));
        await theme('light');
        const wide = await c.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        if (wide > 0) found.push(`${at} is ${wide} pixels too wide`);
      }
    }
    expect(found).toEqual([]);
    for (const name of names.values()) expect(name).toMatch(/^.{8,} · Syndexa$/);
    expect(new Set(names.values()).size).toBe(names.size);
  });

  it('moves the focus to its heading when somebody comes from another one', async () => {
    await demoIn(c);
    await goto('/');
    await settled();
    await c.page.getByRole('link', { name: 'Networks' }).first().press('Enter');
    await c.page.waitForURL(/\/networks$/);
    await expect.poll(() => c.page.evaluate(() => document.activeElement?.tagName)).toBe('H1');
    await c.page.keyboard.press('Shift+Tab');
    expect(await c.page.evaluate(() => document.activeElement?.tagName)).not.toBe('H1');
  });
});

describe('the portfolio', () => {
  it('finds, filters, groups and sorts, all in the address', async () => {
    await demoIn(c);
    await goto('/');
    await c.page.getByRole('rowheader', { name: /Tidewick/ }).waitFor();
    expect(await c.page.getByRole('rowheader').count()).toBe(6);
    await c.page.getByLabel('Find a title').fill('kiln');
    await expect.poll(() => c.page.getByRole('rowheader').count()).toBe(2);
    await c.page.getByRole('button', { name: /needs work/ }).click();
    await c.page.getByText('No title matches').waitFor();
    await c.page.getByRole('button', { name: 'Show all titles' }).click();
    await expect.poll(() => c.page.getByRole('rowheader').count()).toBe(6);
    await goto('/?group=state&sort=name');
    await c.page.getByRole('rowheader', { name: 'needs work · 1' }).waitFor();
    const names = await c.page.locator('tbody th[scope=row] a').allTextContents();
    expect(names[0]).toBe('Tidewick');
    expect(names.slice(1)).toEqual([...names.slice(1)].sort());
    await c.page.reload();
    await c.page.getByRole('rowheader', { name: 'needs work · 1' }).waitFor();
    await c.page.getByRole('link', { name: 'Tidewick', exact: true }).click();
    await c.page.getByRole('heading', { name: /each build of Tidewick/ }).waitFor();
    await c.page.goBack();
    expect(new URL(c.page.url()).search).toBe('?group=state&sort=name');
  });

  it('draws 2,000 titles row by row, with names of any kind', async () => {
    const odd = ['مد وجزر'.repeat(10), '🌊'.repeat(40), 'x'.repeat(100)];
    const titles = Object.fromEntries(
      Array.from({ length: 2_000 }, (_, at) => [
        `title-${at}`,
        { name: odd[at] ?? `Title ${at}`, editions: { android: { identifier: `example.brine.t${at}` } } },
      ]),
    );
    await http(api('/roster/import'), 'POST', { document: JSON.stringify({ syndexa: 1, titles }) });
    await c.page.setViewportSize({ width: 390, height: 844 });
    await goto('/?sort=record');
    await c.page.getByText('2,000 titles').waitFor();
    expect(await c.page.locator('tbody tr').count()).toBeLessThan(80);
    expect(
      await c.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
    ).toBeLessThanOrEqual(0);
    await c.page.getByLabel('Find a title').fill('Title 1999');
    await c.page.getByRole('link', { name: 'Title 1999', exact: true }).waitFor();
  });
});

describe('a board on paper', () => {
  it('has every row, and nothing to press', async () => {
    await demoIn(c);
    const placements = Object.fromEntries(
      Array.from({ length: 120 }, (_, at) => [
        `place-${at}`,
        { format: 'banner', units: { 'cobalt-heron': {} } },
      ]),
    );
    const title = {
      name: 'Long',
      editions: { android: { identifier: 'example.brine.long' } },
      placements,
    };
    await http(api('/titles'), 'POST', { id: 'long', title });
    await goto('/titles/long');
    await c.page.getByRole('rowheader', { name: 'place-0' }).waitFor();
    expect(await c.page.locator('tbody th').count()).toBeLessThan(100);
    await c.page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
    await c.page.emulateMedia({ media: 'print' });
    expect(await c.page.locator('tbody th').count()).toBe(121);
    expect(await c.page.locator('.masthead').isVisible()).toBe(false);
    expect(await c.page.getByLabel('Find a placement or an ID').isVisible()).toBe(false);
    await c.page.emulateMedia({ media: 'screen' });
    await c.page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
    await expect.poll(() => c.page.locator('tbody th').count()).toBeLessThan(100);
  });
});

describe('the search', () => {
  it('leads a pasted ID to all that is known of it', async () => {
    await demoIn(c);
    await goto('/networks');
    await settled();
    await c.page.keyboard.press('/');
    await palette().fill('204418-P4');
    await c.page.getByRole('option', { name: /CH-U-204418-P4N7C2VJ/ }).waitFor();
    expect(await faults()).toEqual([]);
    await c.page.keyboard.press('Enter');
    await c.page.getByRole('heading', { name: 'What is CH-U-204418-P4N7C2VJ?' }).waitFor();
    await c.page.getByRole('link', { name: 'tide-list-footer' }).waitFor();
    expect(await palette().count()).toBe(0);
  });

  it('says what an ID would be that is in no record, and reaches pages, rules and titles', async () => {
    await demoIn(c);
    await goto('/titles/tidewick');
    await settled();
    const look = async (text: string, wanted: RegExp, at: RegExp) => {
      await c.page.keyboard.press('Control+k');
      await palette().pressSequentially(text);
      // While somebody types, more may match; the nearest is always above the others.
      await c.page.getByRole('option', { name: wanted }).first().click();
      await c.page.waitForURL(at);
    };
    await look('CH-U-310772-QQQQ9999', /unit ID of Cobalt Heron, in no record/, /\/ids\//);
    await look('tally/sil', /tally\/silent/, /\/rules\/tally\/silent$/);
    await look('plumeb', /Plumebook/, /\/titles\/plumebook$/);
    await look('adopt', /Adopt trees/, /\/titles\/adopt$/);
    await c.page.keyboard.press('Control+k');
    await c.page.keyboard.press('Escape');
    await expect.poll(() => palette().count()).toBe(0);
  });
});

describe('a service that goes away', () => {
  it('is said to be away, comes back by itself, and what changed is shown', async () => {
    c.expected = /status of 4|ERR_|Failed to load|net::/;
    await demoIn(c);
    await goto('/titles/tidewick/record');
    await settled();
    const port = Number(new URL(c.service.url).port);
    const { home } = c.service;
    await c.service.close();
    await c.page.getByText('The service has not responded since').waitFor();
    const { startService } = await import('../../src/service/boot.js');
    const again = await startService({ home, port, version: '0.0.0-test' });
    const { body } = await http(api('/titles/tidewick'));
    await http(
      api('/titles/tidewick'),
      'PATCH',
      { name: 'Tidewick Five' },
      { 'If-Match': `"v${body.version}"` },
    );
    await c.page.getByText('The service is back').waitFor({ timeout: 30_000 });
    await c.page.getByRole('heading', { name: /Tidewick Five/ }).waitFor();
    await again.close();
  });
});
