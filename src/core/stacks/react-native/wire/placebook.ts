import { typescript } from '../../../languages/typescript/index.js';
import type { Tree } from '../../../tree/tree.js';
import { titleEditions, wireSharedPlacebook } from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { type ReactNativeProject } from '../../common/script-packages/project.js';
import type { IsDevelopment } from '../../common/script-packages/placebook.js';
import { placebookPath, stageCondition, existingPlacebook } from '../../common/script-packages/placebook.js';

/** The placebook in TypeScript: one file for both platforms and stages. */
export function wirePlacebook(
  tree: Tree,
  project: ReactNativeProject,
  context: WireContext,
  isDevelopment: IsDevelopment,
): StackWiring {
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, project),
    path: placebookPath(tree, project, context),
    testCondition: stageCondition(titleEditions(context), isDevelopment),
    language: typescript,
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give the debug variants the test stage and all others production, then wire again.',
      why: 'One bundle serves both platforms; it can only use __DEV__, which only debug variants set.',
      where: project.path,
    },
  });
}
