import { describe, expect, it } from 'vitest';
import type { Change, EditChange } from '../../../src/core/edits/model.js';
import { mergeChanges, treeWith } from '../../../src/core/wiring/outcomes.js';
import { hashOf } from '../../../src/disk/hash.js';
import { treeOf } from '../../support/trees.js';

const base = { path: 'a.txt', platform: 'android', network: null, topic: 'app-id', rules: [] } as const;
const edit = (start: number, end: number, text: string, more: object = {}): EditChange => ({
  ...base,
  rules: [],
  kind: 'edit',
  edits: [{ start, end, text, ...more }],
});
const create = (content: string | { head: string[]; lines: string[]; tail: string[] }, path = 'a.txt') =>
  ({ ...base, rules: [], path, kind: 'create', content }) as Change;
const remove = (path = 'a.txt'): Change => ({ ...base, rules: [], path, kind: 'remove' });
const source = { name: 'ads.aar', sha256: 'a'.repeat(64), size: 3 };
const copy: Change = { ...base, rules: [], path: 'libs/ads.aar', kind: 'copy', source };

const merged = (text: string | null, changes: Change[]) =>
  mergeChanges(treeOf(text === null ? {} : { 'a.txt': text }), changes);
const after = (text: string | null, ...changes: Change[]) => merged(text, changes)[0]?.after;

describe('the changes of one file', () => {
  it('are put together, in order of place', () => {
    const [second, first] = [edit(2, 3, 'y'), edit(0, 1, 'x')];
    expect(merged('abc', [second, first])).toEqual([
      {
        path: 'a.txt',
        before: 'abc',
        after: 'xby',
        changes: [second, first],
        refused: [],
        edits: [...first.edits, ...second.edits],
      },
    ]);
  });

  it('count once where they are equal', () => {
    expect(after('abc', edit(1, 1, 'x'), edit(1, 1, 'x'))).toBe('axbc');
    expect(after('abc', edit(0, 2, 'x'), edit(0, 2, 'x'))).toBe('xc');
    expect(after('abc', edit(1, 1, 'x'), edit(1, 1, 'y'))).toBe('axybc');
    for (const twice of [edit(0, 2, 'x'), edit(1, 1, 'x')])
      expect(merged('abc', [twice, { ...twice }])[0]).toMatchObject({ changes: [{}, {}], refused: [] });
  });

  it('share a block', () => {
    const block = { open: '<', close: '>' };
    expect(after('ab', edit(1, 1, 'x', { block }), edit(1, 1, 'y', { block }))).toBe('a<xy>b');
  });

  it.each([
    ['within it', edit(1, 2, 'y')],
    ['at its beginning', edit(0, 1, 'y')],
    ['at its end', edit(2, 3, 'y')],
    ['inserted in it', edit(1, 1, 'y')],
  ])('leave out what is part of a larger edit: %s', (_, inner) => {
    for (const changes of [
      [edit(0, 3, 'x'), inner],
      [inner, edit(0, 3, 'x')],
    ]) {
      const [outcome] = merged('abcd', changes);
      expect(outcome?.after).toBe('xd');
      expect(outcome?.refused).toEqual([]);
      expect(outcome?.changes).toEqual(changes);
    }
  });

  it('keep what is outside a larger edit', () => {
    expect(after('abcdefgh', edit(2, 5, 'x'), edit(0, 1, 'y'), edit(6, 7, 'z'))).toBe('ybxfzh');
    expect(after('abcdefgh', edit(2, 6, 'x'), edit(0, 2, 'y'), edit(6, 8, 'z'))).toBe('yxz');
  });

  it('are refused when they replace the beginning or the end of what another replaces differently', () => {
    for (const second of [edit(0, 1, 'y'), edit(1, 2, 'y')])
      expect(merged('abcd', [edit(0, 2, 'x'), second])[0]).toMatchObject({ after: 'xcd', refused: [] });
    for (const second of [edit(1, 4, 'y'), edit(2, 3, 'y')])
      expect(merged('abcd', [edit(1, 3, 'x'), second])[0]?.refused).toEqual([]);
  });

  it('keep what is inserted at the ends of a larger edit', () => {
    expect(after('abc', edit(1, 2, 'x'), edit(1, 1, '<'), edit(2, 2, '>'))).toBe('a<x>c');
  });

  it('keep edits that touch', () => {
    const [outcome] = merged('abcd', [edit(0, 2, 'x'), edit(2, 4, 'y')]);
    expect(outcome).toMatchObject({ after: 'xy', refused: [] });
  });

  it.each([
    ['overlap', edit(0, 2, 'x'), edit(1, 3, 'y')],
    ['overlap the other way', edit(1, 3, 'x'), edit(0, 2, 'y')],
    ['replace the same text differently', edit(0, 2, 'x'), edit(0, 2, 'y')],
  ])('are refused when they %s', (_, first, second) => {
    const [outcome] = merged('abcd', [first, second]);
    expect(outcome?.changes).toEqual([first]);
    expect(outcome?.refused).toEqual([second]);
    expect(outcome?.edits).toEqual(first.edits);
  });

  it('are none when nothing differs, unless some were refused', () => {
    expect(merged('abc', [edit(0, 1, 'a')])).toEqual([]);
    expect(merged('abc', [create('abc')])).toEqual([]);
    expect(merged('abc', [edit(0, 2, 'ab'), edit(0, 2, 'y')])).toMatchObject([
      { after: 'abc', refused: [{ edits: [{ text: 'y' }] }] },
    ]);
  });
});

describe('a whole file', () => {
  it('is made, empty when nothing says what it holds', () => {
    const made = create('x\n');
    expect(merged(null, [made])).toEqual([
      { path: 'a.txt', before: null, after: 'x\n', changes: [made], edits: [], refused: [] },
    ]);
    expect(after(null, edit(0, 0, 'x'))).toBe('');
  });

  it('is written anew by the smallest edit', () => {
    expect(merged('a\nb\nc\n', [create('a\nx\nc\n')])).toMatchObject([
      { after: 'a\nx\nc\n', edits: [{ start: 2, end: 3, text: 'x' }], refused: [] },
    ]);
  });

  it('keeps the line ends that it has', () => {
    expect(after('a\r\nb\r\n', create('a\nx\nc\n'))).toBe('a\r\nx\r\nc\r\n');
    expect(merged('a\r\nb\r\n', [create('a\nb\n')])).toEqual([]);
  });

  it('is put together from pieces, each line once', () => {
    const piece = (...lines: string[]) => create({ head: ['<a>'], lines, tail: ['</a>'] });
    expect(after(null, piece('x', 'y'), piece('y', 'z'))).toBe('<a>\nx\ny\nz\n</a>\n');
  });

  it('is not written when two parts want it differently', () => {
    expect(() => merged('x', [create('a'), create('b')])).toThrow(
      'Two parts of the wiring want to write a.txt differently.',
    );
    const pieces = create({ head: [], lines: ['b'], tail: [] });
    expect(() => merged(null, [create('a'), pieces])).toThrow(/differently/);
    expect(after(null, create('b\n'), pieces)).toBe('b\n');
  });

  it('is removed', () => {
    const gone = remove();
    expect(merged('abc', [gone, edit(0, 1, 'x')])).toEqual([
      { path: 'a.txt', before: 'abc', after: null, changes: [gone, edit(0, 1, 'x')], edits: [], refused: [] },
    ]);
  });

  it('is copied', () => {
    expect(merged('abc', [copy])).toEqual([
      { path: 'libs/ads.aar', before: null, after: null, changes: [copy], edits: [], refused: [], source },
    ]);
  });
});

describe('the changes of many files', () => {
  it('come in order of path', () => {
    const outcomes = mergeChanges(treeOf({}), [create('', 'b'), create('', 'a'), create('', 'c/a')]);
    expect(outcomes.map(({ path }) => path)).toEqual(['a', 'b', 'c/a']);
  });
});

describe('the tree with its changes', () => {
  it('has what was made, changed and kept, and not what was taken away', () => {
    const tree = treeOf({ 'a.txt': '\ufeffabc', gone: 'x', kept: 'y' });
    const outcomes = mergeChanges(tree, [edit(0, 1, 'x'), create('new', 'new.txt'), remove('gone'), copy]);
    const changed = treeWith(tree, outcomes);
    expect([...changed.paths].sort()).toEqual(['a.txt', 'kept', 'libs/ads.aar', 'new.txt']);
    expect(changed.text('a.txt')?.text).toBe('xbc');
    expect(changed.text('new.txt')?.text).toBe('new');
    expect(changed.file('kept')).toBe(tree.file('kept'));
    expect(tree.text('a.txt')?.text).toBe('abc');
  });

  it('has the bytes and hashes that the files will have', () => {
    const tree = treeOf({ 'a.txt': '\ufeffabc' });
    const file = treeWith(tree, mergeChanges(tree, [edit(0, 1, 'ü')])).file('a.txt')!;
    expect(Buffer.from(file.bytes).toString()).toBe('\ufeffübc');
    expect(file.hash).toBe(hashOf(file.bytes));
  });
});
