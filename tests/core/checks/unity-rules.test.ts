import { expect } from 'vitest';
import { feedMissing } from '../../../src/core/checks/rules/build-feed-missing.js';
import { nativeNotFetched } from '../../../src/core/checks/rules/build-native-not-fetched.js';
import { symbolMissing } from '../../../src/core/checks/rules/build-symbol-missing.js';
import { templateSwitchedOff } from '../../../src/core/checks/rules/build-template-switched-off.js';
import { ruleCases } from '../../support/rules.js';
import { kelp, manifest } from '../../support/trees.js';
import { packageManifest, playerSettings, unityFiles } from '../../support/unity.js';

// Rules over what the Unity editor keeps beside the sources.

const title = kelp({ stages: { test: ['development'], production: ['release'] } });
const settings = 'ProjectSettings/ProjectSettings.asset';
const template = 'Assets/Plugins/Android/AndroidManifest.xml';
const one = { network: 'cobalt-heron' };

ruleCases(templateSwitchedOff, {
  clean: [
    { name: 'no template', title, files: unityFiles() },
    {
      name: 'one that is on',
      title,
      files: unityFiles({
        [template]: manifest(''),
        [settings]: playerSettings().replace('useCustomMainManifest: 0', 'useCustomMainManifest: 1'),
      }),
    },
    {
      name: 'an editor so old that it knows no switch',
      title,
      files: unityFiles({
        [template]: manifest(''),
        [settings]: playerSettings().replace('  useCustomMainManifest: 0\n', ''),
      }),
    },
  ],
  faulty: [
    {
      name: 'a manifest that is off',
      title,
      files: unityFiles({ [template]: manifest('') }),
      findings: [{ platform: 'android', place: expect.objectContaining({ path: settings }) as never }],
    },
    {
      name: 'a Gradle template that is off',
      title,
      files: unityFiles({ 'Assets/Plugins/Android/mainTemplate.gradle': 'dependencies {\n**DEPS**}\n' }),
      findings: [{ platform: 'android' }],
    },
  ],
});

const record = 'Assets/CobaltHeron/Native';
ruleCases(nativeNotFetched, {
  clean: [
    { name: 'fetched for this version', title, files: unityFiles() },
    {
      name: 'no package that asks for any',
      title,
      files: unityFiles({ 'Packages/manifest.json': packageManifest({}), [`${record}/ios.json`]: null }),
    },
    {
      name: 'fetched for a newer one',
      title,
      files: unityFiles({ [`${record}/ios.json`]: '{ "package": "3.4.0" }' }),
    },
  ],
  faulty: [
    {
      name: 'never fetched for iOS',
      title,
      files: unityFiles({ [`${record}/ios.json`]: null }),
      findings: [{ ...one, platform: 'ios' }],
    },
    {
      name: 'fetched for an older version',
      byHand: { edits: [[`${record}/android.json`, '3.2.9', '3.3.0']] },
      title,
      files: unityFiles({ [`${record}/android.json`]: '{ "package": "3.2.9" }' }),
      findings: [{ ...one, platform: 'android' }],
    },
  ],
});

ruleCases(symbolMissing, {
  clean: [
    { name: 'defined for both', title, files: unityFiles() },
    {
      name: 'platforms by their old numbers',
      title,
      files: unityFiles({
        [settings]: playerSettings({ symbols: '    4: COBALT_HERON\n    7: A;COBALT_HERON\n' }),
      }),
    },
  ],
  faulty: [
    {
      name: 'Android alone',
      title,
      files: unityFiles({ [settings]: playerSettings({ symbols: '    Android: COBALT_HERON\n' }) }),
      findings: [{ ...one, platform: 'ios' }],
    },
    {
      name: 'another that begins the same',
      title,
      files: unityFiles({
        [settings]: playerSettings({ symbols: '    Android: COBALT_HERON_OLD\n    iPhone: COBALT_HERON\n' }),
      }),
      findings: [{ ...one, platform: 'android' }],
    },
  ],
});

ruleCases(feedMissing, {
  clean: [
    { name: 'named beside the packages', title, files: unityFiles() },
    {
      name: 'no package that comes from there',
      title,
      files: unityFiles({ 'Packages/manifest.json': packageManifest({}, []) }),
    },
  ],
  faulty: [
    {
      name: 'no registry at all',
      title,
      files: unityFiles({ 'Packages/manifest.json': packageManifest(undefined, []) }),
      findings: [{ ...one, platform: null }],
    },
    {
      name: 'a registry that is asked for other packages',
      title,
      files: unityFiles({
        'Packages/manifest.json': packageManifest(undefined, [
          { name: 'Cobalt Heron', url: 'https://unity.cobaltheron.example', scopes: ['example.cobalt'] },
        ]),
      }),
      findings: [{ ...one, platform: null }],
    },
  ],
});
