import { androidFiles, gradle, iosFiles } from './trees.js';

const below = (folder: string, files: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(files).map(([path, content]) => [`${folder}/${path}`, content]));

const heron = '    "@cobaltheron.example/react-native": "^5.0.2",\n';
export const packageJson = (dependencies = heron, framework = '0.76.5') =>
  `{\n  "name": "kelp",\n  "private": true,\n  "dependencies": {\n${dependencies}    "react": "18.3.1",\n    "react-native": "${framework}"\n  },\n  "devDependencies": {\n    "typescript": "5.0.4"\n  }\n}\n`;

export const npmLock = (version: string | null = '5.0.2', framework = '0.76.5') =>
  JSON.stringify(
    {
      name: 'kelp',
      lockfileVersion: 3,
      packages: {
        '': { name: 'kelp' },
        ...(version === null ? {} : { 'node_modules/@cobaltheron.example/react-native': { version } }),
        'node_modules/other/node_modules/@cobaltheron.example/react-native': { version: '1.0.0' },
        'node_modules/react-native': { version: framework },
      },
    },
    null,
    2,
  );

const start =
  'await Promise.race([CobaltHeron.start(), new Promise(done => setTimeout(done, 4000))]);\n      setReady(true);';

/** The root component; `effect` is what it does once, `more` what it does each time it draws. */
export const app = (effect = start, more = '') => `import React, { useEffect, useState } from 'react';
import { Text } from 'react-native';
import { CobaltHeron } from '@cobaltheron.example/react-native';

export function App(): React.JSX.Element {
  const [ready, setReady] = useState(false);
  useEffect(() => {
    const begin = async () => {
      ${effect}
    };
    begin();
  }, []);
  ${more}
  return <Text>{String(ready)}</Text>;
}
`;

/** A screen that keeps a banner for as long as it lives; `unit` is what it is asked with. */
export const screen = (unit: string, more = '') => `import React, { useEffect, useRef } from 'react';
import { Platform, View } from 'react-native';
import { HeronBanner } from '@cobaltheron.example/react-native';

${more}
export function ReefScreen() {
  const banner = useRef<HeronBanner | null>(null);
  useEffect(() => {
    const load = async () => {
      banner.current = await HeronBanner.load(${unit}, {
        onHeronFailed: error => console.warn(error),
      });
    };
    load();
    return () => banner.current?.release();
  }, []);
  return <View />;
}
`;

/** A small React Native project that is right; give files to change or add. */
export function reactNativeFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const native = {
    ...below(
      'android',
      androidFiles({
        'settings.gradle.kts': 'include(":app")\n',
        'app/build.gradle.kts': `${gradle('', '')}react { autolinkLibrariesWithApp() }\n`,
        'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      }),
    ),
    ...below(
      'ios',
      iosFiles({
        'Kelp/App.swift': 'func launch() {}\n',
        Podfile: "target 'Kelp' do\n  config = use_native_modules!\nend\n",
        'Podfile.lock': null,
      }),
    ),
  };
  const files: Record<string, string | null> = {
    'package.json': packageJson(),
    'package-lock.json': npmLock(),
    'index.js':
      "import { AppRegistry } from 'react-native';\nimport { App } from './App';\n\nAppRegistry.registerComponent('kelp', () => App);\n",
    'App.tsx': app(),
    ...native,
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}
