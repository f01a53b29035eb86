import { exampleProfile } from '../../src/core/network/example.js';
import { readProfile } from '../../src/core/network/read.js';
import type { Profile } from '../../src/core/network/model.js';
import { Title } from '../../src/core/roster/model.js';

/** A network that asks for everything a profile can say and that those that ship do not need. */
export const brackwaterText = exampleProfile;
/** The profile, with some of its lines exchanged. */
export function brackwater(change: (text: string) => string = (text) => text): Profile {
  const { profile, problems } = readProfile(change(brackwaterText));
  if (!profile) throw new Error(JSON.stringify(problems));
  return profile;
}

/** A title on that network, with a banner and, if it is asked for, a rewarded placement. */
export function onBrackwater({ rewarded = true } = {}): Title {
  const units = (android: string, ios: string) => ({
    brackwater: { android: { production: android }, ios: { production: ios } },
  });
  return Title.parse({
    name: 'Kelp',
    stages: { test: ['debug'], production: ['release'] },
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    networks: {
      brackwater: {
        android: { production: { app: 'bw-a52001' } },
        ios: { production: { app: 'bw-i52002' } },
      },
    },
    placements: {
      footer: { format: 'banner', units: units('5200101', '5200201') },
      ...(rewarded
        ? {
            gift: {
              format: 'rewarded',
              settings: { reward: { amount: 1, item: 'pearl' } },
              units: units('5200102', '5200202'),
            },
          }
        : {}),
    },
  });
}
