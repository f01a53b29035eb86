import type { ManifestWireContext } from '../../common/manifest/model.js';
import type { StageSets } from '../survey/source-sets.js';
import type { ModuleModel } from '../survey/variants.js';

/** What each part of the Android wiring works with. */
export interface AndroidWireContext extends ManifestWireContext {
  model: ModuleModel;
  sets: StageSets;
}
