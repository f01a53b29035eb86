import type { EditionScope } from './scope.js';

/** The text that is shown when the system asks for leave to track. */
export const trackingKey = 'NSUserTrackingUsageDescription';

/** The variants of an edition whose property list lacks a key. */
export function withoutKey({ facts, edition }: EditionScope, key: string): string[] {
  const held = facts.filter(
    ({ kind, name, standsIn }) => kind === 'plist-key' && name === key && !standsIn?.includes(' '),
  );
  return edition.variants
    .map(({ name }) => name)
    .filter((name) => !held.some(({ variants }) => variants.includes(name)));
}
