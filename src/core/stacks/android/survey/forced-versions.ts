import { callsIn, literal, pathOf, type FoundCall } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Profile } from '../../../network/model.js';
import type { Tree } from '../../../tree/tree.js';
import { scriptOf } from '../../common/gradle/catalogs.js';
import { blockParts, scriptParts, type Part } from '../../common/gradle/parts.js';
import { coordinatesOf } from './coordinates.js';
import { moduleName } from './facts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** A version that a script forces, and where. */
interface Forced {
  name: string;
  version: string;
  by: string;
  script: string;
  call: Expression;
}

/**
 * Versions that Gradle takes for an SDK whatever is declared: `force`, constraints, `useVersion` (docs.gradle.org,
 * "Using Resolution Rules" and "Declaring Dependency Constraints").
 */
export function forcedFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  profiles: readonly Profile[],
): Fact[] {
  return forcedIn(tree, model, profiles).flatMap(({ name, version, by, script, call }) =>
    profiles
      .filter(({ android }) => android?.dependencies.some(({ coordinate }) => coordinate === name))
      .map(({ id }): Fact => {
        const place = placeAt(script, tree.text(script), call);
        const chain = [{ what: by, value: `${name}:${version}`, place }];
        const edition = { platform: 'android' as const, module: moduleName(model), variants: [variant.name] };
        const said = { name, value: version, by, effective: true as const, place, chain };
        return { kind: 'forced-version', network: id, ...edition, ...said };
      }),
  );
}

function forcedIn(tree: Tree, model: ModuleModel, profiles: readonly Profile[]): Forced[] {
  const { root, script } = model.module;
  const above = scriptOf(tree, root);
  const shared = above === undefined || above === script ? [] : scriptParts(tree, root, above).parts;
  const parts = [
    ...model.parts,
    ...['allprojects', 'subprojects'].flatMap((name) => blockParts(shared, name)),
  ];
  const named = ({ call }: FoundCall, at: string, by: string): Forced[] =>
    coordinatesOf(tree, model, { call, script: at }).flatMap(({ name, version }) =>
      version === '' ? [] : [{ name, version, by, script: at, call }],
    );
  const constraints = blockParts(blockParts(parts, 'dependencies'), 'constraints').flatMap(
    ({ path, statements }) => callsIn(statements).flatMap((found) => named(found, path, 'constraints')),
  );
  const rules = strategies(parts).flatMap(({ path, statements }) =>
    callsIn(statements).flatMap((found): Forced[] => {
      if (found.path === 'force') return named(found, path, 'force');
      if (!/^(eachDependency|dependencySubstitution)$/.test(found.path)) return [];
      const version = versionUsed(found.call.body ?? []);
      if (version === undefined) return [];
      const text = tree.text(path)?.text.slice(found.call.start, found.call.end) ?? '';
      return profiles
        .flatMap(({ android }) => android?.dependencies ?? [])
        .filter(({ coordinate }) => mentions(text, coordinate))
        .map(({ coordinate }) => ({
          name: coordinate,
          version,
          by: found.path,
          script: path,
          call: found.call,
        }));
    }),
  );
  return [...constraints, ...rules];
}

/** What is inside `resolutionStrategy`, in `configurations.all { }` and the like. */
function strategies(parts: readonly Part[]): Part[] {
  const configurations = parts.flatMap(({ path, statements }): Part[] =>
    callsIn(statements).flatMap(({ path: name, call }) =>
      /^configurations(\.\w+)?$/.test(name) && call.body ? [{ path, statements: call.body }] : [],
    ),
  );
  const nested = blockParts(parts, 'configurations').flatMap(({ path, statements }) =>
    callsIn(statements).flatMap(({ call }) => (call.body ? [{ path, statements: call.body }] : [])),
  );
  return blockParts([...configurations, ...nested], 'resolutionStrategy');
}

/** The version in `useVersion("1.2")`, at any depth. */
function versionUsed(statements: readonly Statement[], depth = 0): string | undefined {
  for (const statement of statements) {
    if (statement.type === 'conditional') {
      const inner = depth < 6 ? versionUsed(statement.body, depth + 1) : undefined;
      if (inner !== undefined) return inner;
    }
    if (statement.type !== 'expression' || statement.value.type !== 'call') continue;
    const { callee, args, body } = statement.value;
    if ((pathOf(callee) ?? '').split('.').at(-1) === 'useVersion') return literal(args[0]?.value);
    const inner = body && depth < 6 ? versionUsed(body, depth + 1) : undefined;
    if (inner !== undefined) return inner;
  }
  return undefined;
}

/** Whether a rule names a library: by its group, and by its artifact where the rule names one. */
function mentions(text: string, coordinate: string): boolean {
  const [group = '', artifact = ''] = coordinate.split(':');
  const quoted = (word: string) => text.includes(`"${word}"`) || text.includes(`'${word}'`);
  if (quoted(coordinate)) return true;
  return quoted(group) && (!/\.name\b|\bmodule\b/.test(text) || quoted(artifact));
}
