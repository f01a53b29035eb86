import { scriptFiles } from '../common/script-packages/files.js';
import type { Stack } from '../stack.js';
import { expo as description } from './description.js';
import { surveyExpo } from './survey/index.js';
import { wireExpo } from './wire/index.js';
import { unwireExpo } from './unwire/index.js';
import { recogniseExpo } from './recognise.js';
import { declaredInExpo } from './survey/declared.js';

/** Expo: a package that depends on it and a configuration, from which native projects are made for each build. */
export const expo: Stack = {
  ...description,
  collect: [
    ...scriptFiles,
    ...['app.json', 'app.config.json', 'eas.json', '.gitignore'].map((name) => ({ name })),
    ...['ts', 'js', 'cjs', 'mjs'].map((end) => ({ name: `app.config.${end}` })),
  ],
  writes: ['typescript', 'kotlin', 'java', 'swift', 'objective-c'],
  needles: ['registerRootComponent'],
  folders: [],
  skips: ['node_modules'],
  recognise: recogniseExpo,
  survey: surveyExpo,
  wire: wireExpo,
  unwire: unwireExpo,
  declared: declaredInExpo,
};
