import type { FactKind } from '../../../facts/model.js';
import type { IosVariant, TargetModel } from './targets.js';

/** What every fact of a variant has in common. */
export function blank<Kind extends FactKind>(
  kind: Kind,
  model: TargetModel,
  variant: Pick<IosVariant, 'name'>,
) {
  return {
    kind,
    network: null as string | null,
    platform: 'ios' as const,
    module: model.module,
    variants: [variant.name],
    effective: true as const,
  };
}
