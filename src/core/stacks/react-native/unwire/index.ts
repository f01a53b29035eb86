import type { Tree } from '../../../tree/tree.js';
import { joined } from '../../common/joined.js';
import { unwireParts } from '../../common/native-parts.js';
import { unwireSharedPlacebook } from '../../common/joint-wiring.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { projectAt } from '../../common/script-packages/project.js';
import { developmentOf } from '../survey/terms.js';
import { unwirePackageJson } from '../../common/script-packages/wire.js';
import { wirePlacebook } from '../wire/placebook.js';
import { existingPlacebook } from '../../common/script-packages/placebook.js';

/** Computes the edits that take a network out of a React Native project. */
export function unwireReactNative(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const book = unwireSharedPlacebook(context, existingPlacebook(tree, project), (rest) =>
    wirePlacebook(tree, project, rest, developmentOf(tree, root)),
  );
  return joined([
    unwireParts(tree, project.parts, 'react-native', context),
    { changes: unwirePackageJson(project, context, 'react-native'), byHand: [] },
    { changes: book, byHand: [] },
  ]);
}
