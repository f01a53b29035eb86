import type { SurveyEdition } from '../../facts/model.js';
import type { Tree } from '../../tree/tree.js';
import type { WireContext } from '../stack.js';
import type { StageSets } from './source-sets.js';
import type { ModuleModel } from './variants.js';

/** What the parts of the wiring work with that concern a manifest alone, however the application is built. */
export interface ManifestWireContext extends WireContext {
  tree: Tree;
  edition: SurveyEdition;
  /** The manifest that what is missing goes into. */
  manifest: string;
}

/** What each part of the Android wiring works with. */
export interface AndroidWireContext extends ManifestWireContext {
  model: ModuleModel;
  sets: StageSets;
}
