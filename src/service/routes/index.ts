import type { Handlers, OpenRoute } from '../route.js';
import { acceptanceHandlers } from './acceptances.js';
import { adoptingHandlers } from './adopting.js';
import { appAdsHandlers } from './app-ads.js';
import { attributionHandlers } from './attribution.js';
import { inventoryHandlers } from './inventory.js';
import { networkHandlers } from './networks.js';
import { overviewHandlers } from './overview.js';
import { rehearsalHandlers } from './rehearsals.js';
import { rosterDocumentHandlers } from './roster-document.js';
import { snapshotHandlers } from './snapshots.js';
import { stepsHandlers } from './steps.js';
import { tagHandlers } from './tags.js';
import { tallyHandlers } from './tally.js';
import { titleHandlers } from './titles.js';
import { treeHandlers } from './trees.js';

/** A handler for every route that needs a role. One that lacks does not compile. */
export const handlers: Omit<Handlers, OpenRoute> = {
  ...acceptanceHandlers,
  ...adoptingHandlers,
  ...appAdsHandlers,
  ...attributionHandlers,
  ...inventoryHandlers,
  ...networkHandlers,
  ...overviewHandlers,
  ...rehearsalHandlers,
  ...rosterDocumentHandlers,
  ...snapshotHandlers,
  ...stepsHandlers,
  ...tagHandlers,
  ...tallyHandlers,
  ...titleHandlers,
  ...treeHandlers,
};
