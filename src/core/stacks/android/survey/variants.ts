import { callsIn, literal, pathOf, type FoundValue } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import type { Tree } from '../../../tree/tree.js';
import { namedBlocks, type ConfigBlock } from './containers.js';
import { impliedIn, type Implied } from './implied.js';
import { evaluate } from './evaluate.js';
import type { Scope } from './look-up.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import {
  blockParts,
  scriptParts,
  settingOf,
  type MissingScript,
  type Part,
} from '../../common/gradle/parts.js';
import type { AppModule } from '../../common/gradle/scripts.js';
import { variantFilters, type VariantFilter } from './variant-filters.js';
import { readSourceSets, type SourceSetPaths } from './source-set-paths.js';

export type { ConfigBlock } from './containers.js';

/** A variant as Gradle would make it. */
export interface AndroidVariant {
  name: string;
  type: string;
  flavours: string[];
  /** From the weakest to the strongest: defaultConfig, flavours in reverse order of dimension, build type. */
  configs: ConfigBlock[];
  /** Source sets from the weakest to the strongest. */
  sourceSets: string[];
}

/** What an application module declares. */
export interface ModuleModel {
  module: AppModule;
  scope: Scope;
  /** Everything that its script says, with what is pulled in. */
  parts: Part[];
  /** Scripts that are pulled in and are not in the tree. */
  missing: MissingScript[];
  android: Part[];
  types: ConfigBlock[];
  flavours: ConfigBlock[];
  /** Flavours that are added under a condition: whether they are there, only the build knows. */
  openFlavours: { path: string; statement: Part['statements'][number] }[];
  variants: AndroidVariant[];
  /** Filters that decide on a variant by what reading cannot see. */
  openFilters: { filter: VariantFilter; variant: string }[];
  sourceSetPaths: SourceSetPaths;
  /** What plugins bring without a word in the script. */
  implied: Implied;
}

/** Reads a module's `android { }` block and computes its variants. */
export function readModule(tree: Tree, module: AppModule): ModuleModel {
  return tree.once(`android module ${module.script}`, () => {
    const { parts, missing } = scriptParts(tree, module.root, module.script);
    const android = [...blockParts(parts, 'android'), ...configured(tree, parts)];
    const scope: Scope = { tree, root: module.root, path: module.script, module: module.folder };
    const defaults: ConfigBlock = { name: 'defaultConfig', parts: blockParts(android, 'defaultConfig') };
    const implied = impliedIn(tree, module);
    const types = namedBlocks(blockParts(android, 'buildTypes'), implied.types);
    const all = blockParts(android, 'productFlavors');
    const flavours = namedBlocks(all.map(unconditional), []);
    return {
      module,
      scope,
      parts,
      missing,
      android,
      types,
      flavours,
      openFlavours: all.flatMap(({ path, statements }) =>
        statements.flatMap((statement) => (statement.type === 'conditional' ? [{ path, statement }] : [])),
      ),
      ...filtered(
        makeVariants(defaults, types, groupFlavours(android, flavours)),
        variantFilters(tree, android, parts),
      ),
      sourceSetPaths: readSourceSets(android, {
        root: module.root,
        project: module.folder,
        statements: parts.flatMap(({ statements }) => statements),
      }),
      implied,
    };
  });
}

/** The statements that are under no condition. */
function unconditional({ path, statements }: Part): Part {
  return { path, statements: statements.filter(({ type }) => type !== 'conditional') };
}

/** `configure<ApplicationExtension> { }`: another way to open the `android` block. */
function configured(tree: Tree, parts: readonly Part[]): Part[] {
  return parts.flatMap(({ path, statements }) =>
    callsIn(statements).flatMap(({ path: name, call }): Part[] => {
      if (!/^(configure|extensions\.configure)$/.test(name) || !call.body) return [];
      const head = tree.text(path)?.text.slice(call.start, call.start + 120) ?? '';
      return /<[^>]*(ApplicationExtension|AppExtension|AppModuleExtension)>/.test(head)
        ? [{ path, statements: call.body }]
        : [];
    }),
  );
}

/** Flavours by dimension, in the order in which the module declares its dimensions. */
function groupFlavours(android: readonly Part[], flavours: readonly ConfigBlock[]): ConfigBlock[][] {
  const all = android.flatMap(({ statements }) => statements);
  const declared = all.flatMap((statement): string[] => {
    const parts = dimensionArguments(statement);
    return parts
      .flatMap((part) =>
        part.type === 'list' || part.type === 'call'
          ? (part.type === 'list' ? part.items : part.args).map((item) => item.value)
          : [part],
      )
      .flatMap((part) => literal(part) ?? []);
  });
  const of = (flavour: ConfigBlock) =>
    literal(settingOf(flavour.parts, ['dimension', 'setDimension'])?.value) ?? declared[0] ?? '';
  const dimensions = [...new Set([...declared, ...flavours.map(of)])];
  return dimensions
    .map((dimension) => flavours.filter((flavour) => of(flavour) === dimension))
    .filter((group) => group.length > 0);
}

function dimensionArguments(statement: Part['statements'][number]): Expression[] {
  if (statement.type === 'assign' && pathOf(statement.target) === 'flavorDimensions')
    return [statement.value];
  if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
  return /^flavorDimensions(\.add|\.addAll)?$/.test(pathOf(statement.value.callee) ?? '')
    ? statement.value.args.map((arg) => arg.value)
    : [];
}

/** The variants that filters keep, and the filters that cannot be resolved for a variant. */
function filtered(
  variants: readonly AndroidVariant[],
  filters: readonly VariantFilter[],
): Pick<ModuleModel, 'variants' | 'openFilters'> {
  const left = variants.filter((variant) => !filters.some(({ removes }) => removes(variant) === 'yes'));
  const openFilters = left.flatMap((variant) =>
    filters
      .filter(({ removes }) => removes(variant) === 'unknown')
      .map((filter) => ({ filter, variant: variant.name })),
  );
  return { variants: left, openFilters };
}

function makeVariants(
  defaults: ConfigBlock,
  types: readonly ConfigBlock[],
  dimensions: readonly ConfigBlock[][],
): AndroidVariant[] {
  const combinations = dimensions.reduce<ConfigBlock[][]>(
    (rows, group) => rows.flatMap((row) => group.map((flavour) => [...row, flavour])),
    [[]],
  );
  return combinations.flatMap((flavours) =>
    types.map((type): AndroidVariant => {
      const names = flavours.map(({ name }) => name);
      const joined = names.map((name, index) => (index === 0 ? name : capital(name))).join('');
      const name = joined ? joined + capital(type.name) : type.name;
      return {
        name,
        type: type.name,
        flavours: names,
        configs: [defaults, ...[...flavours].reverse(), type],
        sourceSets: [
          ...new Set(['main', ...[...names].reverse(), ...(joined ? [joined] : []), type.name, name]),
        ],
      };
    }),
  );
}

function capital(name: string): string {
  return name.charAt(0).toUpperCase() + name.slice(1);
}

/**
 * A setting of the `android` block, evaluated. Groovy also accepts it inside `defaultConfig { }`, which delegates
 * unknown names.
 */
export function moduleSetting(model: ModuleModel, names: readonly string[]): Resolved | undefined {
  const found =
    settingOf(model.android, names) ?? settingOf(blockParts(model.android, 'defaultConfig'), names);
  if (!found) return undefined;
  if (found.conditional) return { value: null, reason: 'it is set under a condition', chain: [] };
  return evaluate(found.value, { ...model.scope, path: found.path });
}

/** The strongest setting of any of the names for a variant, computed. */
export function variantSetting(
  model: ModuleModel,
  variant: AndroidVariant,
  names: readonly string[],
): (Resolved & { found: FoundValue }) | undefined {
  let found: (FoundValue & { path: string }) | undefined;
  for (const config of variant.configs) found = settingOf(config.parts, names) ?? found;
  if (!found) return undefined;
  if (found.conditional) return { value: null, reason: 'it is set under a condition', chain: [], found };
  return { ...evaluate(found.value, { ...model.scope, path: found.path }), found };
}
