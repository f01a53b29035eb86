import { Journal } from '../../src/disk/writes/journal.js';
import { createHash } from 'node:crypto';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { FileChangedError } from '../../src/disk/writes/errors.js';
import { noteOf, TreeWrites } from '../../src/disk/writes/tree-writes.js';
import { identityOf, writeFolder } from '../../src/disk/writes/write-folder.js';
import { temporaryFolder } from '../support/service.js';
import { filesBelow } from '../support/trees.js';
import { networks, wholeTrees } from '../support/whole-trees.js';
import { plan, texts, titleOn, type Files } from '../support/wiring.js';

let home: string;
let tree: string;
beforeEach(() => {
  home = temporaryFolder();
  tree = join(home, 'tree');
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

function put(files: Files): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(dirname(join(tree, path)), { recursive: true });
    writeFileSync(join(tree, path), content);
  }
}
const state = () => texts(filesBelow(tree));
const note = (network: string | null = null, at = '2026-11-02T09:00:00.000Z') =>
  noteOf({ title: 'kelp', network }, at);

describe.each(Object.entries(wholeTrees))('a write into %s', (_, { files, ids, stages }) => {
  it('for every network that ships is taken back byte for byte', async () => {
    put(files);
    const records = new TreeWrites(home);
    const { edits } = plan(files, titleOn(networks, ids, stages));
    const written = await records.apply(tree, edits, note());
    expect(written).toEqual(edits.map(({ path }) => path));
    expect(await records.list(tree)).toHaveLength(edits.length > 0 ? 1 : 0);
    await records.undo(tree);
    expect(state()).toEqual(texts(files));
    expect(await records.list(tree)).toEqual([]);
  });
});

describe('the record of writes', () => {
  const { files, ids } = wholeTrees['small trees']!;
  const { edits } = plan(files, titleOn(['cobalt-heron'], ids));

  it('forgets a write that never came about', async () => {
    put(files);
    const records = new TreeWrites(home);
    const progress = () => {
      throw new Error('stopped');
    };
    await expect(records.apply(tree, edits, note(), { progress })).rejects.toThrow('stopped');
    expect(state()).toEqual(texts(files));
    expect(await records.list(tree)).toEqual([]);
    expect(await records.undo(tree)).toBeUndefined();
  });

  it('is none of another tree', async () => {
    put(files);
    const records = new TreeWrites(home);
    await records.apply(tree, edits, note());
    mkdirSync(join(home, 'other'));
    expect(await records.list(join(home, 'other'))).toEqual([]);
    expect(await records.list(tree)).toHaveLength(1);
  });

  it('passes over what is damaged, and refuses what changed', async () => {
    put(files);
    const records = new TreeWrites(home);
    await records.apply(tree, edits, note());
    const folder = join(writeFolder(home, identityOf(tree)), 'records');
    mkdirSync(join(folder, '99999999-damaged'));
    writeFileSync(join(folder, '99999999-damaged', 'journal.json'), '{"id":');
    expect(await records.list(tree)).toHaveLength(1);
    const path = edits[0]!.path;
    writeFileSync(join(tree, path), 'mine');
    await expect(records.undo(tree)).rejects.toThrow(FileChangedError);
    expect(await records.list(tree)).toHaveLength(1);
  });

  it('knows what was put in that others may need, until it is taken out', async () => {
    put(files);
    const records = new TreeWrites(home);
    const wanted = plan(files, titleOn(['quincebury'], { android: ids.android! }));
    await records.apply(tree, wanted.edits, note());
    expect(await records.added(tree)).toEqual(['permission android.permission.WAKE_LOCK']);
    const out = [
      {
        ...wanted.edits[0]!,
        ...fileNow(wanted.edits[0]!.path),
        adds: ['permission android.permission.WAKE_LOCK'],
      },
    ];
    await records.apply(tree, out, note('quincebury', '2026-11-03T09:00:00.000Z'));
    expect(await records.added(tree)).toEqual([]);
  });

  it.each([
    ['wire', false],
    ['unwire quincebury', true],
    ['undo unwire quincebury', false],
  ])('reads journals of earlier versions: %s', (what, takesOut) => {
    const journal = {
      id: '1',
      at: '2026-11-02T09:00:00.000Z',
      title: 'kelp',
      what,
      adds: [],
      tree: { path: '/t', device: 1, inode: 2 },
      marker: '0'.repeat(32),
      undoes: null,
      files: [],
      folders: [],
    };
    expect(Journal.parse(journal).takesOut).toBe(takesOut);
    expect(Journal.parse({ ...journal, takesOut: !takesOut }).takesOut).toBe(!takesOut);
  });

  /** An edit that adds a blank to a file as it is now. */
  function fileNow(path: string) {
    const bytes = filesBelow(tree)[path]!;
    const before = createHash('sha256').update(bytes).digest('hex');
    return { before, content: null, edits: [{ start: 0, end: 0, text: ' ' }] };
  }
});
