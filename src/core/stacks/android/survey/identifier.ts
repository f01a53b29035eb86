import { attribute } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { manifestPath } from './sources.js';
import { evaluate } from './evaluate.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { settingOf } from '../../common/gradle/parts.js';
import { moduleSetting, variantSetting, type AndroidVariant, type ModuleModel } from './variants.js';

/**
 * The package that a module's classes and short names belong to: its namespace, else the `package` of its main manifest,
 * which gave it before there were namespaces (developer.android.com, "Configure the app module").
 */
export function namespaceOf(tree: Tree, model: ModuleModel): Resolved | undefined {
  const set = moduleSetting(model, ['namespace', 'setNamespace']);
  if (set) return set;
  const path = manifestPath(model, 'main');
  const root = tree.read(path, readXml)?.root;
  const given = root && attribute(root, 'package');
  const value = given?.value.trim() ?? '';
  if (!given || value === '') return undefined;
  const place = placeAt(path, tree.text(path), given.valueSpan);
  return { value, chain: [{ what: 'package of the manifest', value, place }] };
}

/**
 * The application ID of a variant with the suffixes of its flavours and build type; the namespace when none is set,
 * else the `package` of the manifest.
 */
export function identifierOf(tree: Tree, model: ModuleModel, variant: AndroidVariant): Resolved {
  const own = variantSetting(model, variant, ['applicationId', 'setApplicationId']);
  const base: Resolved = own ??
    namespaceOf(tree, model) ?? {
      value: null,
      reason: model.missing[0]
        ? `the script ${model.missing[0].from} may set it, and cannot be read: ${model.missing[0].reason}`
        : 'no script sets applicationId or a namespace, and the manifest has no package',
      chain: [],
    };
  if (base.value === null) return base;
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
