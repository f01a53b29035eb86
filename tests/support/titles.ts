import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readProfile } from '../../src/core/network/read.js';
import type { Profile } from '../../src/core/network/model.js';
import { Title } from '../../src/core/roster/model.js';

export const root = join(import.meta.dirname, '..', '..');

/** The profiles that ship. */
export const profiles: Profile[] = readdirSync(join(root, 'profiles')).map((name) => {
  const { profile, problems } = readProfile(readFileSync(join(root, 'profiles', name), 'utf8'));
  if (!profile) throw new Error(JSON.stringify(problems));
  return profile;
});

/** A shipped profile by its ID. */
export function profileOf(id: string): Profile {
  const found = profiles.find((profile) => profile.id === id);
  if (!found) throw new Error(`There is no profile ${id}.`);
  return found;
}

/** The title that the small trees are right for. */
export function kelp(changes: Partial<Title> = {}): Title {
  return Title.parse({
    name: 'Kelp',
    stages: { test: ['debug'], production: ['release'] },
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    networks: {
      'cobalt-heron': {
        android: { production: { app: 'CH-A-310772-QK4T8W2N' } },
        ios: { production: { app: 'CH-I-310772-M6R9V3XC' } },
      },
    },
    placements: {},
    ...changes,
  });
}

/** A placement with these units by network. */
export function placementOf(units: object, format = 'banner', settings: object = {}) {
  return { format, settings, units } as unknown as Title['placements'][string];
}

/** A placement on one network, with production IDs. */
export function placement(format: string, android: string, ios: string, network = 'cobalt-heron') {
  const units = { android: { production: android }, ios: { production: ios } };
  return placementOf({ [network]: units }, format);
}
