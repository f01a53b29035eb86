import type { Fact } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { StackSurvey } from '../../stack.js';
import { documentFacts, isDocument } from '../../common/documents.js';
import { blank } from './blank.js';
import { membershipOf } from './membership.js';
import { propertyKeys } from './property-keys.js';
import { expandText } from './settings.js';
import { plistOf, type IosVariant, type TargetModel } from './targets.js';

/** Unit IDs in the property list of a variant, and in the documents that its target copies. */
export function packedFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  context: SurveyContext,
): Omit<StackSurvey, 'editions'> {
  const { copies } = membershipOf(model);
  const list = plistOf(tree, variant)?.path;
  const paths = tree.paths.filter((path) => path !== list && isDocument(path) && copies(path));
  const packed = documentFacts(
    tree,
    { platform: 'ios', module: model.module, variants: [variant.name], paths },
    context,
  );
  const keys = propertyKeys(tree, variant).flatMap(({ key, type, text, place, chain, ignored }): Fact[] => {
    if (type !== 'string' || ignored) return [];
    const { value, chain: way } = expandText(variant.scope, text, chain);
    return context.recogniser
      .recognise(value?.trim() ?? '')
      .filter(({ kind }) => kind === 'unit')
      .map(({ network }) => ({
        ...blank('unit-id', model, variant),
        network,
        name: key,
        value: value?.trim() ?? '',
        carrier: 'property-list',
        place,
        chain: way,
      }));
  });
  return { facts: [...packed.facts, ...keys], unresolved: packed.unresolved };
}
