import { appId } from './app-id.js';
import { applicationClass } from './application-class.js';
import { attributionId } from './attribution-id.js';
import { bannerView } from './banner-view.js';
import { binary } from './binary.js';
import { buildPlugin } from './build-plugin.js';
import { call } from './call.js';
import { callback } from './callback.js';
import { client } from './client.js';
import { companion } from './companion.js';
import { compileSdk } from './compile-sdk.js';
import { component } from './component.js';
import { dependency } from './dependency.js';
import { deploymentTarget } from './deployment-target.js';
import { extension } from './extension.js';
import { framework } from './framework.js';
import { frameworkCall } from './framework-call.js';
import { handFlag } from './hand-flag.js';
import { identifier } from './identifier.js';
import { kotlin } from './kotlin.js';
import { leftOpen } from './left-open.js';
import { linkerFlag } from './linker-flag.js';
import { linking } from './linking.js';
import { localeOverride } from './locale-override.js';
import { mergeConflict } from './merge-conflict.js';
import { minSdk } from './min-sdk.js';
import { nativeLibraries } from './native-libraries.js';
import { permission } from './permission.js';
import { placementSettings } from './placement-settings.js';
import { placementUse } from './placement-use.js';
import { plistKey } from './plist-key.js';
import { pluginEntry } from './plugin-entry.js';
import { repository } from './repository.js';
import { resolvedVersion } from './resolved-version.js';
import { staleFolder } from './stale-folder.js';
import { symbol } from './symbol.js';
import { targetSdk } from './target-sdk.js';
import { template } from './template.js';
import { unitId } from './unit-id.js';
import { workspace } from './workspace.js';

/** Every kind of fact, in the order in which people read them. */
export const factDefinitions = [
  identifier,
  minSdk,
  compileSdk,
  targetSdk,
  deploymentTarget,
  appId,
  unitId,
  permission,
  dependency,
  plistKey,
  attributionId,
  companion,
  repository,
  kotlin,
  buildPlugin,
  binary,
  component,
  applicationClass,
  mergeConflict,
  localeOverride,
  bannerView,
  linkerFlag,
  resolvedVersion,
  extension,
  workspace,
  callback,
  call,
  placementUse,
  placementSettings,
  framework,
  frameworkCall,
  handFlag,
  linking,
  leftOpen,
  pluginEntry,
  client,
  staleFolder,
  symbol,
  template,
  nativeLibraries,
] as const;
