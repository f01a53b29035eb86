import { describe, expect, it } from 'vitest';
import type { Board, BoardCell } from '../../../src/core/board/model.js';
import { portfolioEntry } from '../../../src/core/portfolio/portfolio.js';

const cell = (state: Partial<BoardCell>): BoardCell => ({
  platform: 'android',
  stage: 'production',
  record: 'set',
  build: 'agrees',
  id: 'CH-U-310772-DDDD3333',
  found: [],
  why: '',
  left: null,
  rehearsed: null,
  ...state,
});
const none = { blocker: 0, warning: 0, note: 0 };
function board(cells: Partial<BoardCell>[], summary: Board['editions'][number]['summary'] = none): Board {
  return {
    title: 'kelp',
    name: 'Kelp',
    editions: [
      {
        platform: 'android',
        identifier: 'example.brine.kelp',
        found: null,
        tree: 'kelp',
        before: null,
        snapshot: 's',
        readAt: '2026-11-15T12:00:00Z',
        summary,
      },
    ],
    rows: cells.map((state, at) => ({
      placement: at === 0 ? null : `page-${at}`,
      format: at === 0 ? null : 'banner',
      network: 'cobalt-heron',
      networkName: 'Cobalt Heron',
      label: 'unit ID',
      cells: [cell(state)],
    })),
    good: true,
  };
}
const stateOf = (...given: Parameters<typeof board>) => portfolioEntry(board(...given), null).state;

describe('a title in short', () => {
  it('agrees when every cell does, whatever warnings and notes there are', () => {
    expect(stateOf([{}, {}])).toBe('agrees');
    expect(stateOf([{}], { blocker: 0, warning: 3, note: 2 })).toBe('agrees');
    expect(stateOf([{}, { record: 'not-used', build: 'nothing-expected' }])).toBe('agrees');
  });

  it('needs work for one blocker, and for one cell that lacks or differs', () => {
    expect(stateOf([{}], { blocker: 1, warning: 0, note: 0 })).toBe('wrong');
    for (const state of [
      { record: 'missing' },
      { record: 'clash' },
      { build: 'differs' },
      { build: 'absent' },
    ] as const)
      expect([state, stateOf([{}, state])]).toEqual([state, 'wrong']);
  });

  it('is open where nothing was read or reading cannot tell, and empty without any network', () => {
    expect(stateOf([{}], null)).toBe('open');
    expect(stateOf([{}, { build: 'cannot-tell' }])).toBe('open');
    expect(stateOf([{}, { build: 'unread' }])).toBe('open');
    expect(stateOf([])).toBe('empty');
  });

  it('counts its cells by what they say, and each placement once', () => {
    const entry = portfolioEntry(board([{}, {}, { build: 'differs' }, { build: 'unread' }]), null);
    expect(entry).toMatchObject({
      cells: { agree: 2, wrong: 1, open: 1 },
      placements: 3,
      networks: ['cobalt-heron'],
    });
  });
});
