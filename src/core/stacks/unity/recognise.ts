import { platformLabels } from '../../words/platform-labels.js';
import { platformNames } from '../../words/names.js';
import type { Tree } from '../../tree/tree.js';
import type { Recognition } from '../stack.js';
import { existingTemplates } from './survey/android-files.js';
import { unityAt, unityRoots, type UnityProject } from './survey/project.js';
import { identifierEntry } from './survey/settings.js';

/** The folders of Unity projects. */
export function recogniseUnity(tree: Tree): Recognition[] {
  return unityRoots(tree).flatMap((root) => {
    const project = unityAt(tree, root);
    return project ? [recognition(tree, project)] : [];
  });
}

function recognition(tree: Tree, project: UnityProject): Recognition {
  const { root, path, editor, packages } = project;
  const platforms = platformNames.filter((platform) => identifierEntry(project, platform));
  const evidence = [
    platforms.length > 0
      ? `${path} has an identifier for ${platforms.map((one) => platformLabels[one]).join(' and ')}`
      : `${path} has no identifier for Android or iOS`,
    ...(editor ? [`${editor.path} names the editor ${editor.version}`] : []),
    ...(packages ? [`${packages.path} lists its packages`] : []),
    ...existingTemplates(tree, project).map(
      ({ path: file, name, isOn }) => `${file} (${name}) is ${isOn ? 'on' : 'off'}`,
    ),
  ];
  if (/(^|\/)[^/]*~(\/|$)/.test(root))
    return {
      root,
      evidence,
      passedOver: 'it is in a folder that Unity skips: a sample or a test of a package',
    };
  return { root, evidence };
}
