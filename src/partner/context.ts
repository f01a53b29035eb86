import type { Profile } from '../core/network/model.js';
import type { PartnerClock } from './clock.js';
import { Refusal } from './errors.js';
import type { Faults } from './faults.js';
import type { ReportDesk } from './reports/desk.js';
import type { Market } from './serving/market.js';
import type { Books } from './store/books.js';
import type { Ledger } from './store/ledger.js';

/** What the partner's routes work with. */
export interface PartnerContext {
  books: Books;
  ledger: Ledger;
  market: Market;
  reports: ReportDesk;
  clock: PartnerClock;
  faults: Faults;
  profiles: ReadonlyMap<string, Profile>;
}

/** The network that an address names. */
export function networkOf({ profiles }: PartnerContext, name: string | undefined): Profile {
  const profile = profiles.get(name ?? '');
  if (profile) return profile;
  throw new Refusal('not-found', `There is no network ${String(name)} here.`, {
    networks: [...profiles.keys()],
  });
}
