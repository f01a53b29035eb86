import type { Tree } from '../../../tree/tree.js';
import { unwireSharedPlacebook } from '../../common/joint-wiring.js';
import { joined } from '../../common/joined.js';
import { expoAt, asScripts } from '../../common/script-packages/expo-project.js';
import { existingPlacebook } from '../../common/script-packages/placebook.js';
import { unwirePackageJson } from '../../common/script-packages/wire.js';
import type { UnwireContext, StackWiring } from '../../stack.js';
import { buildsOf } from '../survey/builds.js';
import { isTestByVariable } from '../survey/config-script.js';
import { unwireConfig } from '../wire/config.js';
import { wirePlacebook, codeCondition } from '../wire/index.js';

/** Computes the edits that take a network out of an Expo project. */
export function unwireExpo(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = expoAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const builds = buildsOf(project, context.title);
  const existing = existingPlacebook(tree, asScripts(project));
  const book = unwireSharedPlacebook(context, existing, (rest) => wirePlacebook(tree, project, builds, rest));
  const needsVariable =
    codeCondition(context, builds) === isTestByVariable &&
    !book.some(({ kind }) => kind === 'remove') &&
    existing !== undefined;
  return joined([
    { changes: unwirePackageJson(asScripts(project), context, 'expo'), byHand: [] },
    { changes: unwireConfig(tree, project, builds, context, needsVariable), byHand: [] },
    { changes: book, byHand: [] },
  ]);
}
