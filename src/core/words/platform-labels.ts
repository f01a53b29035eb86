import type { platformNames } from './names.js';

/** Platforms as people write them. */
export const platformLabels = { android: 'Android', ios: 'iOS' } as const satisfies Record<
  (typeof platformNames)[number],
  string
>;
export type PlatformKey = keyof typeof platformLabels;

/** Replaces the keys of platforms in a text by their labels. */
export function withPlatformLabels(text: string): string {
  return text.replace(/\b(?:android|ios)\b/g, (key) => platformLabels[key as PlatformKey]);
}
