import { typescript } from '../../../languages/typescript/index.js';
import type { Tree } from '../../../tree/tree.js';
import { joined } from '../../common/joined.js';
import { installOf, wirePackageJson } from '../../common/script-packages/wire.js';
import { stageCondition } from '../../common/script-packages/placebook.js';
import { existingPlacebook } from '../../common/script-packages/placebook.js';
import { placebookPath } from '../../common/script-packages/placebook.js';
import { wireScript } from '../../common/script-packages/start.js';
import { isAnyEnrolled, titleEditions, wireSharedPlacebook } from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { buildsOf, type ExpoBuild } from '../survey/builds.js';
import { isTestByVariable } from '../survey/config-script.js';
import { asScripts, expoAt, type ExpoProject } from '../../common/script-packages/expo-project.js';
import { wireConfig } from './config.js';

/** Computes the edits for an Expo project: its configuration, its packages, its placebook. */
export function wireExpo(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = expoAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  const builds = buildsOf(project, context.title);
  const todo = `Run ${installOf(tree, root)}, build a new client for developing, and keep the new lock file.`;
  return joined([
    wirePackageJson(tree, asScripts(project), context, { stack: 'expo', todo }),
    wireConfig(tree, project, builds, context, codeCondition(context, builds) === isTestByVariable),
    wirePlacebook(tree, project, builds, context),
    wireScript(tree, asScripts(project), context),
  ]);
}

/** What tells the test stage in code: whether a build is for developing, where that is enough, or the variable. */
export function codeCondition(context: WireContext, builds: readonly ExpoBuild[]): string | undefined {
  const byDevelopment = stageCondition(
    titleEditions(context),
    (_, { name }) => builds.find(({ variant }) => variant.name === name)?.development === true,
  );
  return byDevelopment ?? isTestByVariable;
}

export function wirePlacebook(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: WireContext,
): StackWiring {
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, asScripts(project)),
    path: placebookPath(tree, asScripts(project), context),
    testCondition: codeCondition(context, builds),
    language: typescript,
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Write an eas.json with a build profile for each stage, then wire again.',
      why: 'Without build profiles nothing tells a bundle which stage it is of.',
      where: project.path,
    },
  });
}
