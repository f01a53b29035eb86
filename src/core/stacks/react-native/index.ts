import type { Stack } from '../stack.js';
import { reactNative as description } from './description.js';
import { declaredInPackageJson } from './survey/declared.js';
import { surveyReactNative } from './survey/index.js';
import { unwireReactNative } from './unwire/index.js';
import { wireReactNative } from './wire/index.js';
import { recogniseReactNative } from './recognise.js';
import { scriptFiles } from '../common/script-packages/files.js';

/** React Native: a package that depends on it, with native trees beside it. */
export const reactNative: Stack = {
  ...description,
  collect: [
    ...scriptFiles,
    ...['js', 'cjs', 'mjs', 'ts'].map((end) => ({ name: `react-native.config.${end}` })),
  ],
  writes: ['typescript', 'kotlin', 'java', 'swift', 'objective-c'],
  // Where the application begins.
  needles: ['AppRegistry.registerComponent'],
  folders: [],
  skips: ['node_modules'],
  recognise: recogniseReactNative,
  survey: surveyReactNative,
  wire: wireReactNative,
  unwire: unwireReactNative,
  declared: declaredInPackageJson,
};
