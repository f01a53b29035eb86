import type { Tree } from '../../tree/tree.js';
import { joined, unwireParts } from '../native-parts.js';
import { unwireSharedPlacebook } from '../joint-wiring.js';
import type { StackWiring, UnwireContext } from '../stack.js';
import { projectAt } from './project.js';
import { developmentOf } from './terms.js';
import { unwirePackageJson } from './wire-package.js';
import { standingPlacebook, wirePlacebook } from './wire-placebook.js';

/** Works out the edits that take a network out of a React Native project. */
export function unwireReactNative(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const book = unwireSharedPlacebook(context, standingPlacebook(tree, project), (rest) =>
    wirePlacebook(tree, project, rest, developmentOf(tree, root)),
  );
  return joined([
    unwireParts(tree, project.parts, 'react-native', context),
    { changes: unwirePackageJson(project, context, 'react-native'), byHand: [] },
    { changes: book, byHand: [] },
  ]);
}
