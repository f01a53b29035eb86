import type { Tree } from '../../tree/tree.js';
import { expoAt } from '../common/script-packages/expo-project.js';
import type { Recognition } from '../stack.js';
import { exampleOf } from '../common/script-packages/packages.js';
import { projectAt, projectRoots, type ReactNativeProject } from '../common/script-packages/project.js';

/** The folders of React Native applications. */
export function recogniseReactNative(tree: Tree): Recognition[] {
  return projectRoots(tree).flatMap((root) => {
    const project = projectAt(tree, root);
    return project ? (recognition(tree, project) ?? []) : [];
  });
}

function recognition(tree: Tree, { root, path, parts }: ReactNativeProject): Recognition | undefined {
  // A configuration of Expo recreates native folders, unless the repository keeps them.
  if (parts.length === 0 || expoAt(tree, root)) return undefined;
  const roots = parts.map((part) => part.root);
  const evidence = [`${path} depends on react-native`, ...parts.flatMap((part) => part.evidence)];
  const above = exampleOf(tree, root);
  if (above === undefined) return { root, evidence, parts: roots };
  return { root, evidence, parts: roots, passedOver: `it is an example that belongs to ${above}` };
}
