import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { filesBelow, root } from '../support/trees.js';
import { inline, tag, wrapper } from '../support/vast.js';

// What the service asks of other machines, and what it reads for somebody who has no client at hand.

let service: TestService;
let site: Server;
let asked = 0;
const trees = temporaryFolder();
const api = (path: string) => `${service.url}/api/v1${path}`;
const siteUrl = () => `http://127.0.0.1:${(site.address() as AddressInfo).port}`;

beforeAll(async () => {
  service = await testService({ roots: [trees] });
  site = createServer((_, response) => {
    asked++;
    response.end('cobaltheron.example, 1, DIRECT');
  });
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  site.close();
  await service.stop();
  rmSync(trees, { recursive: true, force: true });
});

describe('app-ads.txt at the site', () => {
  it('needs to be told where, while the record names no publisher', async () => {
    const { status, body } = await http(api('/app-ads/verify'), 'POST', {});
    expect([status, body.code]).toEqual([422, 'invalid']);
    expect(body.detail).toContain('has no publisher');
  });

  it.each(['http://127.0.0.1:PORT/app-ads.txt', 'http://[::ffff:127.0.0.1]:PORT/', 'http://localhost:PORT/'])(
    'is never fetched from this machine: %s',
    async (address) => {
      const url = address.replace('PORT', String((site.address() as AddressInfo).port));
      const { status, body } = await http(api('/app-ads/verify'), 'POST', { url });
      expect([status, body.code]).toEqual([502, 'site']);
      expect(body.detail).toContain('private address');
      expect(asked).toBe(0);
    },
  );

  it.each(['ftp://saltmarsh.example/app-ads.txt', 'file:///etc/passwd', 'app-ads.txt'])(
    'is at a web address only: %s',
    async (url) => {
      const { status, body } = await http(api('/app-ads/verify'), 'POST', { url });
      expect([status, body.code]).toEqual([422, 'invalid']);
    },
  );
});

describe('a tag that the service follows', () => {
  it('is read from its text, and what it leads to is asked for at public addresses only', async () => {
    const alone = await http(api('/tags/follow'), 'POST', { start: 'pasted', text: tag(inline({})) });
    expect(alone.body.report.ads).toHaveLength(1);
    expect(alone.body.report.documents).toHaveLength(1);
    const text = tag(wrapper(`${siteUrl()}/next`));
    const { body } = await http(api('/tags/follow'), 'POST', { start: 'pasted', text });
    expect(body.report.documents.map((one: { failed: string | null }) => one.failed)).toEqual([
      null,
      'unreachable',
    ]);
    expect(asked).toBe(0);
    const played = await http(api('/tags/play'), 'POST', {
      ...alone.body.question,
      actions: [{ at: 1000, do: 'mute' }],
    });
    expect(played.body.lines.map((line: { name: string }) => line.name)).toContain('mute');
  });

  it('needs an address or a text, and a partner that runs when one is to be asked', async () => {
    const nowhere = await http(api('/tags/follow'), 'POST', { start: 'tag.xml' });
    expect([nowhere.status, nowhere.body.detail]).toEqual([422, expect.stringContaining('not an address')]);
    const partner = await http(api('/tags/follow'), 'POST', {
      start: 'https://ads.example/tag',
      partner: true,
    });
    expect([partner.status, partner.body.fix]).toEqual([422, expect.stringContaining('partner start')]);
  });
});

describe('a folder that is read for a profile', () => {
  it('has the files too that hold its texts, and no others', async () => {
    const at = join(trees, 'odd');
    mkdirSync(join(at, 'notes'), { recursive: true });
    writeFileSync(join(at, 'build.gradle.kts'), 'plugins { id("com.android.application") }\n');
    writeFileSync(join(at, 'notes', 'ads.kt'), 'val unit = "pbg-4411-banner01"\n');
    writeFileSync(join(at, 'notes', 'other.kt'), 'val unit = "nothing"\n');
    const read = async (needles: string[]) =>
      (await http(api('/folders'), 'POST', { path: at, needles })).body.files;
    const plain = await read([]);
    expect(await read(['pbg-4411-'])).toBe(plain + 1);
  });
});

describe('two readings of a linked tree', () => {
  it('know each other while the tree differs', async () => {
    const at = join(trees, 'tidewick');
    for (const [path, bytes] of Object.entries(filesBelow(join(root, 'demo/trees/tidewick')))) {
      mkdirSync(join(at, path, '..'), { recursive: true });
      writeFileSync(join(at, path), bytes);
    }
    const editions = { android: { identifier: 'example.saltmarsh.tidewick' } };
    await http(api('/titles'), 'POST', { id: 'tidewick', title: { name: 'Tidewick', editions } });
    const { body: tree } = await http(api('/trees'), 'POST', { title: 'tidewick', path: at });
    const edition = async () => (await http(api('/titles/tidewick/board'))).body.editions[0];
    const first = await edition();
    expect(first).toMatchObject({ snapshot: tree.snapshot, before: null });
    await http(api(`/trees/${tree.id}/read`), 'POST', {});
    expect((await edition()).before).toBeNull();
    writeFileSync(join(at, 'android/app/src/debug/AndroidManifest.xml'), '<manifest />\n');
    await expect
      .poll(async () => {
        await http(api(`/trees/${tree.id}/read`), 'POST', {});
        return (await edition()).before;
      })
      .toBe(first.snapshot);
  });
});
