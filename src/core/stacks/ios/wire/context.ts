import type { Stage } from '../../../words/words.js';
import type { SurveyEdition } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import type { WireContext } from '../../stack.js';
import type { IosVariant, TargetModel } from '../survey/targets.js';

/** A variant whose stage is known. */
export interface StagedVariant extends IosVariant {
  stage: Stage;
}

/** What each part of the iOS wiring works with. */
export interface IosWireContext extends WireContext {
  tree: Tree;
  model: TargetModel;
  edition: SurveyEdition;
  variants: StagedVariant[];
}
