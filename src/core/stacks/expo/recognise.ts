import type { Tree } from '../../tree/tree.js';
import { exampleOf } from '../common/script-packages/packages.js';
import type { Recognition } from '../stack.js';
import { expoAt, expoRoots, type ExpoProject } from '../common/script-packages/expo-project.js';

/** The folders of Expo applications whose native projects are generated. */
export function recogniseExpo(tree: Tree): Recognition[] {
  return expoRoots(tree).flatMap((root) => {
    const project = expoAt(tree, root);
    return project ? [recognition(tree, project)] : [];
  });
}

function recognition(tree: Tree, { root, path, json, script, eas, parts }: ExpoProject): Recognition {
  const evidence = [
    `${path} depends on expo`,
    ...(json ? [`${json.path} configures it`] : []),
    ...(script ? [`${script.path} works its configuration out`] : []),
    ...(eas ? [`${eas.path} has the build profiles ${eas.profiles.map(({ name }) => name).join(', ')}`] : []),
    ...parts.map((part) => `${part.root} is made from it, and left out of the repository`),
  ];
  const roots = parts.map((part) => part.root);
  const above = exampleOf(tree, root);
  const found = { root, evidence, ...(roots.length > 0 ? { parts: roots } : {}) };
  return above === undefined ? found : { ...found, passedOver: `it is an example that belongs to ${above}` };
}
