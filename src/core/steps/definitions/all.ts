// A line for each kind of step.
export { appAds } from './app-ads.js';
export { app } from './app.js';
export { buildLevels } from './build-levels.js';
export { declarations } from './declarations.js';
export { dependency } from './dependency.js';
export { earning } from './earning.js';
export { placementsInCode } from './placements-in-code.js';
export { productionIds } from './production-ids.js';
export { register } from './register.js';
export { releaseCheck } from './release-check.js';
export { repositories } from './repositories.js';
export { startUp } from './start-up.js';
export { storeListing } from './store-listing.js';
export { terms } from './terms.js';
export { testRun } from './test-run.js';
export { units } from './units.js';
