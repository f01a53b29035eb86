import type { Tree } from '../../../tree/tree.js';
import { joined } from '../../common/joined.js';
import { wireParts } from '../../common/native-parts.js';
import { isAnyEnrolled } from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { projectAt } from '../../common/script-packages/project.js';
import { developmentOf } from '../survey/terms.js';
import { installOf, wirePackageJson } from '../../common/script-packages/wire.js';
import { wirePlacebook } from './placebook.js';
import { wireScript } from '../../common/script-packages/start.js';

/** Computes the edits for a React Native project: its native trees, its packages, its placebook. */
export function wireReactNative(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  const todo = `Run ${installOf(tree, root)}, then pod install in ios, and commit the new lock files.`;
  return joined([
    wireParts(tree, project.parts, 'react-native', context),
    wirePackageJson(tree, project, context, { stack: 'react-native', todo }),
    wirePlacebook(tree, project, context, developmentOf(tree, root)),
    wireScript(tree, project, context),
  ]);
}
