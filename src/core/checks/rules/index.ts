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
import { binaryMissing } from './build-binary-missing.js';
import { dependencyMissing } from './build-dependency-missing.js';
import { dependencyTooOld } from './build-dependency-too-old.js';
import { dependencyTwice } from './build-dependency-twice.js';
import { feedMissing } from './build-feed-missing.js';
import { frameworkTooOld } from './build-framework-too-old.js';
import { installNotRun } from './build-install-not-run.js';
import { kotlinTooNew } from './build-kotlin-too-new.js';
import { kotlinTooOld } from './build-kotlin-too-old.js';
import { locksDisagree } from './build-locks-disagree.js';
import { nativeFolderStale } from './build-native-folder-stale.js';
import { nativeNotFetched } from './build-native-not-fetched.js';
import { notLocked } from './build-not-locked.js';
import { packageNotLinked } from './build-package-not-linked.js';
import { platformLevelTooLow } from './build-platform-level-too-low.js';
import { pluginEntryMissing } from './build-plugin-entry-missing.js';
import { pluginMissing } from './build-plugin-missing.js';
import { repositoryForbidden } from './build-repository-forbidden.js';
import { repositoryMissing } from './build-repository-missing.js';
import { repositoryPassedOver } from './build-repository-passed-over.js';
import { stockClient } from './build-stock-client.js';
import { symbolMissing } from './build-symbol-missing.js';
import { templateSwitchedOff } from './build-template-switched-off.js';
import { versionHeldBack } from './build-version-held-back.js';
import { versionsDifferAcrossPlatforms } from './build-versions-differ-across-platforms.js';
import { failureNotHandled } from './code-failure-not-handled.js';
import { hardCodedId } from './code-hard-coded-id.js';
import { keptBeyondScreen } from './code-kept-beyond-screen.js';
import { listenerKept } from './code-listener-kept.js';
import { loadBeforeStart } from './code-load-before-start.js';
import { madeWhileBuilding } from './code-made-while-building.js';
import { neverReleased } from './code-never-released.js';
import { neverStarted } from './code-never-started.js';
import { noWayOn } from './code-no-way-on.js';
import { showOnReturn } from './code-show-on-return.js';
import { showWithoutCheck } from './code-show-without-check.js';
import { startBeforeReady } from './code-start-before-ready.js';
import { startWithoutLimit } from './code-start-without-limit.js';
import { startedTwice } from './code-started-twice.js';
import { testDeviceInProduction } from './code-test-device-in-production.js';
import { wrongFormat } from './code-wrong-format.js';
import { companionIdentifierDiffers } from './companion-identifier-differs.js';
import { companionMissing } from './companion-missing.js';
import { companionOutsideTarget } from './companion-outside-target.js';
import { identifierDiffersFromRoster } from './identifier-differs-from-roster.js';
import { editionNotFound } from './identifier-edition-not-found.js';
import { applicationClassMissing } from './manifest-application-class-missing.js';
import { bannerNotAnchored } from './manifest-banner-not-anchored.js';
import { componentMissing } from './manifest-component-missing.js';
import { layoutNamespace } from './manifest-layout-namespace.js';
import { mergeConflict } from './manifest-merge-conflict.js';
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
import { branchesSwapped } from './platform-branches-swapped.js';
import { caseMissing } from './platform-case-missing.js';
import { formatDiffers } from './platform-format-differs.js';
import { oneIdForBoth } from './platform-one-id-for-both.js';
import { placementOnOneSide } from './platform-placement-on-one-side.js';
import { pluginOneSided } from './platform-plugin-one-sided.js';
import { settingDiffers } from './platform-setting-differs.js';
import { generatedKeyIgnored } from './plist-generated-key-ignored.js';
import { plistKeyMissing } from './plist-key-missing.js';
import { plistKeyWrongType } from './plist-key-wrong-type.js';
import { linkerFlagMissing } from './plist-linker-flag-missing.js';
import { plistSharedByTargets } from './plist-shared-by-targets.js';
import { audienceNotServed } from './privacy-audience-not-served.js';
import { childrenAskedToTrack } from './privacy-children-asked-to-track.js';
import { manifestDeniesTracking } from './privacy-manifest-denies-tracking.js';
import { trackingTextEmpty } from './privacy-tracking-text-empty.js';
import { trackingTextMissing } from './privacy-tracking-text-missing.js';
import { capBeyondNetwork } from './roster-cap-beyond-network.js';
import { capWithoutEffect } from './roster-cap-without-effect.js';
import { capWithoutPeriod } from './roster-cap-without-period.js';
import { nearDuplicateIds } from './roster-near-duplicate-ids.js';
import { noContentKind } from './roster-no-content-kind.js';
import { refreshOutOfBounds } from './roster-refresh-out-of-bounds.js';
import { rewardedSkippable } from './roster-rewarded-skippable.js';
import { rewardedWithoutReward } from './roster-rewarded-without-reward.js';
import { sameIdTwice } from './roster-same-id-twice.js';
import { timeoutOutOfBounds } from './roster-timeout-out-of-bounds.js';
import { twoAccounts } from './roster-two-accounts.js';
import { vagueName } from './roster-vague-name.js';
import { handWrittenFlag } from './stage-hand-written-flag.js';
import { productionIdInTest } from './stage-production-id-in-test.js';
import { testIdInProduction } from './stage-test-id-in-production.js';
import { variantUnmatched } from './stage-variant-unmatched.js';
import { brokenFile } from './tree-broken-file.js';
import { cannotTell } from './tree-cannot-tell.js';
import { fileNotRead } from './tree-file-not-read.js';
import { appIdInUnitPlace } from './unit-id-app-id-in-place.js';
import { unitIdNotInBuild } from './unit-id-not-in-build.js';
import { unitIdNotInRoster } from './unit-id-not-in-roster.js';
import { overriddenByLocale } from './unit-id-overridden-by-locale.js';
import { unitIdUnknown } from './unit-id-unknown.js';
import { unitIdWrongPlatform } from './unit-id-wrong-platform.js';

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
  binaryMissing,
  dependencyMissing,
  dependencyTooOld,
  dependencyTwice,
  feedMissing,
  frameworkTooOld,
  installNotRun,
  kotlinTooNew,
  kotlinTooOld,
  locksDisagree,
  nativeFolderStale,
  nativeNotFetched,
  notLocked,
  packageNotLinked,
  platformLevelTooLow,
  pluginEntryMissing,
  pluginMissing,
  repositoryForbidden,
  repositoryMissing,
  repositoryPassedOver,
  stockClient,
  symbolMissing,
  templateSwitchedOff,
  versionHeldBack,
  versionsDifferAcrossPlatforms,
  failureNotHandled,
  hardCodedId,
  keptBeyondScreen,
  listenerKept,
  loadBeforeStart,
  madeWhileBuilding,
  neverReleased,
  neverStarted,
  noWayOn,
  showOnReturn,
  showWithoutCheck,
  startBeforeReady,
  startWithoutLimit,
  startedTwice,
  testDeviceInProduction,
  wrongFormat,
  companionIdentifierDiffers,
  companionMissing,
  companionOutsideTarget,
  identifierDiffersFromRoster,
  editionNotFound,
  applicationClassMissing,
  bannerNotAnchored,
  componentMissing,
  layoutNamespace,
  mergeConflict,
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
  branchesSwapped,
  caseMissing,
  formatDiffers,
  oneIdForBoth,
  placementOnOneSide,
  pluginOneSided,
  settingDiffers,
  generatedKeyIgnored,
  plistKeyMissing,
  plistKeyWrongType,
  linkerFlagMissing,
  plistSharedByTargets,
  audienceNotServed,
  childrenAskedToTrack,
  manifestDeniesTracking,
  trackingTextEmpty,
  trackingTextMissing,
  capBeyondNetwork,
  capWithoutEffect,
  capWithoutPeriod,
  nearDuplicateIds,
  noContentKind,
  refreshOutOfBounds,
  rewardedSkippable,
  rewardedWithoutReward,
  sameIdTwice,
  timeoutOutOfBounds,
  twoAccounts,
  vagueName,
  handWrittenFlag,
  productionIdInTest,
  testIdInProduction,
  variantUnmatched,
  brokenFile,
  cannotTell,
  fileNotRead,
  appIdInUnitPlace,
  unitIdNotInBuild,
  unitIdNotInRoster,
  overriddenByLocale,
  unitIdUnknown,
  unitIdWrongPlatform,
];
