import { lockFiles } from '../../formats/package-json/locks.js';
import type { Tree } from '../../tree/tree.js';
import { expoAt } from '../expo/project.js';
import type { CollectRule, Recognition, Stack } from '../stack.js';
import { declaredInPackageJson } from './declared.js';
import { exampleOf } from '../script-packages.js';
import { projectAt, projectRoots, type ReactNativeProject } from './project.js';
import { surveyReactNative } from './survey.js';
import { unwireReactNative } from './unwire.js';
import { wireReactNative } from './wire.js';

const ends = ['ts', 'tsx', 'js', 'jsx'];

/** The files that any stack in JavaScript asks for. */
export const scriptFiles: readonly CollectRule[] = [
  { name: 'package.json' },
  ...Object.keys(lockFiles).map((name) => ({ name })),
  { name: 'placebook.ts' },
  // A file for one platform stands before another one of its name, whatever it holds.
  ...['android', 'ios', 'native'].flatMap((platform) =>
    ends.map((end) => ({ suffix: `.${platform}.${end}` })),
  ),
  ...[...ends, 'mjs', 'cjs', 'mts', 'cts'].map((end) => ({ suffix: `.${end}`, needle: true })),
];

/** React Native: a package that depends on it, with native trees beside it. */
export const reactNative: Stack = {
  id: 'react-native',
  name: 'React Native',
  collect: [
    ...scriptFiles,
    ...['js', 'cjs', 'mjs', 'ts'].map((end) => ({ name: `react-native.config.${end}` })),
  ],
  // Where the application begins.
  writes: ['typescript', 'kotlin', 'java', 'swift', 'objective-c'],
  needles: ['AppRegistry.registerComponent'],
  folders: [],
  recognise(tree) {
    return projectRoots(tree).flatMap((root) => {
      const project = projectAt(tree, root);
      return project ? (recognition(tree, project) ?? []) : [];
    });
  },
  survey: surveyReactNative,
  wire: wireReactNative,
  unwire: unwireReactNative,
  declared: declaredInPackageJson,
};

function recognition(tree: Tree, { root, path, parts }: ReactNativeProject): Recognition | undefined {
  // A configuration of Expo makes native folders anew, unless the repository keeps them.
  if (parts.length === 0 || expoAt(tree, root)) return undefined;
  const roots = parts.map((part) => part.root);
  const evidence = [`${path} depends on react-native`, ...parts.flatMap((part) => part.evidence)];
  const above = exampleOf(tree, root);
  if (above === undefined) return { root, evidence, parts: roots };
  return { root, evidence, parts: roots, passedOver: `it is the example that ${above} brings along` };
}
