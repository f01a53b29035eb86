import type { Rule } from '../model.js';
import { appIdDiffersFromRoster } from './app-id-differs-from-roster.js';
import { appIdDuplicated } from './app-id-duplicated.js';
import { appIdMalformed } from './app-id-malformed.js';
import { appIdMissing } from './app-id-missing.js';
import { appIdNestedTooDeep } from './app-id-nested-too-deep.js';
import { appIdNotInRoster } from './app-id-not-in-roster.js';
import { appIdUnitIdInPlace } from './app-id-unit-id-in-place.js';
import { appIdWrongPlatform } from './app-id-wrong-platform.js';
import { attributionIdMalformed } from './attribution-id-malformed.js';
import { attributionIdMissing } from './attribution-id-missing.js';
import { attributionIdTwice } from './attribution-id-twice.js';
import { dependencyMissing } from './build-dependency-missing.js';
import { platformLevelTooLow } from './build-platform-level-too-low.js';
import { companionIdentifierDiffers } from './companion-identifier-differs.js';
import { companionMissing } from './companion-missing.js';
import { identifierDiffersFromRoster } from './identifier-differs-from-roster.js';
import { editionNotFound } from './identifier-edition-not-found.js';
import { permissionMissing } from './manifest-permission-missing.js';
import { partnerAppAudienceDiffers } from './partner-app-audience-differs.js';
import { partnerAppGone } from './partner-app-gone.js';
import { partnerAppIdentifierDiffers } from './partner-app-identifier-differs.js';
import { partnerSettingsDiffer } from './partner-settings-differ.js';
import { partnerTermsOpen } from './partner-terms-open.js';
import { partnerUnitFormatChanged } from './partner-unit-format-changed.js';
import { partnerUnitGone } from './partner-unit-gone.js';
import { partnerUnitPaused } from './partner-unit-paused.js';
import { partnerUnitRenamed } from './partner-unit-renamed.js';
import { partnerUnitTooNew } from './partner-unit-too-new.js';
import { partnerUnitWrongPlatform } from './partner-unit-wrong-platform.js';
import { productionIdInTest } from './stage-production-id-in-test.js';
import { testIdInProduction } from './stage-test-id-in-production.js';
import { variantUnmatched } from './stage-variant-unmatched.js';
import { brokenFile } from './tree-broken-file.js';
import { cannotTell } from './tree-cannot-tell.js';
import { fileNotRead } from './tree-file-not-read.js';
import { unitIdNotInBuild } from './unit-id-not-in-build.js';
import { unitIdNotInRoster } from './unit-id-not-in-roster.js';

/** Every rule, in the order of their files. A test compares this list with the folder. */
export const rules: readonly Rule[] = [
  appIdDiffersFromRoster,
  appIdDuplicated,
  appIdMalformed,
  appIdMissing,
  appIdNestedTooDeep,
  appIdNotInRoster,
  appIdUnitIdInPlace,
  appIdWrongPlatform,
  attributionIdMalformed,
  attributionIdMissing,
  attributionIdTwice,
  dependencyMissing,
  platformLevelTooLow,
  companionIdentifierDiffers,
  companionMissing,
  identifierDiffersFromRoster,
  editionNotFound,
  permissionMissing,
  partnerAppAudienceDiffers,
  partnerAppGone,
  partnerAppIdentifierDiffers,
  partnerSettingsDiffer,
  partnerTermsOpen,
  partnerUnitFormatChanged,
  partnerUnitGone,
  partnerUnitPaused,
  partnerUnitRenamed,
  partnerUnitTooNew,
  partnerUnitWrongPlatform,
  productionIdInTest,
  testIdInProduction,
  variantUnmatched,
  brokenFile,
  cannotTell,
  fileNotRead,
  unitIdNotInBuild,
  unitIdNotInRoster,
];
