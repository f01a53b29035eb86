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
  for (const [folder, shipped] of [
    [shippedFolder(), true],
    [join(home, 'profiles'), false],
  ] as const) {
    if (!existsSync(folder)) continue;
    for (const name of readdirSync(folder)
      .filter((file) => file.endsWith('.yaml'))
      .sort()) {
      const source = readFileSync(join(folder, name), 'utf8');
      const { profile, problems } = readProfile(source);
      if (profile) found.set(profile.id, { profile, source, shipped });
      else log.warn({ file: join(folder, name), problems }, 'A profile has faults and is left out.');
    }
  }
  return [...found.values()];
}

function shippedFolder(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  const candidates = [
    join(here, 'profiles'),
    join(here, '..', 'profiles'),
    join(here, '..', '..', 'profiles'),
  ];
  return candidates.find((folder) => existsSync(join(folder, 'cobalt-heron.yaml'))) ?? join(here, 'profiles');
}
