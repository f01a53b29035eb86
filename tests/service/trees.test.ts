import { createHash } from 'node:crypto';
import { cpSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { brackwaterText, onBrackwater } from '../support/brackwater.js';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { androidFiles, filesBelow, iosFiles, root } from '../support/trees.js';

let folder: string;
beforeEach(() => {
  folder = temporaryFolder();
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const hash = (text: string) => createHash('sha256').update(text).digest('hex');
describe('trees in the service', () => {
  let service: TestService;
  const api = (path: string) => `${service.url}/api/v1${path}`;
  beforeEach(async () => {
    service = await testService({ roots: [folder] });
    await http(api('/titles'), 'POST', {
      id: 'kelp',
      title: {
        name: 'Kelp',
        editions: {
          android: { identifier: 'example.brine.kelp' },
          ios: { identifier: 'example.brine.kelp' },
        },
        networks: {
          'cobalt-heron': {
            android: { production: { app: 'CH-A-310772-QK4T8W2N' } },
            ios: { production: { app: 'CH-I-310772-M6R9V3XC' } },
          },
        },
      },
    });
  });
  afterEach(() => service.stop());

  async function send(files: Record<string, string>): Promise<string> {
    const manifest = {
      name: 'kelp',
      files: Object.entries(files).map(([path, text]) => ({ path, hash: hash(text), size: text.length })),
    };
    const { body } = await http(api('/snapshots'), 'POST', manifest);
    const blobs = Object.values(files)
      .filter((text) => body.missing.includes(hash(text)))
      .map((text) => ({ hash: hash(text), base64: Buffer.from(text).toString('base64') }));
    await http(api('/blobs'), 'POST', { blobs });
    return body.id as string;
  }

  it('are sent by hash, and only what is missing', async () => {
    const files = androidFiles();
    const id = await send(files);
    const manifest = {
      name: 'kelp',
      files: Object.entries(files).map(([path, text]) => ({ path, hash: hash(text), size: text.length })),
    };
    expect((await http(api('/snapshots'), 'POST', manifest)).body).toEqual({ id, missing: [] });
    const changed = {
      ...manifest,
      files: manifest.files.map((file, index) => (index === 0 ? { ...file, hash: hash('other') } : file)),
    };
    const other = (await http(api('/snapshots'), 'POST', changed)).body;
    expect(other.missing).toEqual([hash('other')]);
    expect((await http(api(`/snapshots/${other.id}/survey`), 'POST', {})).body).toMatchObject({
      code: 'invalid',
      detail: expect.stringContaining('was never sent'),
    });
  });

  it.each([
    '../x.kt',
    'a/../../x.kt',
    '/etc/passwd',
    'a//x.kt',
    './x.kt',
    'a\u0000b',
    'a\u001b[31m',
    'a\u202eb',
    '',
    'a\ud800',
  ])('take no file, folder or gap at %j', async (path) => {
    const file = { path, hash: hash('x'), size: 1 };
    for (const manifest of [
      { name: 'kelp', files: [file] },
      { name: 'kelp', files: [], folders: [path] },
      { name: 'kelp', files: [], skipped: [{ path, reason: 'Not read: it is odd.' }] },
    ])
      expect((await http(api('/snapshots'), 'POST', manifest)).status).toBe(422);
  });

  it.each(['/etc', '/', '..', 'relative', '', '/proc/self/cwd'])(
    'are not opened or linked at %j',
    async (path) => {
      for (const [call, body] of [
        ['/folders', { path }],
        ['/trees', { title: 'kelp', path }],
      ] as const)
        expect([403, 404, 422]).toContain((await http(api(call), 'POST', body)).status);
    },
  );

  it('that are looked into as they were earlier stay as they were last read', async () => {
    const check = (id: string) => http(api(`/snapshots/${id}/check`), 'POST', { title: 'kelp' });
    const current = async () => {
      const { editions } = (await http(api('/titles/kelp/board'))).body;
      return editions.map(({ snapshot, before }: any) => ({ snapshot, before }));
    };
    const files = { ...androidFiles(), ...iosFiles() };
    const first = await send(files);
    await check(first);
    expect(await current()).toEqual(Array(2).fill({ snapshot: first, before: null }));
    const second = await send({ ...files, 'README.gradle': '// more' });
    await check(second);
    // Asked about the earlier one, as when the two are compared.
    expect((await check(first)).body.snapshot).toBe(first);
    expect(await current()).toEqual(Array(2).fill({ snapshot: second, before: first }));
    // The tree was changed back: this is how it is now.
    await send(files);
    await check(first);
    expect(await current()).toEqual(Array(2).fill({ snapshot: first, before: second }));
  });

  it.each([
    ['survey', 'survey', {}],
    ['check', 'check', {}],
    ['wire', 'wiring', {}],
    ['unwire', 'wiring', { network: 'cobalt-heron' }],
    ['rehearsal', 'rehearsal', {}],
  ])('say how far it is when they are asked for a %s as server-sent events', async (call, answer, more) => {
    const id = await send({ ...androidFiles(), ...iosFiles() });
    const path = api(`/snapshots/${id}/${call}`);
    const asked = (title: string) => http(path, 'POST', { title, ...more }, { Accept: 'text/event-stream' });
    const { text, headers } = await asked('kelp');
    expect(headers['content-type']).toContain('text/event-stream');
    const events = text
      .trim()
      .split('\n\n')
      .filter((part) => !part.startsWith('retry: '))
      .map((part) => /^event: (\w+)\ndata: (.*)$/.exec(part)!.slice(1, 3));
    const names = events.map(([name]) => name);
    expect(names.slice(0, 3)).toEqual(['progress', 'progress', 'progress']);
    expect(JSON.parse(events[0]![1]!)).toEqual({ doing: 'native Android in the root', done: 0, total: 2 });
    // The last one is the answer, the same as without events.
    expect(new Set(names.slice(0, -1))).toEqual(new Set(['progress']));
    expect(names.at(-1)).toBe(answer);
    const plain = (await http(path, 'POST', { title: 'kelp', ...more })).body;
    const { id: _, ...told } = JSON.parse(events.at(-1)![1]!);
    const { id: __, ...same } = plain;
    expect(told).toEqual(same);
    expect((await asked('nobody')).text).toContain('event: problem');
  });

  it('find their title by identifier', async () => {
    const id = await send(androidFiles());
    expect((await http(api(`/snapshots/${id}/survey`), 'POST', {})).body.title).toBe('kelp');
    const stranger = await send(
      androidFiles({
        'app/build.gradle.kts': androidFiles()['app/build.gradle.kts']!.replace(
          /example\.brine\.kelp/g,
          'example.brine.other',
        ),
      }),
    );
    expect((await http(api(`/snapshots/${stranger}/survey`), 'POST', {})).body.title).toBe(null);
    expect((await http(api(`/snapshots/${stranger}/check`), 'POST', {})).body).toMatchObject({ title: null });
    expect((await http(api(`/snapshots/${stranger}/wire`), 'POST', {})).body).toMatchObject({
      code: 'invalid',
      fix: expect.stringContaining('--title'),
    });
  });

  it('are checked as JSON or SARIF, and the board follows', async () => {
    const id = await send({ ...androidFiles(), ...iosFiles() });
    expect((await http(api('/titles/kelp/board'))).body.good).toBe(false);
    expect((await http(api(`/snapshots/${id}/check`), 'POST', { title: 'kelp' })).body.findings).toEqual([]);
    expect((await http(api('/titles/kelp/board'))).body).toMatchObject({
      good: true,
      editions: [{ platform: 'android', tree: 'kelp' }, { platform: 'ios' }],
    });
    const sarif = await http(
      api(`/snapshots/${id}/check`),
      'POST',
      { title: 'kelp' },
      { Accept: 'application/sarif+json' },
    );
    expect(sarif.headers['content-type']).toContain('application/sarif+json');
    expect(sarif.body.version).toBe('2.1.0');
  });

  it('show lines around a place', async () => {
    const id = await send(androidFiles());
    const { body } = await http(api(`/snapshots/${id}/source?path=app/build.gradle.kts&line=1&around=1`));
    expect(body).toEqual({
      path: 'app/build.gradle.kts',
      first: 1,
      lines: ['plugins {', '    id("com.android.application")'],
    });
    expect((await http(api(`/snapshots/${id}/source?path=../secret&line=1`))).status).toBe(404);
  });

  it('are searched for IDs on record that have no fixed text', async () => {
    const tree = join(folder, 'kelp');
    const sources = join(tree, 'app/src/main/java/example/brine');
    mkdirSync(sources, { recursive: true });
    for (const [path, text] of Object.entries(androidFiles())) {
      mkdirSync(join(tree, path, '..'), { recursive: true });
      writeFileSync(join(tree, path), text);
    }
    writeFileSync(join(sources, 'Numbers.kt'), 'object Numbers { const val FOOTER = "5200101" }\n');
    writeFileSync(join(sources, 'Other.kt'), 'object Other { const val CODE = "5200999" }\n');
    await http(api('/networks'), 'POST', { text: brackwaterText });
    const { snapshot: before } = (await http(api('/folders'), 'POST', { path: tree })).body;
    await http(api('/titles'), 'POST', { id: 'slot', title: onBrackwater() });
    const { snapshot } = (await http(api('/folders'), 'POST', { path: tree })).body;
    expect(snapshot).not.toBe(before);
    const { body } = await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'slot' });
    const literals = body.findings.filter(({ rule }: { rule: string }) => rule === 'code/hard-coded-id');
    expect(literals).toEqual([
      expect.objectContaining({
        place: expect.objectContaining({ path: expect.stringMatching(/Numbers\.kt$/) }),
      }),
    ]);
  });

  it('are linked below a root only', async () => {
    const outside = temporaryFolder();
    mkdirSync(join(folder, 'kelp'));
    symlinkSync(outside, join(folder, 'sneaky'));
    const link = (path: string) => http(api('/trees'), 'POST', { title: 'kelp', path });
    expect((await link(outside)).body).toMatchObject({ code: 'forbidden', status: 403 });
    expect((await link(join(folder, 'sneaky'))).status).toBe(403);
    expect((await link(join(folder, 'kelp/../..'))).status).toBe(403);
    expect((await link(join(folder, 'nowhere'))).status).toBe(404);
    expect((await link(join(folder, 'kelp'))).status).toBe(201);
    rmSync(outside, { recursive: true });
  });

  it('are wired in place, and refused when a file changed since', async () => {
    const at = join(folder, 'tidewick');
    cpSync(join(root, 'demo/trees/tidewick'), at, { recursive: true });
    await http(api('/roster/import'), 'POST', {
      document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
    });
    const tree = (await http(api('/trees'), 'POST', { title: 'tidewick', path: at })).body;
    const wiring = (await http(api(`/snapshots/${tree.snapshot}/wire`), 'POST', { title: 'tidewick' })).body;
    writeFileSync(
      join(at, 'ios/Tidewick/Info.plist'),
      `${readFileSync(join(at, 'ios/Tidewick/Info.plist'), 'utf8')}\n`,
    );
    const before = filesBelow(at);
    const refused = await http(api(`/trees/${tree.id}/apply`), 'POST', { wiring: wiring.id });
    expect(refused.body).toMatchObject({
      code: 'file-changed',
      status: 409,
      detail: expect.stringContaining('Info.plist'),
    });
    expect(filesBelow(at)).toEqual(before);
    const again = (await http(api(`/trees/${tree.id}/read`), 'POST', {})).body;
    const fresh = (await http(api(`/snapshots/${again.snapshot}/wire`), 'POST', { title: 'tidewick' })).body;
    const applied = (await http(api(`/trees/${tree.id}/apply`), 'POST', { wiring: fresh.id })).body;
    expect(applied.written).toEqual(fresh.edits.map(({ path }: { path: string }) => path));
    expect(
      (await http(api(`/snapshots/${applied.snapshot}/wire`), 'POST', { title: 'tidewick' })).body.edits,
    ).toEqual([]);
    expect((await http(api(`/trees/${tree.id}/apply`), 'POST', { wiring: 'nothing' })).status).toBe(404);
  });

  it('are taken back, unless a file changed since', async () => {
    const at = join(folder, 'tidewick');
    cpSync(join(root, 'demo/trees/tidewick'), at, { recursive: true });
    await http(api('/roster/import'), 'POST', {
      document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
    });
    const before = filesBelow(at);
    const tree = (await http(api('/trees'), 'POST', { title: 'tidewick', path: at })).body;
    const undo = () => http(api(`/trees/${tree.id}/undo`), 'POST', {});
    const writes = async () => (await http(api(`/trees/${tree.id}/writes`))).body;
    expect(await writes()).toEqual([]);
    expect((await undo()).body).toMatchObject({ status: 404, code: 'not-found' });
    const groups = ['android/cobalt-heron/app-id'];
    const wiring = (
      await http(api(`/snapshots/${tree.snapshot}/wire`), 'POST', { title: 'tidewick', choice: { groups } })
    ).body;
    expect(wiring.groups.map(({ id }: { id: string }) => id)).toEqual(groups);
    await http(api(`/trees/${tree.id}/apply`), 'POST', { wiring: wiring.id });
    expect(await writes()).toMatchObject([
      {
        title: 'tidewick',
        what: 'wire',
        files: expect.arrayContaining([expect.objectContaining({ change: 'new' })]),
      },
    ]);
    const now = filesBelow(at);
    const changed = 'android/app/src/release/res/values/syndexa.xml';
    writeFileSync(join(at, changed), 'mine');
    expect((await undo()).body).toMatchObject({
      status: 409,
      code: 'file-changed',
      detail: expect.stringContaining(changed),
    });
    writeFileSync(join(at, changed), now[changed]!);
    expect((await undo()).body).toMatchObject({ undone: { what: 'wire' } });
    expect(filesBelow(at)).toEqual(before);
    expect(await writes()).toEqual([]);
  });

  it('are rid of a network, and the record of writes says so', async () => {
    const at = join(folder, 'tidewick');
    cpSync(join(root, 'demo/trees/tidewick'), at, { recursive: true });
    await http(api('/roster/import'), 'POST', {
      document: readFileSync(join(root, 'demo/roster.yaml'), 'utf8'),
    });
    const tree = (await http(api('/trees'), 'POST', { title: 'tidewick', path: at })).body;
    const question = { title: 'tidewick', network: 'cobalt-heron' };
    const wiring = (await http(api(`/snapshots/${tree.snapshot}/unwire`), 'POST', question)).body;
    expect(wiring).toMatchObject({ network: 'cobalt-heron' });
    // What a person wrote is named, and left to a person.
    expect(wiring.byHand.map(({ where }: { where: string }) => where)).toContainEqual(
      expect.stringContaining('FooterBanner.kt:'),
    );
    await http(api(`/trees/${tree.id}/apply`), 'POST', { wiring: wiring.id });
    expect(filesBelow(at)['ios/Podfile']?.toString()).not.toContain('CobaltHeronAds');
    expect((await http(api(`/trees/${tree.id}/writes`))).body).toMatchObject([
      { what: 'unwire cobalt-heron' },
    ]);
    const nobody = { title: 'tidewick', network: 'nobody' };
    expect((await http(api(`/snapshots/${tree.snapshot}/unwire`), 'POST', nobody)).status).toBe(404);
  });

  it('tell those who listen what changed', async () => {
    const id = await send(androidFiles());
    const stream = http(api('/events'));
    await new Promise((resolve) => setTimeout(resolve, 100));
    await http(api(`/snapshots/${id}/check`), 'POST', { title: 'kelp' });
    await service.close();
    const { text } = await stream;
    expect(text).toContain('event: reading\ndata: {"kind":"reading","title":"kelp"}');
    service = await testService({ home: service.home });
  });
});
