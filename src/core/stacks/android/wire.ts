import { isEnrolled } from '../../roster/expected.js';
import { editionOf } from '../../survey/modules.js';
import type { Tree } from '../../tree/tree.js';
import type { Change } from '../../wiring/model.js';
import { stageStep } from '../../wiring/steps.js';
import type { StackWiring, WireContext } from '../stack.js';
import { appModules } from './scripts.js';
import { stageSets } from './source-sets.js';
import { readModule } from './variants.js';
import { wireAppIds } from './wire-app-ids.js';
import { wireDependencies } from './wire-dependencies.js';
import { wirePermissions } from './wire-permissions.js';
import { wirePlacebook } from './wire-placebook.js';

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
  const wiring = { ...context, tree, model, edition, sets };
  const parts = [wireAppIds, wirePermissions, wireDependencies, wirePlacebook].map((part) => part(wiring));
  const changes = parts.flatMap((part) =>
    part.changes.map((change): Change => ({ ...change, platform: 'android' })),
  );
  return { changes, byHand: parts.flatMap(({ byHand }) => byHand) };
}
