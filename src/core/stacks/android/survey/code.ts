import { callFacts } from '../../../code/calls.js';
import { both, opposite, type Compiled } from '../../../syntax/compiled.js';
import { codeFacts } from '../../../code/facts.js';
import { flagsOf, weigh } from '../../../code/flags.js';
import type { ConditionTerms } from '../../../syntax/conditions.js';
import { readingOf, type CodeFile } from '../../../code/source-files.js';
import { sharedNames } from '../../../code/shared-names.js';
import { literal, pathOf } from '../../../formats/gradle/query.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { layersOf } from './libraries.js';
import { settingOf } from '../../common/gradle/parts.js';
import { buildConfigOf } from './res-values.js';
import { codeFiles, stringsOf } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** IDs, calls and callbacks in the Kotlin and Java that a variant compiles. */
export function codeOf(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const found: Collected = { facts: [], unresolved: [] };
  const paths = layersOf(tree, model, variant).flatMap((layer) =>
    layer.variant.sourceSets.flatMap((set) => codeFiles(tree, layer.model, set)),
  );
  const shared = sharedNames(tree, paths);
  const strings = stringsOf(tree, model, variant);
  const fields = new Map(buildConfigOf(model, variant).map(({ name, value }) => [name, value.value]));
  const resolve = (_: string, name: string): string | undefined => {
    const resource = /(^|\.)R\.string\.(\w+)$/.exec(name)?.[2];
    if (resource !== undefined) return strings.get(resource)?.value;
    const field = /(^|\.)BuildConfig\.(\w+)$/.exec(name)?.[2];
    return field === undefined ? undefined : (fields.get(field) ?? undefined);
  };
  const siblings: CodeFile[] = [];
  const terms = buildTerms(model, variant, fields);
  for (const path of new Set(paths)) {
    const flags = flagsOf(tree, path);
    siblings.push({
      path,
      platform: 'android',
      module: moduleName(model),
      variants: [variant.name],
      compiled: (_, __, conditions) =>
        conditions.reduce<Compiled>(
          (state, { text, holds }) => both(state, weigh({ text: compared(text), holds }, terms, flags)),
          'yes',
        ),
      resolve,
      shared,
      siblings,
    });
  }
  for (const file of siblings) {
    const { path } = file;
    const { facts, unresolved } = codeFacts(tree, file, context);
    found.facts.push(...facts, ...callFacts(tree, file, context));
    found.unresolved.push(...unresolved);
    found.facts.push(...extendingFacts(tree, path, model, variant, context));
  }
  found.facts.push(...applicationClasses(tree, [...new Set(paths)], model, variant));
  return found;
}

/** Classes that extend an application class of a network: one of them may be the title's own. */
function extendingFacts(
  tree: Tree,
  path: string,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Fact[] {
  const wanted = profiles.flatMap(({ id, android }) => {
    const name = android?.application?.class;
    return name === undefined ? [] : [{ id, name, short: name.split('.').at(-1) }];
  });
  return readingOf(tree, path).types.flatMap(({ name, bases, start }) =>
    wanted
      .filter((one) => bases.some((base) => base === one.name || base === one.short))
      .map((one): Fact => {
        const place = placeAt(path, tree.text(path), { start, end: start });
        return {
          kind: 'application-class',
          network: one.id,
          platform: 'android',
          module: moduleName(model),
          variants: [variant.name],
          name: `extends ${one.name}`,
          value: name,
          effective: true,
          place,
          chain: [{ what: 'class', value: `${name} extends ${one.name}`, place }],
        };
      }),
  );
}

const systemClasses = /^(?:[\w.]+\.)?(?:Application|MultiDexApplication|SplitCompatApplication)$/;

/** The classes of the app's own that extend the system's application class, through any number of their own. */
function applicationClasses(
  tree: Tree,
  paths: readonly string[],
  model: ModuleModel,
  variant: AndroidVariant,
): Fact[] {
  const types = paths.flatMap((path) => readingOf(tree, path).types.map((type) => ({ path, type })));
  const names = new Map<string, string>();
  const baseOf = (bases: readonly string[]) =>
    bases.find((base) => systemClasses.test(base) || names.has(base.split('.').at(-1) ?? base));
  for (let before = -1; before < names.size;) {
    before = names.size;
    for (const { type } of types) {
      const base = names.has(type.name) ? undefined : baseOf(type.bases);
      if (base !== undefined) names.set(type.name, base);
    }
  }
  return types.flatMap(({ path, type: { name, start } }): Fact[] => {
    const base = names.get(name);
    if (base === undefined) return [];
    const place = placeAt(path, tree.text(path), { start, end: start });
    const chain = [{ what: 'class', value: `${name} extends ${base}`, place }];
    const more = { name: `extends ${base}`, value: name, effective: true as const, place, chain };
    const edition = { platform: 'android' as const, module: moduleName(model), variants: [variant.name] };
    return [{ kind: 'application-class', network: null, ...edition, ...more }];
  });
}

/** What `BuildConfig` says in a variant (developer.android.com, "Gradle tips and recipes"). */
function buildTerms(
  model: ModuleModel,
  variant: AndroidVariant,
  fields: ReadonlyMap<string, string | null>,
): ConditionTerms {
  const flavour = variant.flavours
    .map((name, index) => (index === 0 ? name : name.charAt(0).toUpperCase() + name.slice(1)))
    .join('');
  const fieldOf = (name: string) => /(?:^|\.)BuildConfig\.(\w+)$/.exec(name)?.[1];
  const valueOf = (field: string) =>
    field === 'BUILD_TYPE' ? variant.type : field === 'FLAVOR' ? flavour : fields.get(field);
  return {
    name(name) {
      const field = fieldOf(name);
      if (field === undefined) return undefined;
      if (field === 'DEBUG') return isDebuggable(model, variant);
      const value = valueOf(field);
      return value === 'true' ? 'yes' : value === 'false' ? 'no' : 'unknown';
    },
    equals(left, right) {
      const field = fieldOf(left);
      if (field === undefined) return undefined;
      if (right === 'true' || right === 'false') {
        const state = this.name(left) ?? 'unknown';
        return right === 'true' ? state : opposite(state);
      }
      const [value, text] = [valueOf(field), /^(['"])(.*)\1$/.exec(right)?.[2]];
      if (value === undefined || value === null || text === undefined) return 'unknown';
      return value === text ? 'yes' : 'no';
    },
  };
}

/** `a.equals(b)` as a comparison. */
function compared(text: string): string {
  return text.replace(
    /([\w.]+|"[^"]*")\s*\.\s*(?:equals|contentEquals)\(\s*([\w.]+|"[^"]*")\s*\)/g,
    '$1 == $2',
  );
}

/** Only the build type `debug` is debuggable, unless a script says otherwise. */
function isDebuggable(model: ModuleModel, variant: AndroidVariant): Compiled {
  const type = model.types.find(({ name }) => name === variant.type);
  const set = settingOf(type?.parts ?? [], ['debuggable', 'isDebuggable', 'setDebuggable']);
  const inherits = (type?.parts.length ?? 0) > 0 && initialisedWithDebug(model, variant.type);
  if (!set) return variant.type === 'debug' || inherits ? 'yes' : 'no';
  const value = literal(set.value) ?? pathOf(set.value);
  if (set.conditional || (value !== 'true' && value !== 'false')) return 'unknown';
  return value === 'true' ? 'yes' : 'no';
}

/** `initWith(getByName("debug"))` takes over that debug is debuggable, though no script says it. */
function initialisedWithDebug(model: ModuleModel, type: string): boolean {
  const parts = model.types.find(({ name }) => name === type)?.parts ?? [];
  return parts.some(({ statements }) =>
    statements.some((statement) => {
      if (statement.type !== 'expression' || statement.value.type !== 'call') return false;
      if (pathOf(statement.value.callee)?.split('.').at(-1) !== 'initWith') return false;
      const from = statement.value.args[0]?.value;
      const named = from?.type === 'call' ? literal(from.args[0]?.value) : from && pathOf(from);
      return named?.split('.').at(-1) === 'debug';
    }),
  );
}
