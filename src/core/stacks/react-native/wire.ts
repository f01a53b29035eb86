import type { Tree } from '../../tree/tree.js';
import { joined, wireParts } from '../native-parts.js';
import { isAnyEnrolled, sharedCallSites, startSteps } from '../joint-wiring.js';
import type { StackWiring, WireContext } from '../stack.js';
import { below } from '../script-packages.js';
import { projectAt, type ReactNativeProject } from './project.js';
import { bundledFiles } from './sources.js';
import { developmentOf } from './terms.js';
import { installOf, wirePackageJson } from './wire-package.js';
import { placebookPath, wirePlacebook } from './wire-placebook.js';

/** Works out the edits for a React Native project: its native trees, its packages, its placebook. */
export function wireReactNative(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  const todo = `Run ${installOf(tree, root)}, then pod install in ios, and keep the new lock files.`;
  return joined([
    wireParts(tree, project.parts, 'react-native', context),
    wirePackageJson(tree, project, context, { stack: 'react-native', todo }),
    wirePlacebook(tree, project, context, developmentOf(tree, root)),
    wireScript(tree, project, context),
  ]);
}

/** IDs in code become references to the placebook where that is asked for; start-up calls are left to a person. */
export function wireScript(tree: Tree, project: ReactNativeProject, context: WireContext): StackWiring {
  const byHand = startSteps(context, {
    language: 'typescript',
    at: 'root-effect',
    where: rootComponent(tree, project),
    say: (example) =>
      `In the root component, in an effect that runs once and waits no longer than a few seconds: ${example}`,
  });
  const how = { languages: ['typescript'], bookPath: placebookPath(tree, project) } as const;
  return { changes: sharedCallSites(tree, context, how), byHand };
}

/** The file in which the root component is most likely written. */
function rootComponent(tree: Tree, project: ReactNativeProject): string {
  const files = bundledFiles(tree, project);
  const usual = [
    'App.tsx',
    'src/App.tsx',
    'App.js',
    'src/App.js',
    'App.jsx',
    'app/_layout.tsx',
    'src/app/_layout.tsx',
  ];
  const found = usual.map((name) => below(project.root, name)).find((path) => files.includes(path));
  return found ?? below(project.root, 'App.tsx');
}
