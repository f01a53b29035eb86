import { describe, expect, it } from 'vitest';
import { cellState } from '../../../src/core/board/cell-state.js';
import { BuildState, RecordState } from '../../../src/core/board/model.js';

describe('the state of a cell', () => {
  it.each([
    ['not-offered', 'nothing-expected', '·', 'not offered', 'quiet'],
    ['not-used', 'nothing-expected', '·', 'not used', 'quiet'],
    ['missing', 'absent', '□', 'missing', 'bad'],
    ['clash', 'agrees', '✕', 'clash', 'bad'],
    ['unknown-to-partner', 'agrees', '✕', 'unknown to the network', 'bad'],
    ['set', 'differs', '✕', 'differs', 'bad'],
    ['sample', 'differs', '✕', 'differs', 'bad'],
    ['set', 'absent', '□', 'not in build', 'bad'],
    ['set', 'cannot-tell', '?', 'cannot tell', 'open'],
    ['set', 'unread', '○', 'set, unread', 'open'],
    ['sample', 'unread', '○', 'sample, unread', 'open'],
    ['too-new', 'agrees', '◔', 'too new', 'open'],
    ['too-new', 'absent', '□', 'not in build', 'bad'],
    ['sample', 'agrees', '●', 'sample', 'good'],
    ['set', 'agrees', '●', 'set', 'good'],
  ] as const)('%s and %s', (record, build, shape, word, tone) => {
    expect(cellState({ record, build })).toEqual({ shape, word, tone });
  });

  it('says how long a new unit takes', () => {
    expect(cellState({ record: 'too-new', build: 'agrees', left: '2 h' }).word).toBe('too new, 2 h left');
  });

  it('is told by its word alone, whatever the colours', () => {
    const states = RecordState.options.flatMap((record) =>
      BuildState.options.map((build) => cellState({ record, build })),
    );
    const byWord = new Map(states.map((state) => [state.word, state]));
    for (const state of states) expect(byWord.get(state.word)).toEqual(state);
  });
});
