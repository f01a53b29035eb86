import type { BoardCell } from './model.js';

/** A cell's state as it is shown: told by a word and a shape, never by colour alone. */
export interface CellState {
  shape: string;
  word: string;
  tone: 'good' | 'bad' | 'open' | 'quiet';
}

/** One word and shape for a cell, the worse of record and build first. */
export function cellState({
  record,
  build,
  left,
}: Pick<BoardCell, 'record' | 'build'> & { left?: string | null }): CellState {
  if (record === 'not-offered') return { shape: '·', word: 'not offered', tone: 'quiet' };
  if (record === 'not-used') return { shape: '·', word: 'not used', tone: 'quiet' };
  if (record === 'missing') return { shape: '□', word: 'missing', tone: 'bad' };
  if (record === 'clash') return { shape: '✕', word: 'clash', tone: 'bad' };
  if (record === 'unknown-to-partner') return { shape: '✕', word: 'unknown to the network', tone: 'bad' };
  if (build === 'differs') return { shape: '✕', word: 'differs', tone: 'bad' };
  if (build === 'absent') return { shape: '□', word: 'not in build', tone: 'bad' };
  if (build === 'cannot-tell') return { shape: '?', word: 'cannot tell', tone: 'open' };
  if (build === 'unread')
    return { shape: '○', word: record === 'sample' ? 'sample, unread' : 'set, unread', tone: 'open' };
  if (record === 'too-new')
    return { shape: '◔', word: left ? `too new, ${left} left` : 'too new', tone: 'open' };
  return { shape: '●', word: record === 'sample' ? 'sample' : 'set', tone: 'good' };
}
