import type { Tree } from '../../../tree/tree.js';
import type { WireContext, StackWiring } from '../../stack.js';
import { startSteps, sharedCallSites } from '../joint-wiring.js';
import { below } from './packages.js';
import { placebookImports } from './placebook.js';
import type { ReactNativeProject } from './project.js';
import { bundledFiles } from './sources.js';

/** IDs in code become references to the placebook on request; start-up calls are left to a person. */
export function wireScript(tree: Tree, project: ReactNativeProject, context: WireContext): StackWiring {
  const byHand = startSteps(context, {
    language: 'typescript',
    at: 'root-effect',
    where: rootComponent(tree, project),
    say: (example) =>
      `In the root component, in an effect that runs once and waits for a few seconds at most: ${example}`,
  });
  const how = { languages: ['typescript'], ...placebookImports(tree, project, context) } as const;
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
