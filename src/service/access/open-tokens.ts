import { openHome } from '../../disk/home/home-folder.js';
import { openStore } from '../store/open.js';
import { TokenStore } from './token-store.js';

/** The tokens of a data folder, open for a command of its owner. */
export interface OpenTokens {
  tokens: TokenStore;
  /** What could be read by others, in sentences. */
  narrowed: string[];
  close: () => void;
}

/** Opens the tokens of a data folder; a service may be running on it meanwhile. */
export function openTokens(home: string): OpenTokens {
  const narrowed = openHome(home);
  const store = openStore(home);
  return { tokens: new TokenStore(store.db), narrowed, close: () => store.close() };
}
