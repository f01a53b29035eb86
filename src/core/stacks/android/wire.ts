import { isEnrolled } from '../../roster/expected.js';
import { editionOf } from '../../roster/modules.js';
import type { Tree } from '../../tree/tree.js';
import { stageStep } from '../by-hand-steps.js';
import type { StackWiring, WireContext } from '../stack.js';
import { appModules } from './scripts.js';
import { stageSets } from './source-sets.js';
import { manifestPath } from './sources.js';
import { readModule } from './variants.js';
import { wireAppIds } from './wire-app-ids.js';
import { wireApplication } from './wire-application.js';
import { wireBinaries, wireCompanion } from './wire-binaries.js';
import { wireCallSites } from './wire-call-sites.js';
import { wireComponents } from './wire-components.js';
import { wireDependencies } from './wire-dependencies.js';
import { wireLayouts } from './wire-layouts.js';
import { wireLevels } from '../levels.js';
import { wirePermissions } from './wire-permissions.js';
import { wirePlacebook } from './wire-placebook.js';
import { wirePlugins } from './wire-plugin.js';

/** What wiring does, part by part. */
const parts = [
  wireAppIds,
  wirePermissions,
  wireComponents,
  wireApplication,
  wireDependencies,
  wireBinaries,
  wirePlugins,
  wireCompanion,
  wireLevels,
  wireLayouts,
];

/** What concerns the code: nothing where the tree is part of one in another language. */
const codeParts = [wireCallSites, wirePlacebook];

/** Works out the edits for the application module that is the title's Android edition. */
export function wireAndroid(tree: Tree, root: string, context: WireContext): StackWiring {
  const { title, profiles, survey } = context;
  const edition = editionOf(survey.editions, title, 'android');
  const module = appModules(tree).find(
    (candidate) => candidate.root === root && (candidate.folder || '.') === edition?.module,
  );
  if (!edition || !module || !profiles.some(({ id }) => isEnrolled(title, id, 'android')))
    return { changes: [], byHand: [] };
  const model = readModule(tree, module);
  const sets = stageSets(edition.variants);
  if (!sets) {
    const open = edition.variants.filter(({ stage }) => !stage).map(({ name }) => name);
    return { changes: [], byHand: [stageStep('android', open)] };
  }
  const manifest = manifestPath(model, 'main');
  const wiring = { ...context, tree, model, edition, sets, manifest };
  const made = [...parts, ...(context.hosted ? [] : codeParts)].map((part) => part(wiring));
  return {
    changes: made.flatMap(({ changes }) => changes),
    byHand: made.flatMap(({ byHand }) => byHand),
  };
}
