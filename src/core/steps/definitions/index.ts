import type { StepDefinition } from '../model.js';
import { app } from './app.js';
import { appAds } from './app-ads.js';
import { buildLevels } from './build-levels.js';
import { declarations } from './declarations.js';
import { dependency } from './dependency.js';
import { placementsInCode } from './placements-in-code.js';
import { productionIds } from './production-ids.js';
import { register } from './register.js';
import { releaseCheck } from './release-check.js';
import { repositories } from './repositories.js';
import { startUp } from './start-up.js';
import { storeListing } from './store-listing.js';
import { terms } from './terms.js';
import { testRun } from './test-run.js';
import { units } from './units.js';

/** Every kind of step, by file name. Their order on the way comes from what they require. */
export const definitions: readonly StepDefinition[] = [
  app,
  appAds,
  buildLevels,
  declarations,
  dependency,
  placementsInCode,
  productionIds,
  register,
  releaseCheck,
  repositories,
  startUp,
  storeListing,
  terms,
  testRun,
  units,
];
