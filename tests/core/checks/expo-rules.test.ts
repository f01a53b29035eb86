import { nativeFolderStale } from '../../../src/core/checks/rules/build-native-folder-stale.js';
import { pluginEntryMissing } from '../../../src/core/checks/rules/build-plugin-entry-missing.js';
import { stockClient } from '../../../src/core/checks/rules/build-stock-client.js';
import { pluginOneSided } from '../../../src/core/checks/rules/platform-plugin-one-sided.js';
import { appJson, expoFiles, expoPackage, expoStages } from '../../support/expo.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { ruleCases } from '../../support/rules.js';
import { kelp } from '../../support/trees.js';

// Rules over configurations from which native projects are made.

const title = kelp({ stages: expoStages });
const heron = '@cobaltheron.example/react-native';
const fixed = (plugin: string | null) => expoFiles({ 'app.json': appJson(plugin), 'app.config.js': null });

ruleCases(pluginEntryMissing, {
  clean: [
    { name: 'an entry in a script', title, files: expoFiles() },
    { name: 'an entry as it stands', title, files: fixed(`"${heron}"`) },
    {
      name: 'plugins that are worked out',
      title,
      files: expoFiles({ 'app.config.js': 'module.exports = { plugins: make() };\n' }),
    },
  ],
  faulty: [
    {
      name: 'another plugin alone',
      title,
      files: fixed('"other"'),
      findings: [{ platform: null, network: 'cobalt-heron' }],
    },
    {
      name: 'an entry for some builds',
      title,
      files: expoFiles({
        'app.config.js': `module.exports = ({ config }) => ({ ...config, plugins: process.env.EXPO_PUBLIC_ADS_STAGE ? ['${heron}'] : [] });\n`,
      }),
      findings: [{ platform: null, network: 'cobalt-heron' }],
    },
  ],
});

ruleCases(pluginOneSided, {
  clean: [
    { name: 'both', title, files: expoFiles() },
    { name: 'none at all is another fault', title, files: fixed(`"${heron}"`) },
  ],
  faulty: [
    {
      name: 'Android alone',
      title,
      files: fixed(`["${heron}", { "androidAppId": "CH-A-310772-QK4T8W2N" }]`),
      findings: [{ platform: 'ios', network: 'cobalt-heron' }],
    },
    {
      name: 'iOS alone',
      title,
      files: fixed(`["${heron}", { "iosAppId": "CH-I-310772-M6R9V3XC" }]`),
      findings: [{ platform: 'android', network: 'cobalt-heron' }],
    },
  ],
});

const native = (change: (text: string) => string) =>
  Object.fromEntries(
    Object.entries(reactNativeFiles()).flatMap(([path, content]) =>
      /^(android|ios)\//.test(path) ? [[path, change(content)] as const] : [],
    ),
  );
ruleCases(nativeFolderStale, {
  clean: [
    { name: 'no folders', title, files: expoFiles() },
    { name: 'folders as they would be made', title, files: expoFiles(native((text) => text)) },
  ],
  faulty: [
    {
      name: 'an app ID that was edited by hand',
      byHand: { removes: Object.keys(native((text) => text)) },
      title,
      files: expoFiles(native((text) => text.replaceAll('CH-A-310772-QK4T8W2N', 'CH-A-310772-OLDOLD01'))),
      findings: [{ platform: 'android', network: 'cobalt-heron' }],
    },
  ],
});

ruleCases(stockClient, {
  clean: [
    { name: 'a client, and a profile that builds it', title, files: expoFiles() },
    { name: 'no build profiles at all', title, files: expoFiles({ 'eas.json': null }) },
  ],
  faulty: [
    {
      name: 'no client',
      title,
      files: expoFiles({ 'package.json': expoPackage(undefined, '') }),
      findings: [{ platform: null }],
    },
    {
      name: 'a client that no profile builds',
      byHand: {
        edits: [['eas.json', '{ "build": {', '{ "build": { "development": { "developmentClient": true },']],
      },
      title,
      files: expoFiles({
        'eas.json': '{ "build": { "production": { "env": { "EXPO_PUBLIC_ADS_STAGE": "production" } } } }',
      }),
      findings: [{ platform: null }],
    },
  ],
});
