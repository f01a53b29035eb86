import type { Profile } from '../network/model.js';
import { valueAt } from '../text/own-values.js';
import type { Format } from '../words/words.js';
import type { Title } from './model.js';

/** The formats of the placements that a title has on a network. */
export function formatsOn(title: Title, network: string): Set<Format> {
  return new Set(
    Object.values(title.placements).flatMap(({ format, units }) => (valueAt(units, network) ? [format] : [])),
  );
}

/** A profile with the dependencies that a title needs: those for formats that it does not use are left out. */
export function neededBy(title: Title, profile: Profile): Profile {
  const used = formatsOn(title, profile.id);
  const isNeeded = ({ formats }: { formats?: Format[] | undefined }) =>
    formats === undefined || formats.some((format) => used.has(format));
  const { android, ios } = profile;
  const all = [...(android?.dependencies ?? []), ...(ios?.pods ?? []), ...(ios?.packages ?? [])];
  if (all.every(isNeeded)) return profile;
  const known = narrowedProfiles.get(profile) ?? new Map<string, Profile>();
  narrowedProfiles.set(profile, known);
  const key = [...used].sort().join(' ');
  const made = known.get(key) ?? {
    ...profile,
    ...(android ? { android: { ...android, dependencies: android.dependencies.filter(isNeeded) } } : {}),
    ...(ios
      ? { ios: { ...ios, pods: ios.pods.filter(isNeeded), packages: ios.packages.filter(isNeeded) } }
      : {}),
  };
  known.set(key, made);
  return made;
}

const narrowedProfiles = new WeakMap<Profile, Map<string, Profile>>();
