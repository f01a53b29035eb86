import { callsIn, literal, pathOf, settingIn } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { catalogsOf, type NamedCatalog } from '../../common/gradle/catalogs.js';
import type { DependencyCall } from './dependency-calls.js';
import { evaluate } from './evaluate.js';
import type { ModuleModel } from './variants.js';

/** A library that a dependency line names. */
export interface Coordinate {
  /** Group and artifact. */
  name: string;
  /** Empty when the line names none: a platform then gives it. */
  version: string;
  /** Whether it is a platform, which brings versions and no code. */
  platform: boolean;
  chain: ChainStep[];
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
