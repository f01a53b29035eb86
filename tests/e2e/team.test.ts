import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
// @ts-expect-error -- plain JavaScript, shared with the scripts
import { chromiumFlags, chromiumPath } from '../../scripts/browser.mjs';
import { syndexa, syndexaProcess } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { androidFiles, root } from '../support/trees.js';

// A service for a team: it asks everybody for a token, the client sends it, and the console signs in with it.

let home: string;
let mine: string;
let served: ChildProcess | undefined;
beforeEach(() => {
  home = temporaryFolder();
  mine = temporaryFolder();
});
afterEach(() => {
  served?.kill('SIGKILL');
  served = undefined;
  for (const folder of [home, mine]) rmSync(folder, { recursive: true, force: true });
});

async function tokenFor(name: string, role: string): Promise<string> {
  const { code, out, err } = await syndexa(['token', 'add', name, '--role', role], home);
  expect([code, err]).toEqual([0, expect.stringContaining('It is shown only once')]);
  expect(out).toMatch(/^sxt-[\w-]{43}\n$/);
  return out.trim();
}

async function serve(...options: string[]): Promise<string> {
  served = spawn(
    process.execPath,
    [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'silent', ...options],
    { env: { ...process.env, SYNDEXA_HOME: home, SYNDEXA_URL: '' }, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  return new Promise((resolve) =>
    served!.stdout!.setEncoding('utf8').once('data', (line: string) => resolve(/http:\S+/.exec(line)![0])),
  );
}

describe('a service for a team', () => {
  it('does not start without tokens', async () => {
    for (const option of [['--listen', '0.0.0.0'], ['--require-token']]) {
      const { code, err } = await syndexa(['serve', '--port', '0', ...option], home);
      expect(code).toBe(2);
      expect(err).toContain('There are no tokens');
      expect(err).toContain('syndexa token add NAME --role');
    }
    expect((await syndexa(['serve', '--port', '0', '--listen', '203.0.113.9'], home)).code).toBe(2);
    await tokenFor('ann', 'admin');
    const elsewhere = await syndexa(['serve', '--port', '0', '--listen', '203.0.113.9'], home);
    expect([elsewhere.code, elsewhere.err]).toEqual([
      2,
      expect.stringContaining('203.0.113.9 is not an address of this machine'),
    ]);
  });

  it('narrows a data folder that others could read, and says so', async () => {
    chmodSync(home, 0o755);
    const first = await syndexa(['network', 'list'], home);
    expect([first.code, first.err]).toEqual([
      0,
      `▲ ${home} could be read by others (mode 755); its mode is 700 now.\n`,
    ]);
    expect((await syndexa(['network', 'list'], home)).err).toBe('');
  });

  it('takes commands by role, and lists and revokes tokens while it runs', async () => {
    const [editor, viewer] = [await tokenFor('ann', 'editor'), await tokenFor('build-server', 'viewer')];
    const again = await syndexa(['token', 'add', 'ann', '--role', 'viewer'], home);
    expect([again.code, again.err]).toEqual([4, expect.stringContaining('There is a token ann already.')]);
    const url = await serve('--listen', '0.0.0.0');
    const run = (args: string[], token = '') =>
      syndexa(args, mine, { env: { SYNDEXA_URL: url, SYNDEXA_TOKEN: token } });
    const none = await run(['title', 'list']);
    expect([none.code, none.err]).toEqual([2, expect.stringContaining('This service requires a token')]);
    expect((await run(['title', 'list'], 'not a token')).err).toContain('is not a token');
    const add = ['title', 'add', 'kelp', '--android', 'example.brine.kelp'];
    const refused = await run(add, viewer);
    expect([refused.code, refused.err]).toEqual([
      2,
      expect.stringContaining('build-server is a viewer, but this needs an editor.'),
    ]);
    expect((await run(add, editor)).code).toBe(0);
    for (const [path, text] of Object.entries(androidFiles())) {
      mkdirSync(join(mine, 'tree', path, '..'), { recursive: true });
      writeFileSync(join(mine, 'tree', path), text);
    }
    expect(
      (await run(['check', 'tree', '--title', 'kelp', '--any-title', '--fail-on', 'never'], editor)).code,
    ).toBe(0);
    const history = await run(['title', 'history', 'kelp', '--json'], viewer);
    expect(JSON.parse(history.out).map(({ who }: any) => who)).toContain('ann');
    const listed = await syndexa(['token', 'list'], home);
    expect(listed.out).toMatch(/ann\s+editor\s+\d{4}-\d\d-\d\d \d\d:\d\d\s+\d{4}-/);
    expect(listed.out).not.toContain('sxt-');
    expect((await syndexa(['token', 'revoke', 'ann'], home)).code).toBe(0);
    expect((await run(['title', 'list'], editor)).code).toBe(2);
    expect((await syndexa(['token', 'list'], home)).out).toContain('revoked');
    expect((await syndexa(['token', 'revoke', 'ann'], home)).code).toBe(2);
  });

  it('is reached through a proxy that speaks TLS', async () => {
    const token = await tokenFor('ann', 'viewer');
    const url = new URL(await serve('--require-token', '--host-name', 'localhost', '--behind-proxy'));
    execFileSync(
      'openssl',
      [
        ...'req -x509 -newkey rsa:2048 -nodes -days 1 -subj /CN=localhost -addext subjectAltName=DNS:localhost'.split(
          ' ',
        ),
        ...['-keyout', join(mine, 'key.pem'), '-out', join(mine, 'cert.pem')],
      ],
      { stdio: 'ignore' },
    );
    const proxy = createServer(
      { key: readFileSync(join(mine, 'key.pem')), cert: readFileSync(join(mine, 'cert.pem')) },
      (from, to) => {
        const { method, url: path, headers } = from;
        const passed = request(
          { host: url.hostname, port: url.port, method, path, headers: { ...headers, host: 'localhost' } },
          (answer) => {
            to.writeHead(answer.statusCode ?? 502, answer.headers);
            answer.pipe(to);
          },
        );
        from.pipe(passed);
      },
    );
    await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
    const address = `https://localhost:${(proxy.address() as AddressInfo).port}`;
    const env = { SYNDEXA_URL: address, SYNDEXA_TOKEN: token, NODE_EXTRA_CA_CERTS: join(mine, 'cert.pem') };
    const { code, out, err } = await syndexaProcess(['network', 'list'], mine, { env });
    expect([code, err]).toEqual([0, '']);
    expect(out).toContain('cobalt-heron');
    proxy.closeAllConnections();
    proxy.close();
  });

  it('lets the console sign in and out, and asks again when the token was revoked', async () => {
    const token = await tokenFor('ann', 'admin');
    const url = await serve('--require-token');
    const browser = await chromium.launch({
      executablePath: chromiumPath as string,
      args: chromiumFlags as string[],
    });
    try {
      const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      page.setDefaultTimeout(15_000);
      await page.goto(`${url}/networks`);
      await page.getByRole('heading', { name: 'Who are you?' }).waitFor();
      await page.getByLabel('Token').fill('sxt-wrong');
      await page.getByRole('button', { name: 'Sign in' }).click();
      await page.getByText('This token is not valid here.').waitFor();
      // What was typed stays.
      expect(await page.getByLabel('Token').inputValue()).toBe('sxt-wrong');
      await page.getByLabel('Token').fill(token);
      await page.getByRole('button', { name: 'Sign in' }).click();
      await page.getByRole('link', { name: 'Cobalt Heron' }).first().waitFor();
      expect(new URL(page.url()).pathname).toBe('/networks');
      expect(await page.evaluate(() => document.cookie)).toBe('');
      await page.reload();
      await page.getByRole('button', { name: 'Sign out ann' }).click();
      await page.getByRole('heading', { name: 'Who are you?' }).waitFor();
      await page.getByLabel('Token').fill(token);
      await page.getByRole('button', { name: 'Sign in' }).click();
      await page.getByRole('button', { name: 'Sign out ann' }).waitFor();
      await syndexa(['token', 'revoke', 'ann'], home);
      await page.getByRole('link', { name: 'Cobalt Heron' }).first().click();
      await page.getByRole('heading', { name: 'Who are you?' }).waitFor();
    } finally {
      await browser.close();
    }
  });
});
