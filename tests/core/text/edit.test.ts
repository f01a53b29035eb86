import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyEdits,
  editBetween,
  EditOverlapError,
  sortEdits,
  withBlocks,
} from '../../../src/core/text/edit.js';

const at = (start: number, end: number, text: string) => ({ start, end, text });

describe('edits, sorted', () => {
  it('are in order of their beginning, then of their end, then as they were given', () => {
    const [a, b, c, d] = [at(5, 5, 'a'), at(1, 3, 'b'), at(1, 1, 'c'), at(1, 1, 'd')];
    expect(sortEdits([a, b, c, d])).toEqual([c, d, b, a]);
  });
});

describe('edits, applied', () => {
  it('may touch: at the first and the last character, and one after another', () => {
    expect(applyEdits('abc', [at(0, 1, 'x'), at(1, 3, 'y')])).toBe('xy');
    expect(applyEdits('abc', [at(3, 3, 'd')])).toBe('abcd');
    expect(applyEdits('', [])).toBe('');
  });

  it.each([
    ['before the text', at(-1, 0, '')],
    ['after the text', at(0, 4, '')],
    ['backwards', at(2, 1, '')],
  ])('are refused %s', (_, edit) => {
    expect(() => applyEdits('abc', [edit])).toThrow(
      new RangeError(`An edit at ${edit.start}–${edit.end} is outside a text of 3.`),
    );
  });

  it('are refused when two claim the same text, whatever their order', () => {
    const [first, second] = [at(0, 2, 'x'), at(1, 3, 'y')];
    for (const edits of [
      [first, second],
      [second, first],
    ])
      expect(() => applyEdits('abc', edits)).toThrow(
        expect.objectContaining({
          name: 'EditOverlapError',
          message: 'Two edits claim the same text: 0–2 ("x") and 1–3 ("y").',
          first,
          second,
        }),
      );
    expect(() => applyEdits('abc', [at(0, 3, 'x'), at(2, 2, 'y')])).toThrow(EditOverlapError);
  });
});

describe('the edit between two texts', () => {
  it('is none for equal texts', () => {
    expect(editBetween('a', 'a')).toBe(undefined);
  });

  it('is the smallest: its ends differ from what they replace', () => {
    expect(editBetween('abcd', 'abxd')).toEqual(at(2, 3, 'x'));
    expect(editBetween('aa', 'aaa')).toEqual(at(2, 2, 'a'));
    expect(editBetween('aaa', 'aa')).toEqual(at(2, 3, ''));
    const letters = fc.string({ unit: fc.constantFrom('a', 'b'), maxLength: 8 });
    fc.assert(
      fc.property(letters, letters, (before, after) => {
        const edit = editBetween(before, after);
        if (!edit) return;
        const replaced = before.slice(edit.start, edit.end);
        if (replaced === '' || edit.text === '') return;
        expect(edit.text[0]).not.toBe(replaced[0]);
        expect(edit.text.at(-1)).not.toBe(replaced.at(-1));
      }),
    );
  });
});

describe('edits in a block', () => {
  const block = { open: '<list>', close: '</list>' };

  it('share its lines at one place, each once', () => {
    const edits = [
      { ...at(1, 1, 'a'), block },
      { ...at(1, 1, 'b'), block: { ...block } },
      { ...at(1, 1, 'a'), block },
    ];
    expect(withBlocks(edits)).toEqual([at(1, 1, '<list>ab</list>')]);
  });

  it('have their own at another place, or where the lines around are others', () => {
    const edits = [
      { ...at(1, 1, 'a'), block },
      { ...at(2, 2, 'b'), block },
      { ...at(1, 1, 'c'), block: { ...block, open: '<other>' } },
    ];
    expect(withBlocks(edits)).toEqual([
      at(1, 1, '<list>a</list>'),
      at(2, 2, '<list>b</list>'),
      at(1, 1, '<other>c</list>'),
    ]);
  });

  it('leave others as they are, in their order', () => {
    const edits = [at(0, 1, 'x'), { ...at(1, 1, 'a'), block }, at(2, 2, 'y'), { ...at(1, 1, 'b'), block }];
    expect(withBlocks(edits)).toEqual([at(0, 1, 'x'), at(1, 1, '<list>ab</list>'), at(2, 2, 'y')]);
  });
});
