import { documentFiles } from '../common/documents.js';
import type { Stack } from '../stack.js';
import { unity as description } from './description.js';
import { declaredInUnity } from './survey/declared.js';
import { surveyUnity } from './survey/index.js';
import { unwireUnity } from './unwire/index.js';
import { recogniseUnity } from './recognise.js';
import { wireUnity } from './wire/index.js';

/** Unity: settings for players, from which the editor makes an Android and an Xcode project for each build. */
export const unity: Stack = {
  ...description,
  collect: [
    ...[
      'ProjectSettings.asset',
      'ProjectVersion.txt',
      'packages-lock.json',
      'csc.rsp',
      'AdsBuildSteps.cs',
    ].map((name) => ({ name })),
    { name: 'manifest.json', parent: 'Packages' },
    { suffix: '.asmdef' },
    { suffix: '.asmdef.meta' },
    { suffix: '.asmref' },
    { suffix: '.asset', parent: 'Build Profiles' },
    { name: 'Placebook.cs' },
    ...['Placebook.cs', 'AdsBuildSteps.cs'].map((name) => ({ name: `${name}.meta` })),
    ...['.aar', '.jar'].map((suffix) => ({ suffix: `${suffix}.meta` })),
    { suffix: '.cs', needle: true },
    ...['.asset', '.prefab', '.unity', '.bytes'].map((suffix) => ({ suffix, needle: true })),
    ...documentFiles,
  ],
  writes: ['csharp'],
  // Scripts of the editor that change the Xcode project after it was made.
  needles: ['PlistDocument'],
  folders: [],
  skips: [],
  fills: ['Library', 'Temp', 'Logs', 'UserSettings', 'Obj', 'obj'].map((folder) => ({
    folder,
    beside: 'ProjectSettings',
  })),
  recognise: recogniseUnity,
  survey: surveyUnity,
  wire: wireUnity,
  unwire: unwireUnity,
  declared: declaredInUnity,
};
