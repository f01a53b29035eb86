import { isEnrolled } from '../../../roster/expected.js';
import { editionOf } from '../../../roster/modules.js';
import type { Tree } from '../../../tree/tree.js';
import { stageStep } from '../../common/by-hand-steps.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { wireAttribution } from './attribution.js';
import { targetsBelow } from '../survey/targets.js';
import { wireAppIds } from './app-ids.js';
import { wireCallSites } from './call-sites.js';
import { wireCompanion } from './companion.js';
import type { IosWireContext, StagedVariant } from './context.js';
import { wireDependencies } from './dependencies.js';
import { storeSteps, wireKeys } from './keys.js';
import { wireLevels } from '../../common/levels.js';
import { wireLinkerFlags } from './linker.js';
import { wirePlacebook } from './placebook.js';

/** What wiring does, part by part. */
const parts = [
  wireAppIds,
  wireKeys,
  wireAttribution,
  wireLinkerFlags,
  wireDependencies,
  wireCompanion,
  wireLevels,
];

/** What concerns the code: nothing where the tree is part of one in another language. */
const codeParts = [wireCallSites, wirePlacebook];

/** Computes the edits for the application target that is the title's iOS edition. */
export function wireIos(tree: Tree, root: string, context: WireContext): StackWiring {
  const { title, profiles, survey } = context;
  const edition = editionOf(survey.editions, title, 'ios');
  const model = targetsBelow(tree, root).find(({ module }) => module === edition?.module);
  if (!edition || !model || !profiles.some(({ id }) => isEnrolled(title, id, 'ios')))
    return { changes: [], byHand: [] };
  const variants = model.variants.flatMap((variant): StagedVariant[] => {
    const stage = edition.variants.find(({ name }) => name === variant.name)?.stage;
    return stage ? [{ ...variant, stage }] : [];
  });
  if (variants.length < model.variants.length) {
    const open = edition.variants.filter(({ stage }) => !stage).map(({ name }) => name);
    return { changes: [], byHand: [stageStep('ios', open)] };
  }
  const wiring: IosWireContext = { ...context, tree, model, edition, variants };
  const made = [...parts, ...(context.hosted ? [] : codeParts)].map((part) => part(wiring));
  const changes = made.flatMap((part) => part.changes);
  return { changes, byHand: [...made.flatMap(({ byHand }) => byHand), ...storeSteps(wiring, changes)] };
}
