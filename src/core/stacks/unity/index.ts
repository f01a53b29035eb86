import { platformNames } from '../../words/names.js';
import type { Tree } from '../../tree/tree.js';
import type { Recognition, Stack } from '../stack.js';
import { standingTemplates } from './android-files.js';
import { declaredInUnity } from './declared.js';
import { unityAt, unityRoots, type UnityProject } from './project.js';
import { identifierEntry } from './settings-facts.js';
import { surveyUnity } from './survey.js';
import { unwireUnity } from './unwire.js';
import { wireUnity } from './wire.js';

/** Unity: settings for players, from which the editor makes an Android and an Xcode project for each build. */
export const unity: Stack = {
  id: 'unity',
  name: 'Unity',
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
    { name: 'Placebook.cs' },
    { suffix: '.cs', needle: true },
  ],
  // Scripts of the editor that change the Xcode project after it was made.
  writes: ['csharp'],
  needles: ['PlistDocument'],
  folders: [],
  fills: ['Library', 'Temp', 'Logs', 'UserSettings', 'Obj', 'obj'].map((folder) => ({
    folder,
    beside: 'ProjectSettings',
  })),
  recognise(tree) {
    return unityRoots(tree).flatMap((root) => {
      const project = unityAt(tree, root);
      return project ? [recognition(tree, project)] : [];
    });
  },
  survey: surveyUnity,
  wire: wireUnity,
  unwire: unwireUnity,
  declared: declaredInUnity,
};

function recognition(tree: Tree, project: UnityProject): Recognition {
  const { root, path, editor, packages } = project;
  const platforms = platformNames.filter((platform) => identifierEntry(project, platform));
  const evidence = [
    platforms.length > 0
      ? `${path} has an identifier for ${platforms.map((one) => (one === 'ios' ? 'iOS' : 'Android')).join(' and ')}`
      : `${path} has no identifier for Android or iOS`,
    ...(editor ? [`${editor.path} names the editor ${editor.version}`] : []),
    ...(packages ? [`${packages.path} asks for its packages`] : []),
    ...standingTemplates(tree, project).map(
      ({ path: file, name, isOn }) => `${file} (${name}) is ${isOn ? 'on' : 'off'}`,
    ),
  ];
  if (/(^|\/)[^/]*~(\/|$)/.test(root))
    return {
      root,
      evidence,
      passedOver: 'it lies in a folder that Unity passes over: a sample or a test of a package',
    };
  return { root, evidence };
}
