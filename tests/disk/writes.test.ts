import { execFileSync } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { FileChangedError, OutsideTreeError, WriteRefusedError } from '../../src/disk/writes/errors.js';
import { lockTree } from '../../src/disk/writes/tree-lock.js';
import { TreeWrites, type WriteOptions } from '../../src/disk/writes/tree-writes.js';
import { identityOf, writeFolder } from '../../src/disk/writes/write-folder.js';
import type { FileEdit } from '../../src/core/edits/model.js';
import { editOf, removalOf } from '../support/edits.js';
import { temporaryFolder } from '../support/service.js';
import { filesBelow } from '../support/trees.js';

let top: string;
let tree: string;
let outside: string;
let writes: TreeWrites;
beforeEach(() => {
  top = temporaryFolder();
  tree = join(top, 'tree');
  outside = join(top, 'outside');
  mkdirSync(tree);
  mkdirSync(outside);
  writes = new TreeWrites(join(top, 'home'));
});
afterEach(() => rmSync(top, { recursive: true, force: true }));

function put(files: Record<string, string>, at = tree): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(at, path, '..'), { recursive: true });
    writeFileSync(join(at, path), content);
  }
}
const note = { title: 'kelp', what: 'wire', takesOut: false, at: '2026-11-02T09:00:00.000Z' };
const apply = (edits: FileEdit[], options?: WriteOptions) => writes.apply(tree, edits, note, options);
const texts = (at = tree) =>
  Object.fromEntries(Object.entries(filesBelow(at)).map(([path, bytes]) => [path, bytes.toString()]));

describe('writing edits', () => {
  it('keeps the mode of a file, makes new folders, and leaves nothing else', async () => {
    put({ 'a.txt': 'one', 'gone/c.txt': 'three' });
    chmodSync(join(tree, 'a.txt'), 0o755);
    const edits = [
      editOf('a.txt', 'one', 'x'),
      editOf('new/deep/b.txt', null, 'two'),
      removalOf('gone/c.txt', 'three'),
    ];
    expect(await apply(edits)).toEqual(['a.txt', 'new/deep/b.txt', 'gone/c.txt']);
    expect(texts()).toEqual({ 'a.txt': 'xone', 'new/deep/b.txt': 'two' });
    expect(existsSync(join(tree, 'gone'))).toBe(false);
    expect(statSync(join(tree, 'a.txt')).mode & 0o777).toBe(0o755);
  });

  it('refuses all of them when one file changed, and leaves nothing behind', async () => {
    put({ 'a.txt': 'one', 'b.txt': 'changed' });
    await expect(apply([editOf('a.txt', 'one', 'x'), editOf('b.txt', 'two', 'y')])).rejects.toThrow(
      FileChangedError,
    );
    await expect(apply([editOf('a.txt', 'one', 'x'), editOf('b.txt', null, 'y')])).rejects.toThrow(/b\.txt/);
    expect(texts()).toEqual({ 'a.txt': 'one', 'b.txt': 'changed' });
  });

  it('takes back what was done when a file fails half way', async () => {
    put({ 'a.txt': 'one', 'z/file.txt': 'two', blocked: 'a file where a folder must be' });
    const edits = [
      editOf('a.txt', 'one', 'x'),
      editOf('z/file.txt', 'two', 'y'),
      editOf('blocked/new.txt', null, 'n'),
    ];
    const before = texts();
    await expect(apply(edits)).rejects.toThrow();
    expect(texts()).toEqual(before);
    expect(await writes.list(tree)).toEqual([]);
  });

  it('does not disturb a hard link elsewhere', async () => {
    put({ 'a.txt': 'one' });
    linkSync(join(tree, 'a.txt'), join(tree, 'twin.txt'));
    await apply([editOf('a.txt', 'one', 'x')]);
    expect(readFileSync(join(tree, 'twin.txt'), 'utf8')).toBe('one');
  });

  it('two at once: one wins, the others are refused, the tree is whole', async () => {
    put({ 'a.txt': 'one', 'b.txt': 'two' });
    const all = await Promise.allSettled(
      ['1', '2', '3'].map((text) => apply([editOf('a.txt', 'one', text), editOf('b.txt', 'two', text)])),
    );
    expect(all.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    for (const one of all) if (one.status === 'rejected') expect(one.reason).toBeInstanceOf(FileChangedError);
    const { 'a.txt': a, 'b.txt': b } = texts();
    expect(a?.slice(0, 1)).toBe(b?.slice(0, 1));
  });

  it('refuses a file that its owner made read-only, unless it is forced', async () => {
    put({ 'a.txt': 'one', 'b.txt': 'two' });
    chmodSync(join(tree, 'b.txt'), 0o444);
    const edits = [editOf('a.txt', 'one', 'x'), editOf('b.txt', 'two', 'y')];
    await expect(apply(edits)).rejects.toThrow(/b\.txt is read-only \(mode 444\)/);
    await expect(apply([removalOf('b.txt', 'two')])).rejects.toThrow(WriteRefusedError);
    expect(texts()).toEqual({ 'a.txt': 'one', 'b.txt': 'two' });
    await apply(edits, { force: true });
    expect(texts()).toEqual({ 'a.txt': 'xone', 'b.txt': 'ytwo' });
    expect(statSync(join(tree, 'b.txt')).mode & 0o777).toBe(0o444);
    // What was forced may be taken back as it is.
    await writes.undo(tree);
    expect(texts()).toEqual({ 'a.txt': 'one', 'b.txt': 'two' });
  });

  it('says why it does not edit a file whose name cannot be shown', async () => {
    put({ 'a\u001b.txt': 'one' });
    await expect(apply([editOf('a\\x1b.txt', 'one', 'x')])).rejects.toThrow(/cannot be shown/);
  });

  it.runIf(process.getuid?.() === 0)('gives what it makes the owner of its folder', async () => {
    put({ 'mine/a.txt': 'one', 'theirs/b.txt': 'two' });
    chownSync(join(tree, 'theirs'), 4242, 4343);
    chownSync(join(tree, 'theirs/b.txt'), 4444, 4545);
    await apply([
      editOf('mine/a.txt', 'one', 'x'),
      editOf('theirs/b.txt', 'two', 'y'),
      editOf('theirs/new/deep/c.txt', null, 'z'),
    ]);
    const owner = (path: string) => [statSync(join(tree, path)).uid, statSync(join(tree, path)).gid];
    expect(owner('theirs/b.txt')).toEqual([4444, 4545]);
    for (const path of ['theirs/new', 'theirs/new/deep', 'theirs/new/deep/c.txt'])
      expect(owner(path)).toEqual([4242, 4343]);
    expect(owner('mine/a.txt')).toEqual([0, 0]);
  });
});

describe('a write never leaves the tree', () => {
  it.each([
    '../x.txt',
    'a/../../x.txt',
    '/x.txt',
    'a//x.txt',
    './x.txt',
    'link/x.txt',
    'link',
    'dead/x.txt',
    'a/..',
  ])('by %s', async (path) => {
    put({ 'a/f.txt': 'one', 'real.txt': 'two' });
    symlinkSync(outside, join(tree, 'link'));
    symlinkSync(join(top, 'nowhere'), join(tree, 'dead'));
    put({ 'x.txt': 'mine' }, outside);
    for (const edit of [editOf(path, null, 'x'), editOf(path, 'mine', 'x'), removalOf(path, 'mine')])
      await expect(apply([editOf('real.txt', 'two', 'y'), edit])).rejects.toThrow(OutsideTreeError);
    expect(texts(outside)).toEqual({ 'x.txt': 'mine' });
    expect(readdirSync(top).sort()).toEqual(['home', 'outside', 'tree']);
    expect(readFileSync(join(tree, 'real.txt'), 'utf8')).toBe('two');
  });

  it('by a link in place of the file', async () => {
    put({ 'real.txt': 'one' });
    symlinkSync('real.txt', join(tree, 'soft.txt'));
    await expect(apply([editOf('soft.txt', 'one', 'x')])).rejects.toThrow(/symbolic link/);
  });

  it.each([
    ['a new file', editOf('d/new.txt', null, 'x')],
    ['a changed file', editOf('d/f.txt', 'one', 'x')],
    ['a file that goes', removalOf('d/f.txt', 'one')],
  ])('by a folder that becomes a link between the claim and the rename, for %s', async (_, edit) => {
    put({ 'd/f.txt': 'one', 'z.txt': 'two' });
    put({ 'f.txt': 'one', 'keep.txt': 'mine' }, outside);
    const swap = (path: string) => {
      if (path !== edit.path) return;
      renameSync(join(tree, 'd'), join(tree, 'moved'));
      symlinkSync(outside, join(tree, 'd'));
    };
    await expect(apply([editOf('z.txt', 'two', 'y'), edit], { progress: swap })).rejects.toThrow();
    expect(texts(outside)).toEqual({ 'f.txt': 'one', 'keep.txt': 'mine' });
    expect(readFileSync(join(tree, 'z.txt'), 'utf8')).toBe('two');
    expect(readFileSync(join(tree, 'moved/f.txt'), 'utf8')).toBe('one');
  });

  it('by a file that becomes a link between the claim and the rename', async () => {
    put({ 'f.txt': 'one', 'z.txt': 'two' });
    put({ 'f.txt': 'one' }, outside);
    const swap = (path: string) => {
      if (path !== 'f.txt') return;
      rmSync(join(tree, 'f.txt'));
      symlinkSync(join(outside, 'f.txt'), join(tree, 'f.txt'));
    };
    await expect(
      apply([editOf('z.txt', 'two', 'y'), editOf('f.txt', 'one', 'x')], { progress: swap }),
    ).rejects.toThrow(OutsideTreeError);
    expect(texts(outside)).toEqual({ 'f.txt': 'one' });
    expect(readFileSync(join(tree, 'z.txt'), 'utf8')).toBe('two');
  });

  it.each([
    ['replace', editOf('f.txt', 'one', 'x')],
    ['remove', removalOf('f.txt', 'one')],
  ])('by a change that somebody makes just before it: it would %s a file', async (_, edit) => {
    put({ 'f.txt': 'one', 'z.txt': 'two' });
    const change = (path: string) => {
      if (path === 'f.txt') put({ 'f.txt': 'one, and mine' });
    };
    await expect(apply([editOf('z.txt', 'two', 'y'), edit], { progress: change })).rejects.toMatchObject({
      name: 'FileChangedError',
    });
    expect(texts(tree)).toEqual({ 'f.txt': 'one, and mine', 'z.txt': 'two' });
  });

  it('when links are swapped to and fro all the while', async () => {
    put({ 'f.txt': 'one' }, outside);
    for (let round = 0; round < 20; round++) {
      put({ 'd/f.txt': 'one' });
      const swap = setInterval(() => {
        try {
          renameSync(join(tree, 'd'), join(tree, 'moved'));
          symlinkSync(outside, join(tree, 'd'));
          rmSync(join(tree, 'd'));
          renameSync(join(tree, 'moved'), join(tree, 'd'));
        } catch {
          // The write got in between.
        }
      }, 0);
      await apply([editOf('d/f.txt', 'one', 'x'), editOf('d/new.txt', null, 'y')]).catch(() => undefined);
      clearInterval(swap);
      expect(texts(outside)).toEqual({ 'f.txt': 'one' });
      rmSync(tree, { recursive: true });
      mkdirSync(tree);
    }
  });
});

describe('markers of writes that are not ours', () => {
  const journal = (path: string) =>
    JSON.stringify({
      pid: 4_000_000,
      folders: ['../made'],
      files: [
        { path, isNew: true, before: null, after: null },
        { path: '../outside/keep.txt', isNew: false, before: null, after: null },
      ],
    });
  const kinds: Record<string, (name: string) => void> = {
    'a folder with a journal that leads out': (name) => {
      put(
        { 'journal.json': journal('../outside/new.txt'), 'new-0': 'evil', 'old-1': 'evil' },
        join(tree, name),
      );
    },
    'a damaged journal': (name) => put({ 'journal.json': '{"files": [' }, join(tree, name)),
    'a file': (name) => put({ [name]: '../outside' }),
    'a pipe': (name) => execFileSync('mkfifo', [join(tree, name)]),
    'a link': (name) => symlinkSync(outside, join(tree, name)),
    'a dead link': (name) => symlinkSync('nowhere', join(tree, name)),
  };

  describe.each(Object.keys(kinds))('%s', (kind) => {
    it.each([
      '.syndexa-write',
      '.syndexa-draft-1-a',
      '.syndexa-done-1-a',
      `.syndexa-write-${'0'.repeat(32)}`,
    ])('named %s is reported and otherwise ignored', async (name) => {
      put({ 'a.txt': 'one' });
      put({ 'keep.txt': 'mine' }, outside);
      kinds[kind]?.(name);
      const state = await writes.state(tree);
      expect(state).toMatchObject({ interrupted: undefined, busy: false, strange: [{ name }] });
      expect(await writes.settle(tree)).toBeUndefined();
      expect(await writes.undo(tree)).toBeUndefined();
      await apply([editOf('a.txt', 'one', 'x')]);
      await writes.undo(tree);
      expect(readFileSync(join(tree, 'a.txt'), 'utf8')).toBe('one');
      expect(readdirSync(tree).sort()).toEqual([name, 'a.txt'].sort());
      expect(texts(outside)).toEqual({ 'keep.txt': 'mine' });
      expect(readdirSync(top).sort()).toEqual(['home', 'outside', 'tree']);
    });
  });

  it('does not take the journal of another tree for its own', async () => {
    put({ 'a.txt': 'one' });
    await apply([editOf('a.txt', 'one', 'x')]);
    expect(await writes.list(tree)).toHaveLength(1);
    renameSync(tree, join(top, 'old'));
    mkdirSync(tree);
    put({ 'a.txt': 'xone' });
    expect(await writes.list(tree)).toEqual([]);
    expect(await writes.undo(tree)).toBeUndefined();
  });
});

describe('a tree that somebody holds', () => {
  it('is not written to, and the lock ends with its holder', async () => {
    put({ 'a.txt': 'one' });
    const unlock = await lockTree(writeFolder(join(top, 'home'), identityOf(tree)));
    await expect(apply([editOf('a.txt', 'one', 'x')])).rejects.toThrow(/Another command is writing/);
    unlock();
    expect(await apply([editOf('a.txt', 'one', 'x')])).toEqual(['a.txt']);
  });

  it('finds nothing to settle in a tree at rest', async () => {
    put({ 'a.txt': 'one' });
    expect(await writes.settle(tree)).toBeUndefined();
    expect(await writes.state(tree)).toEqual({ interrupted: undefined, busy: false, strange: [] });
  });
});
