import { cpSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect } from 'vitest';
// @ts-expect-error -- plain JavaScript, shared with the scripts
import { chromiumFlags, chromiumPath } from '../../scripts/browser.mjs';
import { http, temporaryFolder, testService, type TestService } from './service.js';
import { root } from './trees.js';

/** A page of the console in a browser, with a service of its own for each test. */
export interface ConsoleTest {
  page: Page;
  service: TestService;
  /** A folder below which trees may be linked. */
  trees: string;
  /** What the browser complains of. A message that matches is none. */
  expected: RegExp;
}

/** Starts a browser for a file of tests, and a service and a page for each of them. No test leaves an error behind. */
export function consoleTest(): ConsoleTest {
  let browser: Browser;
  let problems: string[] = [];
  const test = {} as ConsoleTest;
  beforeAll(async () => {
    browser = await chromium.launch({
      executablePath: chromiumPath as string,
      args: chromiumFlags as string[],
    });
  });
  afterAll(() => browser.close());
  beforeEach(async () => {
    test.trees = temporaryFolder();
    test.service = await testService({ roots: [test.trees] });
    // A refused write is shown on the page; the browser logs the status of every such answer by itself.
    test.expected = /status of 4/;
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    test.page = await context.newPage();
    test.page.setDefaultTimeout(15_000);
    problems = [];
    test.page.on('pageerror', (error) => problems.push(error.message));
    test.page.on('console', (message) => {
      if (message.type() === 'error' && !test.expected.test(message.text())) problems.push(message.text());
    });
  });
  afterEach(async () => {
    await test.page.context().close();
    await test.service.stop();
    rmSync(test.trees, { recursive: true, force: true });
    expect(problems).toEqual([]);
  });
  return test;
}

/** Takes the demo's record in, and links a copy of one tree; returns where that is. */
export async function demoIn({ trees, service }: ConsoleTest): Promise<string> {
  const at = join(trees, 'tidewick');
  cpSync(join(root, 'demo/trees/tidewick'), at, { recursive: true });
  await http(`${service.url}/api/v1/roster/import`, 'POST', {
    document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
  });
  await http(`${service.url}/api/v1/trees`, 'POST', { title: 'tidewick', path: at });
  return at;
}
