import type { Fact } from '../../../facts/model.js';
import type { Profile } from '../../../network/model.js';
import type { Tree } from '../../../tree/tree.js';
import { attributionIn } from '../../common/plist/attribution.js';
import { type TargetModel, type IosVariant, plistOf } from './targets.js';

/** The SKAdNetwork identifiers that the property list of a variant names, right or wrong. */
export function attributionFacts(
  tree: Tree,
  { module }: TargetModel,
  variant: IosVariant,
  profiles: readonly Profile[],
): Fact[] {
  const list = plistOf(tree, variant);
  return list ? attributionIn(list, { module, variant: variant.name }, profiles) : [];
}
