import type { SettingsScope } from './settings.js';
import { settingOf } from './settings.js';

/** What the SDKs of Apple are called, by the beginnings of the values of `SDKROOT` and `SUPPORTED_PLATFORMS`. */
const names: readonly [start: string, platform: string][] = [
  ['iphone', 'iOS'],
  ['macosx', 'macOS'],
  ['appletv', 'tvOS'],
  ['watch', 'watchOS'],
  ['xr', 'visionOS'],
];

/**
 * The platforms that a target is built for in one configuration: those that `SUPPORTED_PLATFORMS` names, else the one
 * of `SDKROOT` (Apple, "Build settings reference"). Empty where neither is set, or says what is not known here.
 */
export function platformsOf(scope: SettingsScope): string[] {
  const supported = settingOf(scope, 'SUPPORTED_PLATFORMS')?.value;
  const root = settingOf(scope, 'SDKROOT')?.value;
  const words = (supported ?? root ?? '').split(/\s+/).filter((word) => word !== 'auto' && word !== '');
  const found = words.map((word) => names.find(([start]) => word.toLowerCase().startsWith(start))?.[1]);
  return [...new Set(found.flatMap((name) => name ?? []))];
}
