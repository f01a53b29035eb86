import type { Profile } from '../../src/core/network/model.js';
import { placebookContents } from '../../src/core/placebook/contents.js';
import { Title } from '../../src/core/roster/model.js';
import { profiles } from './trees.js';

// A title that tries everything a placebook may have to write.

const unit = (network: string, android: string, ios: string) => ({
  [network]: { android: { production: android }, ios: { production: ios } },
});
/** Every setting, and everything that is awkward in a name, a text or a comment. */
export const title = Title.parse({
  name: 'Kelp */ "and" $tide\\s',
  editions: {
    android: { identifier: 'example.brine.kelp' },
    ios: { identifier: 'example.brine.kelp' },
  },
  networks: {
    'cobalt-heron': {
      android: {
        production: { app: 'CH-A-310772-QK4T8W2N' },
        test: { devices: ['pixel-on-my-desk', 'a"b$c\\d'] },
      },
      ios: { production: { app: 'CH-I-310772-M6R9V3XC' }, test: { devices: ['phone-1'] } },
    },
    marlstone: {
      android: { production: { app: 'mrl1-0123456789abcdef01234567' } },
      ios: { production: { app: 'mrl1-0123456789abcdef01234568' } },
    },
  },
  placements: {
    'tide-list-footer': {
      format: 'banner',
      where: 'under the list /* of tides */ on "home"',
      settings: { refresh: '60s', content: ['text', 'image'], size: 'adaptive', anchor: 'bottom' },
      units: unit('cobalt-heron', 'CH-U-310772-AAAA1111', 'CH-U-310772-AAAA2222'),
    },
    default: {
      format: 'rewarded',
      settings: {
        reward: { amount: 3, item: 'pearls $ "of" the \\ sea' },
        skippable: false,
        cap: { count: 2, per: '1h' },
        timeout: '5s',
        fallback: ['marlstone', 'cobalt-heron'],
        'end-card': true,
      },
      units: {
        ...unit('cobalt-heron', 'CH-U-310772-BBBB1111', 'CH-U-310772-BBBB2222'),
        ...unit('marlstone', 'mrl-KELP-1234567', 'mrl-KELP-1234568'),
      },
    },
    class: {
      format: 'native',
      settings: { every: 6, first: 2, refresh: 'off' },
      units: unit('cobalt-heron', 'CH-U-310772-DDDD1111', 'CH-U-310772-DDDD2222'),
    },
    all: {
      format: 'interstitial',
      units: unit('cobalt-heron', 'CH-U-310772-EEEE1111', 'CH-U-310772-EEEE2222'),
    },
  },
});
export const mine: Profile[] = profiles.filter(({ id }) => id in title.networks);
export const book = (platform: 'android' | 'ios', stage: 'test' | 'production') =>
  placebookContents(title, mine, platform, stage);
export const packageName = 'example.brine.kelp.ads';
export const options = { title: title.name, revision: 12 };
