import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Logger } from 'pino';
import type { Profile } from '../core/network/model.js';
import { readProfile } from '../core/network/read.js';

/** A profile with the text that it was read from. */
export interface LoadedProfile {
  profile: Profile;
  source: string;
  /** Whether it came with Syndexa; the others stand in the data folder. */
  shipped: boolean;
}

/** Reads the profiles that ship, then those in the data folder; a later one of the same ID wins. */
export function loadProfiles(home: string, log: Logger): LoadedProfile[] {
  const found = new Map<string, LoadedProfile>();
  for (const loaded of [...shippedProfiles(), ...ownProfiles(join(home, 'profiles'), log)])
    found.set(loaded.profile.id, loaded);
  return [...found.values()];
}

/** In a build the shipped profiles were read and checked beforehand; in the sources they are read as they are. */
function shippedProfiles(): LoadedProfile[] {
  const here = dirname(fileURLToPath(import.meta.url));
  const made = join(here, '..', 'profiles');
  if (existsSync(made)) {
    return names(made, '.json').map((name) => {
      const { profile, source } = JSON.parse(readFileSync(join(made, name), 'utf8')) as Pick<
        LoadedProfile,
        'profile' | 'source'
      >;
      return { profile, source, shipped: true };
    });
  }
  const folder = join(here, '..', '..', 'profiles');
  return names(folder, '.yaml').map((name) => {
    const source = readFileSync(join(folder, name), 'utf8');
    const { profile, problems } = readProfile(source);
    if (!profile) throw new Error(`The shipped profile ${name} has faults: ${JSON.stringify(problems)}`);
    return { profile, source, shipped: true };
  });
}

function ownProfiles(folder: string, log: Logger): LoadedProfile[] {
  if (!existsSync(folder)) return [];
  return names(folder, '.yaml').flatMap((name) => {
    const source = readFileSync(join(folder, name), 'utf8');
    const { profile, problems } = readProfile(source);
    if (profile) return [{ profile, source, shipped: false }];
    log.warn({ file: join(folder, name), problems }, 'A profile has faults and is left out.');
    return [];
  });
}

function names(folder: string, ending: string): string[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith(ending))
    .sort();
}
