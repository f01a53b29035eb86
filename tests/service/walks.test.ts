import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, statSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CollectPlan } from '../../src/api/trees.js';
import { collectTree } from '../../src/service/trees/collect.js';
import { KnownFiles } from '../../src/service/trees/known-files.js';
import { abandonWalks, nativeWalk, type Walk, type WalkPlan } from '../../src/service/trees/native-walk.js';
import { temporaryFolder } from '../support/service.js';

const walk = nativeWalk();

let folder: string;
beforeEach(() => {
  folder = temporaryFolder();
});
afterEach(() => {
  vi.useRealTimers();
  rmSync(folder, { recursive: true, force: true });
});

const plan: CollectPlan = {
  rules: [
    { name: 'always.txt' },
    { name: 'list.json', parent: 'Packages' },
    { suffix: '.xml', parent: 'values' },
    { suffix: '.d.kt' },
    { suffix: '.kt', needle: true },
    { name: 'Only', needle: true },
  ],
  folders: ['main/kotlin', 'ä'],
  needles: ['CH-', 'ab', '9', 'longer needle', 'é'],
  skipFolders: ['skip'],
  skipBeside: [{ folder: 'obj', beside: '.csproj' }],
  maxFileBytes: 4_000,
};

/** All that a reading says, with the files' bytes. */
async function told(by: Walk | null, asked = plan, known?: KnownFiles) {
  const { files, ...rest } = await collectTree(folder, asked, { walk: by, known });
  known?.save(rest.read);
  return { ...rest, files: files.map((file) => ({ ...file, bytes: file.bytes().toString('latin1') })) };
}

const same = async (asked = plan) => {
  const quick = await told(walk, asked);
  expect(quick).toEqual(await told(null, asked));
  return quick;
};

const put = (path: string, content: string | Buffer = '') => {
  mkdirSync(join(folder, path, '..'), { recursive: true });
  writeFileSync(join(folder, path), content);
};

describe('the walk in machine code and the one in this language', () => {
  const names = fc.constantFrom(
    'always.txt',
    'list.json',
    'a.kt',
    'b.d.kt',
    'ö.kt',
    'v.xml',
    'Only',
    '.kt',
    'other.bin',
    'app.csproj',
  );
  const folders = fc.constantFrom(
    '',
    'Packages',
    'values-de',
    'values',
    'valuesque',
    'main/kotlin',
    'ä',
    'skip',
    'obj',
    'a/b/c',
  );
  const contents = fc
    .array(fc.constantFrom('C', 'H', '-', 'a', 'b', 'é', '\n', '\0', 'longer needl', 'e'), { maxLength: 60 })
    .map((parts) => parts.join(''));
  const file = fc.record({
    folder: fc.array(folders, { maxLength: 3 }),
    name: names,
    content: contents,
    link: fc.constantFrom('no', 'no', 'no', 'inside', 'outside', 'nowhere', 'to a folder'),
  });

  const make = (files: readonly (typeof file extends fc.Arbitrary<infer Value> ? Value : never)[]) => {
    for (const { folder: inside, name, content, link } of files) {
      const path = [...inside, name].filter((part) => part !== '').join('/');
      try {
        if (link === 'no') put(path, content);
        else {
          mkdirSync(join(folder, path, '..'), { recursive: true });
          const target = { inside: 'a.kt', outside: '/etc/hostname', nowhere: 'gone', 'to a folder': '.' }[
            link
          ];
          symlinkSync(target, join(folder, path));
        }
      } catch {
        // Something else is there already.
      }
    }
  };

  it('find the same in any tree', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(file, { maxLength: 25 }), async (files) => {
        rmSync(folder, { recursive: true });
        mkdirSync(folder);
        make(files);
        await same();
      }),
      { numRuns: 150 },
    );
  });

  it('know the same files again, whichever of them wrote the list down', async () => {
    const later = () => vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 60_000 });
    await fc.assert(
      fc.asyncProperty(fc.array(file, { maxLength: 12 }), fc.boolean(), async (files, quickFirst) => {
        rmSync(folder, { recursive: true });
        mkdirSync(folder);
        make(files);
        later();
        const lists = temporaryFolder();
        const list = () => KnownFiles.open(lists, folder, plan);
        const [first, second] = quickFirst ? [walk, null] : [null, walk];
        const before = await told(first, plan, list());
        const after = await told(second, plan, list());
        expect(after).toEqual({ ...before, read: 0 });
        expect(await told(first, plan, list())).toEqual(after);
        vi.useRealTimers();
        rmSync(lists, { recursive: true });
      }),
      { numRuns: 60 },
    );
  });

  it('find a needle wherever it stands, in files of any length', async () => {
    const letters = fc.constantFrom('a', 'b', 'é', '.', 'Q', '\xff');
    const text = (min: number, max: number) =>
      fc.array(letters, { minLength: min, maxLength: max }).map((parts) => parts.join(''));
    await fc.assert(
      fc.asyncProperty(
        fc.array(text(0, 9), { maxLength: 20 }),
        fc.array(text(0, 70), { minLength: 1, maxLength: 8 }),
        fc.nat({ max: 19 }),
        async (needles, haystacks, at) => {
          rmSync(folder, { recursive: true });
          mkdirSync(folder);
          haystacks.forEach((haystack, number) => {
            put(`${number}.kt`, haystack);
            put(`${number}-with.kt`, `${haystack}${needles[at] ?? ''}${haystack}`);
            put(`${number}-end.kt`, `${haystack}${needles[at] ?? ''}`);
          });
          await same({ ...plan, needles });
        },
      ),
      { numRuns: 150 },
    );
  });

  it('read long files to their end, and leave out those that are too long', async () => {
    const room = 256 * 1024;
    for (const length of [room - 1, room, room + 1, 3 * room])
      put(`${length}.kt`, Buffer.concat([Buffer.alloc(length - 3, 'x'), Buffer.from('CH-')]));
    const { files, skipped } = await same({ ...plan, maxFileBytes: 2 * room });
    expect(files.map(({ size }) => size)).toEqual([room - 1, room, room + 1]);
    expect(skipped).toEqual([
      {
        path: `${3 * room}.kt`,
        reason: `Not read: it has ${3 * room} bytes, and files over ${2 * room} are left out.`,
      },
    ]);
  });

  it('go through folders of very many files, and no deeper than 64 folders', async () => {
    for (let at = 0; at < 700; at++) put(`many/${at}.kt`, at % 3 === 0 ? 'CH-' : 'x');
    put(`${'d/'.repeat(63)}always.txt`);
    put(`${'e/'.repeat(66)}always.txt`);
    const { files, skipped } = await same();
    expect(files).toHaveLength(234 + 1);
    expect(skipped).toEqual([
      {
        path: Array.from({ length: 65 }, () => 'e').join('/'),
        reason: 'Not read: folders are nested more than 64 deep.',
      },
    ]);
  });

  it('leave out what has no name that is text, and pass over what is no file', async () => {
    put('a/always.txt');
    writeFileSync(
      Buffer.concat([Buffer.from(`${folder}/a/`), Buffer.from([0xff, 0xfe]), Buffer.from('.d.kt')]),
      'x',
    );
    execFileSync('mkfifo', [join(folder, 'a', 'b.d.kt')]);
    const { files, skipped } = await same();
    expect(files.map(({ path }) => path)).toEqual(['a/always.txt']);
    expect(skipped).toEqual([{ path: 'a/\ufffd\ufffd.d.kt', reason: 'Not read: it is not there.' }]);
  });

  it('take a file for known only as long as nothing about it changed', async () => {
    put('a.kt', 'CH-');
    const lists = temporaryFolder();
    const look = async (by: Walk | null) => {
      vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 60_000 });
      const { read } = await told(by, plan, KnownFiles.open(lists, folder, plan));
      vi.useRealTimers();
      return read;
    };
    for (const by of [walk, null]) {
      expect(await look(by)).toBe(by === walk ? 1 : 0);
      expect(await look(by)).toBe(0);
      const { mtime } = statSync(join(folder, 'a.kt'));
      put('a.kt', 'no!');
      utimesSync(join(folder, 'a.kt'), mtime, mtime);
      expect(await look(by)).toBe(1);
      put('a.kt', 'CH-');
      expect(await look(by)).toBe(1);
    }
    rmSync(lists, { recursive: true });
  });
});

describe('the walk in machine code', () => {
  const asked: WalkPlan = {
    base: '/nowhere',
    names: [],
    rules: [],
    needles: [],
    skipFolders: [],
    skipBeside: [],
    ends: [],
    maxFileBytes: 1,
    maxDepth: 1,
    threads: 1,
  };

  it('finds nothing where there is no folder', async () => {
    expect(await walk?.(asked)).toMatchObject({ files: [], folders: [], leftOut: [], seen: 0, read: 0 });
  });

  it.each([
    ['nothing', undefined],
    ['a text', 'plan'],
    ['a plan without names', { ...asked, names: undefined }],
    ['needles that are no texts', { ...asked, needles: [1] }],
    ['a list that is no bytes', { ...asked, known: 'x', tooFresh: 0 }],
    ['a rule that is nothing', { ...asked, rules: [null] }],
  ])('refuses %s', (_, odd) => {
    expect(() => walk?.(odd as unknown as WalkPlan)).toThrow(/./);
  });

  it('is abandoned when nobody waits for it, and the next one is whole', async () => {
    for (let at = 0; at < 3_000; at++) put(`d${at % 300}/${at}.kt`, 'x');
    const plan = { ...asked, base: folder, rules: [{ suffix: '.kt' }], maxFileBytes: 10, maxDepth: 64 };
    const begun = expect(walk?.(plan)).rejects.toThrow('abandoned');
    abandonWalks();
    await begun;
    expect(await walk?.(plan)).toMatchObject({ seen: 3_000, read: 3_000 });
  });

  it('takes no damaged list for one', async () => {
    put('a.kt', 'CH-');
    for (const known of [Buffer.alloc(1), Buffer.alloc(40, 255), Buffer.from([1, 0, 97])])
      expect(
        await walk?.({
          ...asked,
          base: folder,
          rules: [{ suffix: '.kt' }],
          maxFileBytes: 10,
          known,
          tooFresh: 0,
        }),
      ).toMatchObject({ read: 1, files: [{ path: 'a.kt' }] });
  });
});
