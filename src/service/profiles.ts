import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Logger } from 'pino';
import type { Profile } from '../core/network/model.js';
import { readProfile } from '../core/network/read.js';
import { ServiceError } from './errors.js';

/** A profile with the text that it was read from. */
export interface LoadedProfile {
  profile: Profile;
  source: string;
  /** Whether it came with Syndexa; the others stand in the data folder. */
  shipped: boolean;
}

/** The profiles that ship, then those in the data folder; a later one of the same ID wins. */
export class ProfileShelf {
  readonly #found = new Map<string, LoadedProfile>();
  readonly #folder: string;

  constructor(home: string, log: Logger) {
    this.#folder = join(home, 'profiles');
    for (const loaded of [...shippedProfiles(), ...ownProfiles(this.#folder, log)])
      this.#found.set(loaded.profile.id, loaded);
  }

  loaded(): LoadedProfile[] {
    return [...this.#found.values()];
  }

  profiles(): Profile[] {
    return this.loaded().map(({ profile }) => profile);
  }

  /** A profile by its ID; an error that names the known ones when there is none. */
  get(id: string): LoadedProfile {
    const found = this.#found.get(id);
    if (found) return found;
    throw new ServiceError('not-found', `There is no profile of the network ${id}.`, {
      fix: `The networks are ${[...this.#found.keys()].join(', ')}.`,
    });
  }

  /** Keeps a profile in the data folder. Its ID was checked with it, so it is a plain file name. */
  add(profile: Profile, source: string): LoadedProfile {
    const loaded = { profile, source, shipped: false };
    mkdirSync(this.#folder, { recursive: true });
    const path = join(this.#folder, `${profile.id}.yaml`);
    writeFileSync(`${path}.new`, source);
    renameSync(`${path}.new`, path);
    this.#found.set(profile.id, loaded);
    return loaded;
  }
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
