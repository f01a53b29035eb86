import type { Platform } from '../words/words.js';
import type { Day } from './days.js';

/** A released version. */
export interface Release {
  title: string;
  platform: Platform;
  version: string;
  day: Day;
}

/**
 * Returns the version that was the newest on a day, from the day after the release on: on its first day, most people
 * still use the one before it. Null before the first release.
 */
export function releaseOn(releases: readonly Release[], platform: Platform, day: Day): Release | null {
  let newest: Release | null = null;
  for (const release of releases)
    if (release.platform === platform && release.day < day && (!newest || release.day >= newest.day))
      newest = release;
  return newest;
}
