import type { PortfolioState } from '../../../core/portfolio/states.js';

/** A state by word and shape, never by colour alone. */
export const stateWords: Record<PortfolioState, { word: string; shape: string; tone: string }> = {
  wrong: { word: 'needs work', shape: '■', tone: 'bad' },
  open: { word: 'cannot tell', shape: '○', tone: 'open' },
  empty: { word: 'nothing wired', shape: '□', tone: 'quiet' },
  agrees: { word: 'agrees', shape: '●', tone: 'good' },
};
