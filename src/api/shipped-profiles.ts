import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Profile } from '../core/network/model.js';
import { readProfile } from '../core/network/read.js';

/** A profile with the text that it was read from. */
export interface SourcedProfile {
  profile: Profile;
  source: string;
}

/**
 * The profiles that ship: in a build they were read and checked beforehand; in the sources they are read as they are.
 */
export function shippedProfiles(): SourcedProfile[] {
  const here = dirname(fileURLToPath(import.meta.url));
  const made = join(here, '..', 'profiles');
  if (existsSync(made))
    return namesIn(made, '.json').map(
      (name) => JSON.parse(readFileSync(join(made, name), 'utf8')) as SourcedProfile,
    );
  const folder = join(here, '..', '..', 'profiles');
  return namesIn(folder, '.yaml').map((name) => {
    const source = readFileSync(join(folder, name), 'utf8');
    const { profile, problems } = readProfile(source);
    if (!profile) throw new Error(`The shipped profile ${name} has faults: ${JSON.stringify(problems)}`);
    return { profile, source };
  });
}

/** The ending of names of unfinished profiles, which are kept beside the others and not loaded. */
export const draftEnding = '.draft.yaml';

/** The profiles of a folder, without drafts; those with faults are handed to `reject` and left out. */
export function profilesIn(
  folder: string,
  reject: (file: string, problems: unknown) => void,
): SourcedProfile[] {
  if (!existsSync(folder)) return [];
  return namesIn(folder, '.yaml').flatMap((name) => {
    if (name.endsWith(draftEnding)) return [];
    const source = readFileSync(join(folder, name), 'utf8');
    const { profile, problems } = readProfile(source);
    if (profile) return [{ profile, source }];
    reject(join(folder, name), problems);
    return [];
  });
}

function namesIn(folder: string, ending: string): string[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith(ending))
    .sort();
}
