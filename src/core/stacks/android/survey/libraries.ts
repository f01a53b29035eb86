import { callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Tree } from '../../../tree/tree.js';
import { dependencyCalls } from './dependency-calls.js';
import { settingOf } from '../../common/gradle/parts.js';
import { moduleFolders } from '../../common/gradle/scripts.js';
import { scriptOf } from '../../common/gradle/catalogs.js';
import { readModule, type AndroidVariant, type ModuleModel } from './variants.js';

/** A module with the variant of it that goes into a build. */
export interface Layer {
  model: ModuleModel;
  variant: AndroidVariant;
  /** Whether it is a module that the application takes in, not the application itself. */
  library: boolean;
}

const maxModules = 200;

/** The modules that make up a variant, the weakest first: what the application takes in, then itself. */
export function layersOf(tree: Tree, model: ModuleModel, variant: AndroidVariant): Layer[] {
  return tree.once(`android layers of ${model.module.script} ${variant.name}`, () => {
    const seen = new Set([model.module.folder]);
    const libraries: Layer[] = [];
    const waiting: Layer[] = [{ model, variant, library: false }];
    for (let next = waiting.shift(); next && seen.size < maxModules; next = waiting.shift()) {
      for (const { call } of dependencyCalls(next.model, next.variant)) {
        for (const name of call.args.flatMap(({ value }) => moduleNames(value))) {
          const layer = libraryLayer(tree, name, { model, variant });
          if (!layer || seen.has(layer.model.module.folder)) continue;
          seen.add(layer.model.module.folder);
          libraries.push(layer);
          waiting.push(layer);
        }
      }
    }
    return [...libraries.reverse(), { model, variant, library: false }];
  });
}

/** The modules that an argument names: `project(":lib")`, `projects.lib`. */
function moduleNames(value: Expression): string[] {
  if (value.type === 'call' && /(^|\.)project$/.test(pathOf(value.callee) ?? '')) {
    const path = value.args.find(({ name }) => name === undefined || name === 'path')?.value;
    const name = literal(path);
    return name === undefined ? [] : [name.startsWith(':') ? name : `:${name}`];
  }
  if (value.type === 'call') return value.args.flatMap((arg) => moduleNames(arg.value));
  const accessor = /^projects\.(.+)$/.exec(pathOf(value) ?? '')?.[1];
  if (accessor === undefined) return [];
  const kebab = accessor.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
  return [`:${kebab.replace(/\./g, ':')}`];
}

function libraryLayer(
  tree: Tree,
  name: string,
  app: { model: ModuleModel; variant: AndroidVariant },
): Layer | undefined {
  const { root } = app.model.module;
  const folder = moduleFolders(tree, root).get(name);
  const script = folder === undefined ? undefined : scriptOf(tree, folder);
  if (folder === undefined || script === undefined) return undefined;
  const model = readModule(tree, { root, folder, script });
  const variant = matching(model, app);
  return variant && { model, variant, library: true };
}

/** The library's variant for an application's: the same build type, or the first fallback that it has; its own flavours where it shares them. */
function matching(
  library: ModuleModel,
  { model, variant }: { model: ModuleModel; variant: AndroidVariant },
): AndroidVariant | undefined {
  const wanted = [
    variant.type,
    ...fallbacks(model.types.find(({ name }) => name === variant.type)?.parts ?? []),
  ];
  const type = wanted.find((name) => library.types.some((candidate) => candidate.name === name)) ?? 'release';
  const candidates = library.variants.filter((candidate) => candidate.type === type);
  return (
    candidates.find(({ flavours }) => flavours.every((flavour) => variant.flavours.includes(flavour))) ??
    candidates[0] ??
    library.variants[0]
  );
}

/** `matchingFallbacks = listOf("release")`, `matchingFallbacks += listOf(…)`, `matchingFallbacks 'release'`. */
function fallbacks(parts: readonly { statements: readonly Statement[] }[]): string[] {
  return parts.flatMap(({ statements }) => {
    const set = settingOf([{ path: '', statements }], ['matchingFallbacks', 'setMatchingFallbacks']);
    const added = statements.flatMap((statement) =>
      statement.type === 'assign' &&
      statement.operator === '+=' &&
      pathOf(statement.target) === 'matchingFallbacks'
        ? [statement.value]
        : [],
    );
    const calls = callsIn(statements).flatMap(({ path, call }) =>
      /^matchingFallbacks(\.add|\.addAll)?$/.test(path) ? call.args.map(({ value }) => value) : [],
    );
    return [...(set ? [set.value] : []), ...added, ...calls].flatMap(names);
  });
}

function names(value: Expression): string[] {
  const plain = literal(value);
  if (plain !== undefined) return [plain];
  if (value.type === 'list') return value.items.flatMap((item) => names(item.value));
  return value.type === 'call' ? value.args.flatMap((arg) => names(arg.value)) : [];
}
