import type { Tree } from '../../../tree/tree.js';
import { joined } from '../../common/joined.js';
import { unwireParts } from '../../common/native-parts.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { unwireSharedPlacebook } from '../../common/joint-wiring.js';
import { projectAt } from '../survey/project.js';
import { existingPlacebook, wirePlacebook } from '../wire/placebook.js';
import { unwirePubspec } from '../wire/packages.js';

/** Computes the edits that take a network out of a Flutter project. */
export function unwireFlutter(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  return joined([
    unwireParts(tree, project.parts, 'flutter', context),
    { changes: unwirePubspec(tree, project, context), byHand: [] },
    {
      changes: unwireSharedPlacebook(context, existingPlacebook(tree, root), (rest) =>
        wirePlacebook(tree, project, rest),
      ),
      byHand: [],
    },
  ]);
}
