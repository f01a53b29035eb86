import type { Change } from '../../../edits/model.js';
import { profileFor } from '../../../network/for-stack.js';
import type { Tree } from '../../../tree/tree.js';
import { unwireSharedPlacebook } from '../../common/joint-wiring.js';
import { unwireLibraries } from '../../common/library-file.js';
import { manifestRemovals } from '../../common/manifest/removals.js';
import type { UnwireContext, StackWiring } from '../../stack.js';
import { manifestOf } from '../survey/android-facts.js';
import { mauiAt } from '../survey/project.js';
import { unwireAppIds } from '../wire/app-ids.js';
import { unwireList } from '../wire/keys.js';
import { existingPlacebook, wirePlacebook } from '../wire/placebook.js';
import { unwireMauiPackages } from '../wire/packages.js';
import { unwireLinker } from '../wire/project.js';

/** Computes the edits that take a network out of a .NET MAUI project. */
export function unwireMaui(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = mauiAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const network = profileFor(context.network, 'maui');
  const packages = unwireMauiPackages(tree, project, context);
  const changes: Change[] = [
    ...packages.changes,
    ...unwireAppIds(tree, project, context),
    ...manifestRemovals({ ...context, network, tree }, manifestOf(project)),
    ...unwireList(tree, project, context),
    ...unwireLinker(tree, project, context),
    ...unwireLibraries(context),
    ...unwireSharedPlacebook(context, existingPlacebook(tree, project), (rest) =>
      wirePlacebook(tree, project, rest),
    ),
  ];
  return { changes, byHand: packages.byHand };
}
