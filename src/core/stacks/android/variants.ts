import {
  blockBody,
  callsIn,
  literal,
  pathOf,
  settingIn,
  type FoundValue,
} from '../../formats/gradle/query.js';
import type { Expression, Statement } from '../../formats/gradle/read.js';
import type { Tree } from '../../tree/tree.js';
import { evaluate, type Resolved, type Scope } from './evaluate.js';
import { statementsOf, type AppModule } from './scripts.js';

/** A build type, a flavour or `defaultConfig`: its name and the statements that configure it, in order. */
export interface ConfigBlock {
  name: string;
  body: Statement[];
}

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
  android: Statement[];
  variants: AndroidVariant[];
}

const configuring = new Set(['create', 'getByName', 'named', 'register', 'maybeCreate']);

/** Reads a module's `android { }` block and works out its variants. */
export function readModule(tree: Tree, module: AppModule): ModuleModel {
  const android = blockBody(statementsOf(tree, module.script), 'android');
  const scope: Scope = { tree, root: module.root, path: module.script, module: module.folder };
  const defaults: ConfigBlock = { name: 'defaultConfig', body: blockBody(android, 'defaultConfig') };
  const types = namedBlocks(blockBody(android, 'buildTypes'), ['debug', 'release']);
  const flavours = namedBlocks(blockBody(android, 'productFlavors'), []);
  return {
    module,
    scope,
    android,
    variants: makeVariants(defaults, types, groupFlavours(android, flavours)),
  };
}

/** The blocks of a container, `debug { }` and `create("staging") { }` alike; `initWith` copies what stands before. */
function namedBlocks(body: readonly Statement[], always: readonly string[]): ConfigBlock[] {
  const blocks = new Map<string, Statement[]>(always.map((name) => [name, []]));
  for (const { path, call } of callsIn(body)) {
    const name = configuring.has(path) ? literal(call.args[0]?.value) : path.includes('.') ? undefined : path;
    if (name === undefined || (!call.body && !configuring.has(path))) continue;
    const inherited = callsIn(call.body ?? []).flatMap(({ path: inner, call: init }) => {
      const from = inner === 'initWith' ? init.args[0]?.value : undefined;
      const source =
        from && (from.type === 'call' ? literal(from.args[0]?.value) : pathOf(from)?.split('.').at(-1));
      return (source && blocks.get(source)) || [];
    });
    blocks.set(name, [...(blocks.get(name) ?? []), ...inherited, ...(call.body ?? [])]);
  }
  return [...blocks].map(([name, statements]) => ({ name, body: statements }));
}

/** Flavours by dimension, in the order in which the module declares its dimensions. */
function groupFlavours(android: readonly Statement[], flavours: readonly ConfigBlock[]): ConfigBlock[][] {
  const declared = android.flatMap((statement): string[] => {
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
    literal(settingIn(flavour.body, ['dimension', 'setDimension'])?.value) ?? declared[0] ?? '';
  const dimensions = [...new Set([...declared, ...flavours.map(of)])];
  return dimensions
    .map((dimension) => flavours.filter((flavour) => of(flavour) === dimension))
    .filter((group) => group.length > 0);
}

function dimensionArguments(statement: Statement): Expression[] {
  if (statement.type === 'assign' && pathOf(statement.target) === 'flavorDimensions')
    return [statement.value];
  if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
  return /^flavorDimensions(\.add|\.addAll)?$/.test(pathOf(statement.value.callee) ?? '')
    ? statement.value.args.map((arg) => arg.value)
    : [];
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

/** The strongest setting of any of the names for a variant, worked out. */
export function variantSetting(
  model: ModuleModel,
  variant: AndroidVariant,
  names: readonly string[],
): (Resolved & { found: FoundValue }) | undefined {
  let found: FoundValue | undefined;
  for (const config of variant.configs) found = settingIn(config.body, names) ?? found;
  if (!found) return undefined;
  if (found.conditional) return { value: null, reason: 'it is set under a condition', chain: [], found };
  return { ...evaluate(found.value, model.scope), found };
}
