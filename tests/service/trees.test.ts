import { createHash } from 'node:crypto';
import {
  chmodSync,
  cpSync,
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { applyToTree, FileChangedError, recoverTree } from '../../src/service/trees/apply.js';
import { collectTree as collect } from '../../src/service/trees/collect.js';
import { KnownFiles } from '../../src/service/trees/known-files.js';
import { nativeWalk } from '../../src/service/trees/native-walk.js';
import type { FileEdit } from '../../src/core/wiring/model.js';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';
import { androidFiles, filesBelow, iosFiles, root } from '../support/trees.js';

let folder: string;
beforeEach(() => {
  folder = temporaryFolder();
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

function write(files: Record<string, string | Uint8Array>, at = folder): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(at, path, '..'), { recursive: true });
    writeFileSync(join(at, path), content);
  }
}

const plan = {
  rules: [
    { name: 'AndroidManifest.xml' },
    { suffix: '.xml', parent: 'values' },
    { suffix: '.kt', needle: true },
  ],
  folders: ['src/main/kotlin'],
  needles: ['CH-U-', '(mrl'],
  skipFolders: ['node_modules', 'build'],
  skipBeside: [{ folder: 'Library', beside: 'ProjectSettings' }],
  maxFileBytes: 1_000_000,
};

const walks = [
  ['in machine code', nativeWalk()],
  ['in this language', null],
] as const;

it('has its walk in machine code built', () => expect(nativeWalk()).not.toBeNull());

describe.each(walks)('collecting a tree %s', (_, walk) => {
  const collectTree = (root: string, asked: typeof plan, known?: KnownFiles) =>
    collect(root, asked, { known, walk });

  it('takes what matters, and says which folders are there', async () => {
    write({
      'a/AndroidManifest.xml': 'm',
      'a/res/values/x.xml': 'x',
      'a/res/values-de/y.xml': 'y',
      'a/res/valuesque/z.xml': 'z',
      'a/res/layout/l.xml': 'l',
      'a/src/main/kotlin/A.kt': '"CH-U-1"',
      'a/src/main/kotlin/B.kt': 'nothing',
      'a/src/main/kotlin/C.kt': '(mrl',
      'build/AndroidManifest.xml': 'skipped',
    });
    const { files, folders, skipped, seen } = await collectTree(folder, plan);
    expect(files.map(({ path }) => path)).toEqual([
      'a/AndroidManifest.xml',
      'a/res/values-de/y.xml',
      'a/res/values/x.xml',
      'a/src/main/kotlin/A.kt',
      'a/src/main/kotlin/C.kt',
    ]);
    expect(folders).toEqual(['a/src/main/kotlin']);
    expect(skipped).toEqual([]);
    expect(seen).toBe(8);
    expect(files[0]?.hash).toBe(createHash('sha256').update('m').digest('hex'));
  });

  it('does not follow links out of the tree, or in circles', async () => {
    const outside = temporaryFolder();
    write({ 'AndroidManifest.xml': 'secret' }, outside);
    write({ 'real/AndroidManifest.xml': 'm' });
    mkdirSync(join(folder, 'out'));
    symlinkSync(join(outside, 'AndroidManifest.xml'), join(folder, 'out/AndroidManifest.xml'));
    symlinkSync(outside, join(folder, 'folder'));
    mkdirSync(join(folder, 'in'));
    symlinkSync('../real/AndroidManifest.xml', join(folder, 'in/AndroidManifest.xml'));
    mkdirSync(join(folder, 'loop'));
    symlinkSync('AndroidManifest.xml', join(folder, 'loop/AndroidManifest.xml'));
    const { files, skipped } = await collectTree(folder, plan);
    expect(files.map(({ path }) => path)).toEqual(['in/AndroidManifest.xml', 'real/AndroidManifest.xml']);
    expect(skipped).toEqual([
      { path: 'loop/AndroidManifest.xml', reason: 'Not read: it is a symbolic link that leads nowhere.' },
      {
        path: 'out/AndroidManifest.xml',
        reason: 'Not read: it is a symbolic link that leads out of the tree.',
      },
    ]);
    rmSync(outside, { recursive: true });
  });

  describe('with what was known before', () => {
    const lists = temporaryFolder();
    const old = new Date(Date.now() - 60_000);
    /** What is found, and how many files had to be read for it. */
    const look = async (asked = plan) => {
      const known = KnownFiles.open(lists, folder, asked);
      const { files, read } = await collectTree(folder, asked, known);
      known.save(read);
      return { files: files.map(({ path, hash }) => ({ path, hash })), read };
    };
    /** Long enough ago to be trusted: files get their entry time when they are written, so the list's clock is put on. */
    const later = async <T>(run: () => Promise<T>): Promise<T> => {
      vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 60_000 });
      try {
        return await run();
      } finally {
        vi.useRealTimers();
      }
    };
    const tree = {
      'a/AndroidManifest.xml': 'm',
      'a/src/main/kotlin/A.kt': '"CH-U-1"',
      'a/src/main/kotlin/B.kt': 'nothing',
    };

    it('reads nothing again that did not change, and finds the same', async () => {
      write(tree);
      const first = await later(() => look());
      expect(first.read).toBe(3);
      const second = await later(() => look());
      expect(second).toEqual({ files: first.files, read: 0 });
    });

    it('reads what was saved, moved over or made, whatever its times say', async () => {
      write(tree);
      await later(() => look());
      write({ 'a/src/main/kotlin/B.kt': '"CH-U-1"', 'a/src/main/kotlin/new.kt': '"CH-U-2"' });
      utimesSync(join(folder, 'a/src/main/kotlin/B.kt'), old, old);
      write({ 'a/other.xml': 'n' });
      renameSync(join(folder, 'a/other.xml'), join(folder, 'a/AndroidManifest.xml'));
      const { files, read } = await later(() => look());
      expect(read).toBe(3);
      const fresh = await collectTree(folder, plan);
      expect(files).toEqual(fresh.files.map(({ path, hash }) => ({ path, hash })));
    });

    it('trusts no file that was written a moment ago, no other plan, and no damaged list', async () => {
      write(tree);
      await look();
      expect((await look()).read).toBe(3);
      await later(() => look());
      expect((await later(() => look({ ...plan, needles: ['other'] }))).read).toBe(3);
      for (const name of readdirSync(lists)) writeFileSync(join(lists, name), 'no list at all');
      expect((await later(() => look())).read).toBe(3);
      for (const name of readdirSync(lists))
        truncateSync(join(lists, name), statSync(join(lists, name)).size - 5);
      expect((await later(() => look())).read).toBe(3);
    });
  });

  it('leaves large files out and says so, without reading them', async () => {
    write({ 'res/values/huge.xml': '' });
    truncateSync(join(folder, 'res/values/huge.xml'), 50 * 1024 * 1024);
    const before = process.memoryUsage().arrayBuffers;
    const { files, skipped } = await collectTree(folder, plan);
    expect(files).toEqual([]);
    expect(skipped).toEqual([
      {
        path: 'res/values/huge.xml',
        reason: 'Not read: it has 52428800 bytes, and files over 1000000 are left out.',
      },
    ]);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(10_000_000);
  });

  it('refuses what is no folder', async () => {
    await expect(collectTree(join(folder, 'nowhere'), plan)).rejects.toThrow(/it is not there/);
    write({ file: 'x' });
    await expect(collectTree(join(folder, 'file'), plan)).rejects.toThrow(/is not a folder/);
  });
});

const hash = (text: string) => createHash('sha256').update(text).digest('hex');
const edit = (path: string, before: string | null, text: string): FileEdit => ({
  path,
  rules: [],
  networks: [],
  platforms: ['android'],
  before: before === null ? null : hash(before),
  edits: before === null ? [] : [{ start: 0, end: 0, text }],
  content: before === null ? text : null,
  source: null,
  remove: false,
  adds: [],
});

describe('writing edits', () => {
  it('keeps the mode of a file, and makes new folders', async () => {
    write({ 'a.txt': 'one' });
    chmodSync(join(folder, 'a.txt'), 0o755);
    expect(
      await applyToTree(folder, [edit('a.txt', 'one', 'x'), edit('new/deep/b.txt', null, 'two')]),
    ).toEqual(['a.txt', 'new/deep/b.txt']);
    expect(filesBelow(folder)).toMatchObject({
      'a.txt': Buffer.from('xone'),
      'new/deep/b.txt': Buffer.from('two'),
    });
    expect(statSync(join(folder, 'a.txt')).mode & 0o777).toBe(0o755);
    expect(Object.keys(filesBelow(folder))).toEqual(['a.txt', 'new/deep/b.txt']);
  });

  it('refuses all of them when one file changed, and leaves nothing behind', async () => {
    write({ 'a.txt': 'one', 'b.txt': 'changed' });
    await expect(applyToTree(folder, [edit('a.txt', 'one', 'x'), edit('b.txt', 'two', 'y')])).rejects.toThrow(
      FileChangedError,
    );
    await expect(applyToTree(folder, [edit('a.txt', 'one', 'x'), edit('b.txt', null, 'y')])).rejects.toThrow(
      /b\.txt/,
    );
    expect(filesBelow(folder)).toEqual({ 'a.txt': Buffer.from('one'), 'b.txt': Buffer.from('changed') });
  });

  it('never writes outside the tree', async () => {
    const outside = temporaryFolder();
    symlinkSync(outside, join(folder, 'link'));
    await expect(applyToTree(folder, [edit('link/x.txt', null, 'x')])).rejects.toThrow(/outside the tree/);
    await expect(applyToTree(folder, [edit('../x.txt', null, 'x')])).rejects.toThrow(/outside the tree/);
    write({ 'real.txt': 'one' });
    symlinkSync('real.txt', join(folder, 'soft.txt'));
    await expect(applyToTree(folder, [edit('soft.txt', 'one', 'x')])).rejects.toThrow(/symbolic link/);
    expect(filesBelow(outside)).toEqual({});
    rmSync(outside, { recursive: true });
  });

  it('takes back what was done when a rename fails half way', async () => {
    write({ 'a.txt': 'one', 'z/file.txt': 'two' });
    // A folder where the new file should go makes the second rename fail after the first was done.
    const edits = [
      edit('a.txt', 'one', 'x'),
      edit('z/file.txt', 'two', 'y'),
      edit('blocked/new.txt', null, 'n'),
    ];
    write({ blocked: 'a file where a folder must be' });
    await expect(applyToTree(folder, edits)).rejects.toThrow();
    expect(filesBelow(folder)).toEqual({
      'a.txt': Buffer.from('one'),
      'z/file.txt': Buffer.from('two'),
      blocked: Buffer.from('a file where a folder must be'),
    });
  });

  it('does not disturb a hard link elsewhere', async () => {
    write({ 'a.txt': 'one' });
    linkSync(join(folder, 'a.txt'), join(folder, 'twin.txt'));
    await applyToTree(folder, [edit('a.txt', 'one', 'x')]);
    expect(readFileSync(join(folder, 'twin.txt'), 'utf8')).toBe('one');
  });

  it('two at once: one wins, the others are refused, the tree is whole', async () => {
    write({ 'a.txt': 'one', 'b.txt': 'two' });
    const writes = await Promise.allSettled(
      ['1', '2', '3'].map((text) =>
        applyToTree(folder, [edit('a.txt', 'one', text), edit('b.txt', 'two', text)]),
      ),
    );
    expect(writes.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    for (const result of writes)
      if (result.status === 'rejected') expect(result.reason).toBeInstanceOf(FileChangedError);
    const { 'a.txt': a, 'b.txt': b } = filesBelow(folder);
    expect(a?.toString().slice(0, 1)).toBe(b?.toString().slice(0, 1));
  });

  it('finds nothing to recover in a tree at rest', async () => {
    write({ 'a.txt': 'one' });
    expect(await recoverTree(folder)).toBeUndefined();
    expect(await recoverTree(join(folder, 'nowhere'))).toBeUndefined();
  });
});

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

  it('are surveyed with progress as server-sent events', async () => {
    const id = await send({ ...androidFiles(), ...iosFiles() });
    const { text, headers } = await http(
      api(`/snapshots/${id}/survey`),
      'POST',
      { title: 'kelp' },
      { Accept: 'text/event-stream' },
    );
    expect(headers['content-type']).toContain('text/event-stream');
    const events = text
      .trim()
      .split('\n\n')
      .map((part) => /^event: (\w+)\ndata: (.*)$/.exec(part)!.slice(1, 3));
    expect(events.map(([name]) => name)).toEqual(['progress', 'progress', 'progress', 'survey']);
    expect(JSON.parse(events[0]![1]!)).toEqual({ doing: 'native Android in the root', done: 0, total: 2 });
    expect(JSON.parse(events.at(-1)![1]!).editions).toHaveLength(2);
    const wrong = await http(
      api(`/snapshots/${id}/survey`),
      'POST',
      { title: 'nobody' },
      { Accept: 'text/event-stream' },
    );
    expect(wrong.text).toContain('event: problem');
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
