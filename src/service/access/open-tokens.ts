import { openHome } from '../../disk/home/home-folder.js';
import { openStore } from '../store/open.js';
import { TokenStore } from './token-store.js';

/** Opens the tokens of a data folder, for its owner's commands; a service may be running on it meanwhile. */
export function openTokens(home: string): { tokens: TokenStore; narrowed: string[]; close: () => void } {
  const narrowed = openHome(home);
  const { db, close } = openStore(home);
  return { tokens: new TokenStore(db), narrowed, close };
}
