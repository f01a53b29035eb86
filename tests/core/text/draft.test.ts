import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Draft } from '../../../src/core/text/draft.js';
import { applyEdits } from '../../../src/core/text/edit.js';

const step = fc.record({ at: fc.nat(60), length: fc.nat(12), text: fc.string({ maxLength: 8 }) });

it('turns steps into edits of the original, whatever the steps are', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 50 }), fc.array(step, { maxLength: 12 }), (original, steps) => {
      const draft = new Draft(original);
      let text = original;
      for (const { at, length, text: put } of steps) {
        const start = Math.min(at, text.length);
        const edit = { start, end: Math.min(start + length, text.length), text: put };
        text = applyEdits(text, [edit]);
        draft.apply([edit]);
        expect(draft.text).toBe(text);
      }
      expect(applyEdits(original, draft.edits)).toBe(text);
    }),
  );
});

it('keeps steps at different places apart, and leaves out what was put in and taken out again', () => {
  const draft = new Draft('one two three');
  draft.apply([
    { start: 4, end: 7, text: 'second' },
    { start: 0, end: 0, text: '- ' },
  ]);
  draft.apply([{ start: 13, end: 18, text: 'third' }]);
  expect(draft.edits).toEqual([
    { start: 0, end: 0, text: '- ' },
    { start: 4, end: 7, text: 'second' },
    { start: 8, end: 13, text: 'third' },
  ]);
  draft.apply([{ start: 0, end: 2, text: '' }]);
  expect(draft.edits).toHaveLength(2);
});
