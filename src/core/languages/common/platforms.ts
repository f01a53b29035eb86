import { platformNames } from '../../words/names.js';
import type { Platform } from '../../words/words.js';
import { networksOf, type PlacebookPlacement, type PlacebookStage } from './placebook.js';

/** What a placebook says on each platform that a tree builds, for both stages. */
export type SharedBooks = Partial<Record<Platform, { test: PlacebookStage; production: PlacebookStage }>>;

/** The names of all placements, in the order of the roster. */
export function namesInBooks(books: SharedBooks): string[] {
  const all = Object.values(books).flatMap(({ production, test }) => [
    ...production.placements,
    ...test.placements,
  ]);
  return [...new Set(all.map(({ name }) => name))];
}

export function platformsOf(books: SharedBooks): Platform[] {
  return platformNames.filter((platform) => books[platform]);
}

/** The networks to try on either platform, in order. */
export function fallbackOf(placements: readonly PlacebookPlacement[]): { fallback?: string[] } {
  const all = placements.flatMap(({ settings }) => settings.fallback ?? []);
  return all.length === 0 ? {} : { fallback: [...new Set(all)] };
}

/** The networks that take an app ID in code on either platform, in order of the alphabet. */
export function appNetworks(books: SharedBooks): string[] {
  const networks = Object.values(books).flatMap(({ test, production }) => [
    ...Object.keys(test.apps),
    ...Object.keys(production.apps),
  ]);
  return [...new Set(networks)].sort();
}

/** The only platform that has one of the networks that `isIt` selects; undefined if all platforms have one, or none. */
export function onlyPlatform(books: SharedBooks, isIt: (network: string) => boolean): Platform | undefined {
  const platforms = platformsOf(books);
  const on = platforms.filter((platform) => {
    const { test, production } = books[platform] ?? {};
    return networksOf([test, production].flatMap((book) => book ?? [])).some(isIt);
  });
  return on.length === platforms.length ? undefined : on[0];
}
