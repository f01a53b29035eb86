import { blockBody, callsIn, literal, pathOf } from '../../formats/gradle/query.js';
import type { Expression } from '../../formats/gradle/read.js';
import type { ChainStep, Fact } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import type { Tree } from '../../tree/tree.js';
import type { SurveyContext } from '../stack.js';
import { evaluate } from './evaluate.js';
import { repositoriesOf, sameAddress } from './repositories.js';
import { catalogOf, statementsOf } from './scripts.js';
import { moduleName, type Collected } from './facts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

interface Coordinate {
  name: string;
  version: string;
  chain: ChainStep[];
}

/** The dependencies of a variant that a network's profile claims. */
export function dependencyFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const facts: Fact[] = [];
  const { script } = model.module;
  for (const { path, call } of callsIn(blockBody(statementsOf(tree, script), 'dependencies'))) {
    if (!appliesTo(path, variant)) continue;
    const place = placeAt(script, tree.text(script), call);
    for (const { name, version, chain } of coordinatesOf(tree, model, call)) {
      for (const profile of profiles) {
        if (!profile.android?.dependencies.some(({ coordinate }) => coordinate === name)) continue;
        const base = {
          kind: 'dependency' as const,
          network: profile.id,
          platform: 'android' as const,
          module: moduleName(model),
        };
        const steps = [{ what: path, value: name, place }, ...chain];
        facts.push({ ...base, variants: [variant.name], name, value: version, place, chain: steps });
      }
    }
  }
  return { facts, unresolved: [] };
}

/** The repositories that networks' SDKs come from, wherever this tree keeps them. */
export function repositoryFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const facts = repositoriesOf(tree, model.module.root).flatMap(({ name, place }) =>
    profiles
      .filter(({ android }) => android?.repositories.some(({ url }) => sameAddress(url, name)))
      .map(({ id }): Fact => ({
        kind: 'repository',
        network: id,
        platform: 'android',
        module: moduleName(model),
        variants: [variant.name],
        value: name,
        place,
        chain: [{ what: 'repository', value: name, place }],
      })),
  );
  return { facts, unresolved: [] };
}

/** Whether a configuration such as `freeDebugImplementation` reaches a variant. */
function appliesTo(configuration: string, variant: AndroidVariant): boolean {
  const match = /^(.*?)(implementation|api|compile|compileOnly|runtimeOnly|apk)$/i.exec(configuration);
  if (!match) return false;
  const prefix = (match[1] ?? '').toLowerCase();
  return prefix === '' || variant.sourceSets.some((set) => set !== 'main' && set.toLowerCase() === prefix);
}

/** The libraries that a call in a dependencies block names, catalogue aliases resolved. */
export function coordinatesOf(
  tree: Tree,
  model: ModuleModel,
  call: Expression & { type: 'call' },
): Coordinate[] {
  const [first] = call.args;
  const group = literal(call.args.find(({ name }) => name === 'group')?.value);
  const name = literal(call.args.find((arg) => arg.name === 'name')?.value);
  if (group && name)
    return [
      {
        name: `${group}:${name}`,
        version: literal(call.args.find((arg) => arg.name === 'version')?.value) ?? '',
        chain: [],
      },
    ];
  if (!first) return [];
  const alias = pathOf(first.value)?.replace(/\.get$/, '');
  const catalog = catalogOf(tree, model.module.root);
  if (alias?.startsWith('libs.') && catalog) return fromCatalog(tree, catalog, alias.slice('libs.'.length));
  if (first.value.type === 'call' && pathOf(first.value.callee) === 'platform') return [];
  if (first.value.type !== 'string' && first.value.type !== 'binary' && first.value.type !== 'name')
    return [];
  const resolved = evaluate(first.value, model.scope);
  const [groupId, artifact, version] = (resolved.value ?? '').split(':');
  return groupId && artifact
    ? [{ name: `${groupId}:${artifact}`, version: version ?? '', chain: resolved.chain.slice(1) }]
    : [];
}

function fromCatalog(
  tree: Tree,
  { path, catalog }: NonNullable<ReturnType<typeof catalogOf>>,
  alias: string,
): Coordinate[] {
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
        chain: [{ what: 'version catalogue', value, place }],
      },
    ];
  });
}
