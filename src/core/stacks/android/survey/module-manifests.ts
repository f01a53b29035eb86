import type { Tree } from '../../../tree/tree.js';
import { moduleName } from './facts.js';
import { identifierOf, namespaceOf } from './identifier.js';
import { metaDataIn, type FoundMetaData } from '../../common/manifest/found-meta-data.js';
import { type ManifestBuild } from '../../common/manifest/model.js';
import { placeholdersOf } from './placeholders.js';
import { manifestsOf, stringsOf } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** The manifests of a Gradle module's variant, with its placeholders and string resources. */
export function moduleManifests(tree: Tree, model: ModuleModel, variant: AndroidVariant): ManifestBuild {
  let placeholders: ReturnType<typeof placeholdersOf> | undefined;
  return {
    module: moduleName(model),
    variant: variant.name,
    isComplete: model.missing.length === 0,
    files: manifestsOf(tree, model, variant),
    namespace: namespaceOf(tree, model)?.value ?? null,
    placeholder(name) {
      placeholders ??= placeholdersOf(model, variant);
      return (
        placeholders.get(name) ?? (name === 'applicationId' ? identifierOf(tree, model, variant) : undefined)
      );
    },
    string: (name) => stringsOf(tree, model, variant).get(name),
  };
}

/** All meta-data of one key in the manifests of a variant, the weakest manifest first. */
export function metaDataOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  key: string,
): FoundMetaData[] {
  return metaDataIn(manifestsOf(tree, model, variant), key);
}
