import { typescript } from '../../languages/typescript/index.js';
import type { Tree } from '../../tree/tree.js';
import { joined } from '../native-parts.js';
import { installOf, unwirePackageJson, wirePackageJson } from '../react-native/wire-package.js';
import { placebookPath, stageCondition, standingPlacebook } from '../react-native/wire-placebook.js';
import { wireScript } from '../react-native/wire.js';
import { isAnyEnrolled, titleEditions, unwireSharedPlacebook, wireSharedPlacebook } from '../joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';
import { buildsOf, type ExpoBuild } from './builds.js';
import { isTestByVariable } from './config-script.js';
import { asScripts, expoAt, type ExpoProject } from './project.js';
import { unwireConfig, wireConfig } from './wire-config.js';

/** Works out the edits for an Expo project: its configuration, its packages, its placebook. */
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

/** Works out the edits that take a network out of an Expo project. */
export function unwireExpo(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = expoAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const builds = buildsOf(project, context.title);
  const standing = standingPlacebook(tree, asScripts(project));
  const book = unwireSharedPlacebook(context, standing, (rest) => wirePlacebook(tree, project, builds, rest));
  const needsVariable =
    codeCondition(context, builds) === isTestByVariable &&
    !book.some(({ kind }) => kind === 'remove') &&
    standing !== undefined;
  return joined([
    { changes: unwirePackageJson(asScripts(project), context, 'expo'), byHand: [] },
    { changes: unwireConfig(tree, project, builds, context, needsVariable), byHand: [] },
    { changes: book, byHand: [] },
  ]);
}

/** What tells the test stage in code: whether a build is for developing, where that is enough, or the variable. */
function codeCondition(context: WireContext, builds: readonly ExpoBuild[]): string | undefined {
  const byDevelopment = stageCondition(
    titleEditions(context),
    (_, { name }) => builds.find(({ variant }) => variant.name === name)?.development === true,
  );
  return byDevelopment ?? isTestByVariable;
}

function wirePlacebook(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: WireContext,
): StackWiring {
  return wireSharedPlacebook(context, {
    standing: standingPlacebook(tree, asScripts(project)),
    path: placebookPath(tree, asScripts(project)),
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
