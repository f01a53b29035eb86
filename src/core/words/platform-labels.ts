import type { Platform } from './words.js';

/** Platforms as people write them. */
export const platformLabels = { android: 'Android', ios: 'iOS' } as const satisfies Record<Platform, string>;

/** Replaces the keys of platforms in a text by their labels. */
export function withPlatformLabels(text: string): string {
  return text.replace(/\b(?:android|ios)\b/g, (key) => platformLabels[key as Platform]);
}
