import type { SurveyEdition } from '../../survey/model.js';
import type { Tree } from '../../tree/tree.js';
import type { WireContext } from '../stack.js';
import { moduleName } from './facts.js';
import type { StageSets } from './source-sets.js';
import type { ModuleModel } from './variants.js';

/** What each part of the Android wiring works with. */
export interface AndroidWireContext extends WireContext {
  tree: Tree;
  model: ModuleModel;
  edition: SurveyEdition;
  sets: StageSets;
}

/** The module of a context, as facts name it. */
export function contextModule({ model }: AndroidWireContext): string {
  return moduleName(model);
}
