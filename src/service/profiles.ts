import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Profile } from '../core/network/model.js';
import { profilesIn, shippedProfiles, type SourcedProfile } from '../api/shipped-profiles.js';
import { replaceFile } from '../disk/replace-file.js';
import { ServiceError } from './errors.js';
import type { Log } from './log.js';

/** A profile that the service knows. */
export interface LoadedProfile extends SourcedProfile {
  /** Whether it is built in; the others are in the data folder. */
  shipped: boolean;
}

/** The profiles that ship, then those in the data folder; a later one of the same ID wins. */
export class ProfileShelf {
  readonly #found = new Map<string, LoadedProfile>();
  readonly #folder: string;
  #version = 0;

  constructor(home: string, log: Log) {
    this.#folder = join(home, 'profiles');
    const own = profilesIn(this.#folder, (file, problems) =>
      log.warn({ file, problems }, 'A profile has faults and is not used.'),
    );
    for (const sourced of shippedProfiles())
      this.#found.set(sourced.profile.id, { ...sourced, shipped: true });
    for (const sourced of own) this.#found.set(sourced.profile.id, { ...sourced, shipped: false });
  }

  /** Grows whenever a profile is added or replaced. */
  get version(): number {
    return this.#version;
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

  /** A profile by its ID, where there is one. */
  find(id: string): LoadedProfile | undefined {
    return this.#found.get(id);
  }

  /** Whether there is a built-in profile of this ID, below one that replaces it. */
  shippedUnder(id: string): boolean {
    return shippedProfiles().some(({ profile }) => profile.id === id);
  }

  /** Forgets a profile of the data folder. One that ships under the same ID is known again. */
  remove(id: string): void {
    rmSync(join(this.#folder, `${id}.yaml`), { force: true });
    const shipped = shippedProfiles().find(({ profile }) => profile.id === id);
    if (shipped) this.#found.set(id, { ...shipped, shipped: true });
    else this.#found.delete(id);
    this.#version++;
  }

  /** The profiles that did not come with Syndexa. */
  own(): LoadedProfile[] {
    return this.loaded().filter(({ shipped }) => !shipped);
  }

  /** Runs something as if profiles were known, and forgets them again. */
  trying<Result>(profiles: readonly SourcedProfile[], work: () => Result): Result {
    const before = new Map(this.#found);
    for (const sourced of profiles) this.#found.set(sourced.profile.id, { ...sourced, shipped: false });
    try {
      return work();
    } finally {
      this.#found.clear();
      for (const [id, loaded] of before) this.#found.set(id, loaded);
    }
  }

  /** Keeps a profile in the data folder. Its ID was checked with it, so it is a plain file name. */
  add(profile: Profile, source: string): LoadedProfile {
    const loaded = { profile, source, shipped: false };
    mkdirSync(this.#folder, { recursive: true });
    replaceFile(join(this.#folder, `${profile.id}.yaml`), source);
    this.#found.set(profile.id, loaded);
    this.#version++;
    return loaded;
  }
}
