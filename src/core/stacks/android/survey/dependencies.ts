import { callsIn, literal, pathOf, settingIn } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { binaryFacts } from './binaries.js';
import { dependencyCalls, type DependencyCall } from './dependency-calls.js';
import { evaluate } from './evaluate.js';
import { moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { layersOf } from './libraries.js';
import { catalogsOf, type NamedCatalog } from '../../common/gradle/catalogs.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** A library that a dependency line names. */
interface Coordinate {
  /** Group and artifact. */
  name: string;
  /** Empty when the line names none: a platform then gives it. */
  version: string;
  /** Whether it is a platform, which brings versions and no code. */
  platform: boolean;
  chain: ChainStep[];
}

/** The dependencies of a variant that a network's profile claims, those of modules it takes in included. */
export function dependencyFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const found: Collected = { facts: [], unresolved: [] };
  for (const layer of layersOf(tree, model, variant)) {
    const calls = dependencyCalls(layer.model, layer.variant);
    const named = calls.flatMap((item) =>
      coordinatesOf(tree, layer.model, item).map((coordinate) => ({ item, coordinate })),
    );
    for (const { item, coordinate } of named) {
      const { name, platform, chain } = coordinate;
      if (platform) continue;
      for (const profile of profiles) {
        if (!profile.android?.dependencies.some((wanted) => wanted.coordinate === name)) continue;
        const place = placeAt(item.script, tree.text(item.script), item.call);
        const group = name.split(':')[0] ?? '';
        const bom =
          coordinate.version === ''
            ? named.find(
                (other) => other.coordinate.platform && other.coordinate.name.startsWith(`${group}:`),
              )
            : undefined;
        const base = {
          kind: 'dependency' as const,
          network: profile.id,
          platform: 'android' as const,
          module: moduleName(model),
          variants: [variant.name],
          name,
          place,
        };
        const steps = [{ what: item.configuration, value: name, place }, ...chain];
        if (bom) {
          const at = placeAt(bom.item.script, tree.text(bom.item.script), bom.item.call);
          steps.push({
            what: 'platform',
            value: `${bom.coordinate.name}:${bom.coordinate.version}`,
            place: at,
          });
        }
        if (item.conditional)
          found.unresolved.push({
            ...base,
            what: `whether ${name} is among the dependencies`,
            reason: 'it is added under a condition',
            chain: steps,
          });
        else found.facts.push({ ...base, value: coordinate.version, effective: true, chain: steps });
      }
    }
    found.facts.push(...binaryFacts(tree, { layer, calls, profiles, module: moduleName(model), variant }));
  }
  return found;
}

/** The libraries that a line of a dependencies block names, catalogue aliases resolved. */
export function coordinatesOf(
  tree: Tree,
  model: ModuleModel,
  { call, script }: Pick<DependencyCall, 'call' | 'script'>,
): Coordinate[] {
  const scope = { ...model.scope, path: script };
  const group = call.args.find(({ name }) => name === 'group')?.value;
  const name = call.args.find((arg) => arg.name === 'name')?.value;
  if (group && name) {
    const version = call.args.find((arg) => arg.name === 'version')?.value;
    const parts = [group, name, ...(version ? [version] : [])].map((part) => evaluate(part, scope));
    const [groupText, nameText, versionText] = parts.map(({ value }) => value ?? '');
    const chain = parts.flatMap((part) => part.chain.slice(1));
    return [{ name: `${groupText}:${nameText}`, version: versionText ?? '', platform: false, chain }];
  }
  const constrained = call.body ? constraint(call.body) : undefined;
  return call.args
    .filter((arg) => arg.name === undefined)
    .flatMap(({ value }) => fromArgument(tree, model, value, script))
    .map((found) =>
      found.version === '' && constrained !== undefined ? { ...found, version: constrained } : found,
    );
}

/** The version in `{ version { strictly("1.2") } }`. */
function constraint(body: Parameters<typeof callsIn>[0]): string | undefined {
  const version = callsIn(body).find(({ path, call }) => path === 'version' && call.body);
  const found = version && settingIn(version.call.body ?? [], ['strictly', 'require', 'prefer']);
  return literal(found?.value);
}

function fromArgument(tree: Tree, model: ModuleModel, value: Expression, script: string): Coordinate[] {
  const path = pathOf(value.type === 'call' ? value.callee : value);
  if (value.type === 'call' && /^(enforcedPlatform|platform)$/.test(path ?? ''))
    return value.args
      .flatMap((arg) => fromArgument(tree, model, arg.value, script))
      .map((found) => ({ ...found, platform: true }));
  if (value.type === 'list')
    return value.items.flatMap((item) => fromArgument(tree, model, item.value, script));
  const alias = path?.replace(/\.get$/, '') ?? '';
  const catalog = catalogsOf(tree, model.module.root).find(({ name }) => alias.startsWith(`${name}.`));
  if (catalog) return fromCatalog(tree, catalog, alias.slice(catalog.name.length + 1));
  if (value.type === 'call') {
    // `kotlin("stdlib")` and the like are no ad SDKs; `variantOf(libs.x)` and `dependencies.create("…")` are.
    if (/(^|\.)(create|variantOf|testFixtures)$/.test(path ?? ''))
      return value.args.flatMap((arg) => fromArgument(tree, model, arg.value, script));
    return [];
  }
  if (value.type !== 'string' && value.type !== 'binary' && value.type !== 'name' && value.type !== 'member')
    return [];
  const resolved = evaluate(value, { ...model.scope, path: script });
  const text = resolved.value ?? (value.type === 'string' ? value.raw : '');
  const [groupId, artifact, version] = text.split(':');
  if (!groupId || !artifact || /[\s/\\]/.test(groupId)) return [];
  // A version that cannot be computed leaves the library itself known.
  const known = (version ?? '').includes('$') ? '' : (version ?? '').replace(/@\w+$/, '');
  return [
    { name: `${groupId}:${artifact}`, version: known, platform: false, chain: resolved.chain.slice(1) },
  ];
}

function fromCatalog(tree: Tree, { path, catalog }: NamedCatalog, alias: string): Coordinate[] {
  const bundle = alias.startsWith('bundles.')
    ? catalog.bundles.get(alias.slice('bundles.'.length))
    : undefined;
  return (bundle ?? [alias]).flatMap((wanted) => {
    const found = catalog.libraries.find((library) => library.alias === wanted);
    if (!found) return [];
    const place = placeAt(path, tree.text(path), {
      start: found.start,
      end: found.start + found.alias.length,
    });
    const value = `${found.name}:${found.version ?? ''}`;
    return [
      {
        name: found.name,
        version: found.version ?? '',
        platform: false,
        chain: [{ what: 'version catalogue', value, place }],
      },
    ];
  });
}
