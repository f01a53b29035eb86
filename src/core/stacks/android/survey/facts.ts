import type { PlainKind } from '../../../facts/model.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import type { Collected } from '../../common/manifest/model.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** How facts name a module: its folder, or `.` for the root. */
export function moduleName(model: ModuleModel): string {
  return model.module.folder || '.';
}

/** A fact, or an unresolved value, from what an expression came to. */
export function fromResolved(
  model: ModuleModel,
  variant: AndroidVariant,
  kind: PlainKind,
  what: string,
  resolved: Resolved,
): Collected {
  const place = resolved.chain[0]?.place ?? { path: model.module.script, line: 1, column: 1 };
  const base = {
    kind,
    network: null,
    platform: 'android' as const,
    module: moduleName(model),
    variants: [variant.name],
    place,
    chain: resolved.chain,
  };
  if (resolved.value === null) return { facts: [], unresolved: [{ ...base, what, reason: resolved.reason }] };
  return { facts: [{ ...base, value: resolved.value, effective: true }], unresolved: [] };
}
