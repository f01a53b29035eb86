import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { collectTree } from '../../src/disk/collect.js';
import { KnownFiles } from '../../src/disk/known-files.js';
import { temporaryFolder } from '../support/service.js';

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
  maxFiles: 1_000,
  maxTreeBytes: 10_000_000,
};

describe('collecting a tree', () => {
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
      const { files, read } = await collectTree(folder, asked, { known });
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
    await expect(collectTree(join(folder, 'nowhere'), plan)).rejects.toThrow(/it does not exist/);
    write({ file: 'x' });
    await expect(collectTree(join(folder, 'file'), plan)).rejects.toThrow(/is not a folder/);
  });
});

describe('a walk', () => {
  const names = fc.constantFrom('AndroidManifest.xml', 'a.kt', 'ö.kt', 'v.xml', '.kt', 'other.bin');
  const folders = fc.constantFrom(
    '',
    'values-de',
    'values',
    'valuesque',
    'src/main/kotlin',
    'build',
    'a/b/c',
  );
  const file = fc.record({
    folder: fc.array(folders, { maxLength: 3 }),
    name: names,
    content: fc.constantFrom('', 'CH-U-1', 'x(mrly', 'CH-U', 'nothing'),
  });

  it('finds exactly what the plan asks for, in any tree', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(file, { maxLength: 25 }), async (files) => {
        rmSync(folder, { recursive: true });
        mkdirSync(folder);
        const tree = new Map(
          files.map(({ folder: inside, name, content }) => [
            [...inside, name].filter((part) => part !== '').join('/'),
            content,
          ]),
        );
        write(Object.fromEntries(tree));
        const wanted = [...tree]
          .filter(([path, content]) => {
            const parts = path.split('/');
            const parent = parts.at(-2) ?? '';
            if (parts.slice(0, -1).includes('build')) return false;
            if (parts.at(-1) === 'AndroidManifest.xml') return true;
            if (path.endsWith('.xml')) return parent === 'values' || parent.startsWith('values-');
            return path.endsWith('.kt') && /CH-U-|\(mrl/.test(content);
          })
          .map(([path]) => path)
          .sort();
        const found = await collectTree(folder, plan);
        expect(found.files.map(({ path }) => path)).toEqual(wanted);
        for (const { path, bytes } of found.files) expect(bytes().toString()).toBe(tree.get(path));
      }),
      { numRuns: 150 },
    );
  });

  it('reads long files to their end', async () => {
    const room = 256 * 1024;
    for (const length of [room - 1, room, room + 1, 3 * room])
      write({ [`${length}.kt`]: Buffer.concat([Buffer.alloc(length - 5, 'x'), Buffer.from('CH-U-')]) });
    const { files, skipped } = await collectTree(folder, { ...plan, maxFileBytes: 2 * room });
    expect(files.map(({ size }) => size)).toEqual([room - 1, room, room + 1]);
    expect(skipped).toEqual([
      {
        path: `${3 * room}.kt`,
        reason: `Not read: it has ${3 * room} bytes, and files over ${2 * room} are left out.`,
      },
    ]);
  });

  it('leaves out files beyond what one tree may have, and says how many', async () => {
    for (const name of ['a', 'b', 'c', 'd']) write({ [`${name}.kt`]: 'CH-U-' });
    const few = await collectTree(folder, { ...plan, maxFiles: 2 });
    expect(few.files.map(({ path }) => path)).toEqual(['a.kt', 'b.kt']);
    expect(few.skipped).toEqual([
      {
        path: 'c.kt',
        reason:
          'Not read: the tree has more than 2 files that matter, so this file and 1 after it are left out.',
      },
    ]);
    const small = await collectTree(folder, { ...plan, maxTreeBytes: 15 });
    expect(small.files.map(({ path }) => path)).toEqual(['a.kt', 'b.kt', 'c.kt']);
    expect(small.skipped.map(({ reason }) => reason)).toEqual([
      'Not read: the tree has more than 0 MB that matter, so this file is left out.',
    ]);
    expect([few, small, await collectTree(folder, plan)].map(({ limited }) => limited)).toEqual([
      true,
      true,
      false,
    ]);
  });

  it('goes through folders of very many files, and no deeper than 64 folders', async () => {
    for (let at = 0; at < 700; at++) write({ [`many/${at}.kt`]: at % 3 === 0 ? 'CH-U-' : 'x' });
    write({ [`${'d/'.repeat(63)}AndroidManifest.xml`]: '', [`${'e/'.repeat(66)}AndroidManifest.xml`]: '' });
    const { files, skipped } = await collectTree(folder, plan);
    expect(files).toHaveLength(234 + 1);
    expect(skipped).toEqual([
      {
        path: Array.from({ length: 65 }, () => 'e').join('/'),
        reason: 'Not read: folders are nested more than 64 deep.',
      },
    ]);
  });

  it('ends when it is told to', async () => {
    for (let at = 0; at < 50; at++) write({ [`d${at}/${at}.kt`]: 'CH-U-' });
    const stop = new AbortController();
    const walk = collectTree(folder, plan, { signal: stop.signal });
    stop.abort(new Error('nobody waits'));
    await expect(walk).rejects.toThrow('nobody waits');
  });

  it('passes over what is no file, and does not wait for a pipe', async () => {
    write({ 'a/AndroidManifest.xml': 'm' });
    execFileSync('mkfifo', [join(folder, 'a', 'b.kt')]);
    const { files, skipped } = await collectTree(folder, plan);
    expect([files.map(({ path }) => path), skipped]).toEqual([['a/AndroidManifest.xml'], []]);
  });
});

describe('names that cannot be shown as they are', () => {
  const raw = (...parts: (string | number[])[]) =>
    Buffer.concat([
      Buffer.from(`${folder}/`),
      ...parts.map((part) => (typeof part === 'string' ? Buffer.from(part) : Buffer.from(part))),
    ]);

  it('are read, and escaped', async () => {
    mkdirSync(raw('a', [0xff]));
    writeFileSync(raw('a', [0xff], '/AndroidManifest.xml'), 'one');
    writeFileSync(raw([0xc3, 0x28], '.kt'), 'CH-U-1');
    write({ 'b\u001b[31m\n\u202e/AndroidManifest.xml': 'two', 'ö.kt': 'CH-U-2' });
    const { files, skipped } = await collectTree(folder, plan);
    expect(files.map(({ path, bytes }) => [path, bytes().toString()])).toEqual([
      ['\\xc3(.kt', 'CH-U-1'],
      ['a\\xff/AndroidManifest.xml', 'one'],
      ['b\\x1b[31m\\x0a\\u202e/AndroidManifest.xml', 'two'],
      ['ö.kt', 'CH-U-2'],
    ]);
    expect(skipped).toEqual([]);
  });

  it('are known again', async () => {
    writeFileSync(raw([0xff], '.kt'), 'CH-U-1');
    const lists = temporaryFolder();
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 60_000 });
    const look = async () => {
      const known = KnownFiles.open(lists, folder, plan);
      const found = await collectTree(folder, plan, { known });
      known.save(found.read);
      return [found.read, found.files.map(({ path, bytes }) => [path, bytes().toString()])];
    };
    expect(await look()).toEqual([1, [['\\xff.kt', 'CH-U-1']]]);
    expect(await look()).toEqual([0, [['\\xff.kt', 'CH-U-1']]]);
    vi.useRealTimers();
    rmSync(lists, { recursive: true });
  });

  it('give way to a neighbour that is really called so', async () => {
    writeFileSync(raw([0xff], '.kt'), 'CH-U-1');
    write({ '\\xff.kt': 'CH-U-2', '\\x1b.kt': 'CH-U-3', '\u001b.kt': 'CH-U-4' });
    const { files, skipped } = await collectTree(folder, plan);
    expect(files.map(({ path, bytes }) => [path, bytes().toString()])).toEqual([
      ['\\x1b.kt', 'CH-U-3'],
      ['\\xff.kt', 'CH-U-2'],
    ]);
    expect(skipped.map(({ path }) => path)).toEqual(['\\x1b.kt', '\\xff.kt']);
  });
});
