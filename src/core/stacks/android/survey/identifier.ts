import { evaluate } from './evaluate.js';
import type { Resolved } from '../../shared/gradle/resolved.js';
import { settingOf } from '../../shared/gradle/parts.js';
import { moduleSetting, variantSetting, type AndroidVariant, type ModuleModel } from './variants.js';

/** The application ID of a variant with the suffixes of its flavours and build type; the namespace when none is set. */
export function identifierOf(model: ModuleModel, variant: AndroidVariant): Resolved | undefined {
  const own = variantSetting(model, variant, ['applicationId', 'setApplicationId']);
  const base: Resolved | undefined = own ?? moduleSetting(model, ['namespace', 'setNamespace']);
  if (base?.value == null) return base;
  let { value } = base;
  const chain = [...base.chain];
  for (const config of variant.configs) {
    const suffix = settingOf(config.parts, ['applicationIdSuffix', 'setApplicationIdSuffix']);
    if (!suffix) continue;
    const resolved: Resolved = suffix.conditional
      ? { value: null, reason: 'a suffix is set under a condition', chain: [] }
      : evaluate(suffix.value, { ...model.scope, path: suffix.path });
    if (resolved.value === null) return { ...resolved, chain: [...chain, ...resolved.chain] };
    value += resolved.value.startsWith('.') ? resolved.value : `.${resolved.value}`;
    chain.push(...resolved.chain.map((step) => ({ ...step, what: `suffix of ${config.name}` })));
  }
  return { value, chain };
}
