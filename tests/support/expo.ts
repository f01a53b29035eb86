import { app, npmLock, packageJson, screen } from './react-native.js';

const heron = '    "@cobaltheron.example/react-native": "^5.0.2",\n';

export const appJson = (
  plugin:
    | string
    | null = '["@cobaltheron.example/react-native", { "androidAppId": "CH-A-310772-QK4T8W2N", "iosAppId": "CH-I-310772-M6R9V3XC" }]',
  infoPlist = '"NSUserTrackingUsageDescription": "Ads keep the reef free.", "SKAdNetworkItems": [{ "SKAdNetworkIdentifier": "ch7k2m9td4.skadnetwork" }, { "SKAdNetworkIdentifier": "h3r0nw8ngs.skadnetwork" }]',
) =>
  `{\n  "expo": {\n    "name": "Kelp",\n    "ios": {\n      "bundleIdentifier": "example.brine.kelp",\n      "infoPlist": { ${infoPlist} }\n    },\n    "android": { "package": "example.brine.kelp" }${plugin === null ? '' : `,\n    "plugins": [${plugin}]`}\n  }\n}\n`;

/** A script that picks app IDs by the stage that the build profile names. */
export const appConfig = (ids = {}) => {
  const { android, ios } = { android: 'CH-A-310772-QK4T8W2N', ios: 'CH-I-310772-M6R9V3XC', ...ids };
  return `const live = process.env.EXPO_PUBLIC_ADS_STAGE === 'production';

export default ({ config }) => ({
  ...config,
  plugins: [
    ['@cobaltheron.example/react-native', {
      androidAppId: live ? '${android}' : 'CH-A-100001-SAMPLE0A',
      iosAppId: live ? '${ios}' : 'CH-I-100001-SAMPLE0I',
    }],
  ],
});
`;
};

export const easJson = `{
  "build": {
    "development": { "developmentClient": true },
    "preview": { "distribution": "internal" },
    "production": { "env": { "EXPO_PUBLIC_ADS_STAGE": "production" } }
  }
}
`;
export const expoStages = { test: ['development', 'preview'], production: ['production'] };

export const expoPackage = (dependencies = heron, more = '    "expo-dev-client": "~5.0.0",\n') =>
  packageJson(`${dependencies}    "expo": "~52.0.0",\n${more}`);

/** A small Expo project that is right; give files to change or add. */
export function expoFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const files: Record<string, string | null> = {
    'package.json': expoPackage(),
    'package-lock.json': npmLock(),
    'app.json': appJson(null),
    'app.config.js': appConfig(),
    'eas.json': easJson,
    '.gitignore': 'node_modules/\n/android\n/ios\n',
    'index.js':
      "import { registerRootComponent } from 'expo';\nimport { App } from './App';\n\nregisterRootComponent(App);\n",
    'App.tsx': app(),
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}

export { screen };
