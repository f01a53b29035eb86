import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { documentFacts, isDocument } from '../../common/documents.js';
import type { Collected } from '../../common/manifest/model.js';
import { moduleName } from './facts.js';
import { layersOf } from './libraries.js';
import { assetFolders, resourceFolders } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** Unit IDs in the assets and the raw resources of a variant. */
export function packedFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const homes = layersOf(tree, model, variant).flatMap((layer) =>
    layer.variant.sourceSets.flatMap((set) => [
      ...assetFolders(layer.model, set),
      ...resourceFolders(layer.model, set).flatMap((folder) => [`${folder}/raw`, `${folder}/xml`]),
    ]),
  );
  const paths = tree.paths.filter((path) => isDocument(path) && homes.some((home) => isWithin(path, home)));
  return documentFacts(
    tree,
    { platform: 'android', module: moduleName(model), variants: [variant.name], paths },
    context,
  );
}
