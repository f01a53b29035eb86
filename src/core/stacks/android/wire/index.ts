import { isEnrolled } from '../../../roster/expected.js';
import { editionOf } from '../../../roster/modules.js';
import type { Tree } from '../../../tree/tree.js';
import { stageStep } from '../../common/by-hand-steps.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { appModules } from '../../common/gradle/scripts.js';
import { stageSets } from '../survey/source-sets.js';
import { manifestPath } from '../survey/sources.js';
import { readModule } from '../survey/variants.js';
import { wireAppIds } from './app-ids.js';
import { wireApplication } from './application.js';
import { wireBinaries, wireCompanion } from './binaries.js';
import { wireCallSites } from './call-sites.js';
import { wireCompileOptions } from './compile-options.js';
import { wireShrinker } from './shrinker.js';
import { wireDependencies } from './dependencies.js';
import { wireLayouts } from './layouts.js';
import { wireLevels } from '../../common/levels.js';
import { wireManifest } from '../../common/manifest/wire.js';
import { wirePlacebook } from './placebook.js';
import { wirePlugins } from './plugin.js';

/** What wiring does, part by part. */
const parts = [
  wireAppIds,
  wireManifest,
  wireApplication,
  wireDependencies,
  wireBinaries,
  wirePlugins,
  wireCompanion,
  wireCompileOptions,
  wireShrinker,
  wireLevels,
  wireLayouts,
];

/** What concerns the code: nothing where the tree is part of one in another language. */
const codeParts = [wireCallSites, wirePlacebook];

/** Computes the edits for the application module that is the title's Android edition. */
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
