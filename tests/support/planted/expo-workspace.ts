import { easJson, expoFiles, expoStages } from '../expo.js';
import { kelp, placement } from '../trees.js';
import { below, type PlantedTree } from './model.js';

const banner = (
  name: string,
  unit: string,
  imports: string,
) => `import React, { useEffect, useRef } from 'react';
import { Platform, View } from 'react-native';
import { HeronBanner } from '@cobaltheron.example/react-native';
${imports}
export function ${name}() {
  const banner = useRef<HeronBanner | null>(null);
  useEffect(() => {
    const load = async () => {
      banner.current = await HeronBanner.load(${unit}, {
        onHeronFailed: (error) => console.warn(error),
      });
    };
    load();
    return () => banner.current?.release();
  }, []);
  return <View />;
}
`;
const interstitial = (
  name: string,
  unit: string,
  show: string,
  imports: string,
) => `import React, { useEffect, useRef } from 'react';
import { AppState, View } from 'react-native';
import { HeronInterstitial } from '@cobaltheron.example/react-native';
${imports}
export function ${name}({ onNext }: { onNext: () => void }) {
  const ad = useRef<HeronInterstitial | null>(null);
  useEffect(() => {
    const load = async () => {
      ad.current = await HeronInterstitial.load(${unit}, {
        onHeronFailed: () => onNext(),
        onHeronClosed: () => onNext(),
      });
    };
    load();
    return () => ad.current?.release();
  }, []);
${show}
  return <View />;
}
`;

const onPress = '  const onPress = () => {\n    if (ad.current?.isReady) ad.current.show();\n  };\n';
const onReturn =
  "  useEffect(() => {\n    const sub = AppState.addEventListener('change', (state) => {\n      if (state === 'active' && ad.current?.isReady) ad.current.show();\n    });\n    return () => sub.remove();\n  }, []);\n";

/** Screens and units in packages of a pnpm workspace, and a configuration that is computed. */
export const expoWorkspace: PlantedTree = {
  name: 'an Expo application in a pnpm workspace',
  files: {
    'package.json': '{ "name": "brine", "private": true }\n',
    'pnpm-workspace.yaml': "packages:\n  - 'apps/*'\n  - 'packages/*'\n",
    ...below(
      'apps/kelp',
      Object.fromEntries(
        Object.entries(expoFiles({ 'eas.json': easJson })).map(([path, content]) => [
          path,
          path === 'package.json'
            ? content.replace('"dependencies": {', '"dependencies": {\n    "@brine/screens": "workspace:*",')
            : content,
        ]),
      ),
    ),
    'packages/units/package.json': '{ "name": "@brine/units", "version": "1.0.0", "main": "index.ts" }\n',
    'packages/units/index.ts': `import { Platform } from 'react-native';

const isStore = process.env.EXPO_PUBLIC_ADS_STAGE === 'production';

const store = {
  shore: { android: 'CH-U-310772-SH4R7KQ2', ios: 'CH-U-310772-SHW9N3TB' },
  tide: { android: 'CH-U-310772-TD3G9WKR', ios: 'CH-U-310772-TDQ7B4NM' },
} as const;
const samples = {
  shore: { android: 'CH-U-100001-BANNER0A', ios: 'CH-U-100001-BANNER0I' },
  tide: { android: 'CH-U-100001-INTERS0A', ios: 'CH-U-100001-INTERS0I' },
} as const;

export const units = isStore ? store : samples;

export const pool = Platform.select({
  android: isStore ? 'CH-U-310772-PL8V2MXC' : 'CH-U-100001-BANNER0A',
  ios: isStore ? 'CH-U-100001-BANNER0I' : 'CH-U-310772-PLJ6D5ZH',
})!;
`,
    'packages/screens/package.json':
      '{ "name": "@brine/screens", "version": "1.0.0", "dependencies": { "@brine/units": "workspace:^", "react-native": "*" } }\n',
    'packages/screens/src/Shore.tsx': banner(
      'Shore',
      "units.shore[Platform.OS as 'android' | 'ios']",
      "import { units } from '@brine/units';\n",
    ),
    'packages/screens/src/Pool.tsx': banner('Pool', 'pool', "import { pool } from '@brine/units';\n"),
    'packages/screens/src/Tide.tsx': interstitial(
      'Tide',
      "units.tide[Platform.OS as 'android' | 'ios']",
      onPress,
      "import { units } from '@brine/units';\nimport { Platform } from 'react-native';\n",
    ),
    'packages/screens/src/Reef.tsx': interstitial(
      'Reef',
      "units.tide[Platform.OS as 'android' | 'ios']",
      onReturn,
      "import { units } from '@brine/units';\nimport { Platform } from 'react-native';\n",
    ),
    'packages/old/package.json': '{ "name": "@brine/old" }\n',
    'packages/old/index.tsx': banner('Old', "'CH-U-310772-ZZZZ9999'", ''),
  },
  title: kelp({
    stages: expoStages,
    placements: {
      shore: placement('banner', 'CH-U-310772-SH4R7KQ2', 'CH-U-310772-SHW9N3TB'),
      pool: placement('banner', 'CH-U-310772-PL8V2MXC', 'CH-U-310772-PLJ6D5ZH'),
      tide: placement('interstitial', 'CH-U-310772-TD3G9WKR', 'CH-U-310772-TDQ7B4NM'),
    },
  }),
  book: 'packages/units/ads/placebook.ts',
  wrong: [
    [
      'stage/production-id-in-test',
      'packages/units/index.ts',
      "ios: isStore ? 'CH-U-100001-BANNER0I' : 'CH-U-310772-PLJ6D5ZH',",
      'the stages are exchanged on iOS',
    ],
    [
      'stage/test-id-in-production',
      'packages/units/index.ts',
      "ios: isStore ? 'CH-U-100001-BANNER0I' : 'CH-U-310772-PLJ6D5ZH',",
      'on both sides',
    ],
    ['unit-id/not-in-build', 'apps/kelp/app.json', '"expo": {', 'so the shop has no unit of the pool on iOS'],
    [
      'code/show-on-return',
      'packages/screens/src/Reef.tsx',
      "if (state === 'active' && ad.current?.isReady) ad.current.show();",
      'each time the app comes back',
    ],
  ],
  byHand: {
    edits: [
      [
        'packages/units/index.ts',
        "isStore ? 'CH-U-100001-BANNER0I' : 'CH-U-310772-PLJ6D5ZH'",
        "isStore ? 'CH-U-310772-PLJ6D5ZH' : 'CH-U-100001-BANNER0I'",
      ],
      ['packages/screens/src/Reef.tsx', onReturn, onPress],
    ],
  },
  right: [
    [
      'packages/units/index.ts',
      'isStore ? store : samples',
      'tables, chosen by a variable that a build profile sets',
    ],
    ['packages/screens/package.json', '"@brine/units": "workspace:^"', 'a package that another one brings'],
    ['packages/screens/src/Tide.tsx', 'if (ad.current?.isReady) ad.current.show();', 'shown on a tap'],
    ['packages/old/index.tsx', "'CH-U-310772-ZZZZ9999'", 'a package that nothing depends on'],
    ['apps/kelp/app.config.js', "live ? 'CH-A-310772-QK4T8W2N' : 'CH-A-100001-SAMPLE0A'", 'app IDs by stage'],
  ],
};
