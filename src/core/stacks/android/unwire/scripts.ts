import { removeLine, removeStatement } from '../../../text/lines.js';
import { blockAt } from '../../../formats/gradle/edit.js';
import { callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Span } from '../../../text/problem.js';
import type { Change, Topic } from '../../../edits/model.js';
import { allDependencyCalls } from '../survey/dependency-calls.js';
import { coordinatesOf } from '../survey/coordinates.js';
import { binaryNames } from '../survey/binaries.js';
import { repositoriesOf, sameAddress } from '../survey/repositories.js';
import { catalogsOf, scriptOf, statementsOf } from '../../common/gradle/catalogs.js';
import { namedPlugins } from '../../common/gradle/scripts.js';
import { type AndroidUnwireContext, othersNeed } from './context.js';
import { markerArtifact } from '../wire/plugin.js';

/** Dependencies, repositories, plugins and values of the network, out of the scripts and the catalogue. */
export function unwireScripts(context: AndroidUnwireContext): Change[] {
  return [...dependencies(context), ...repositories(context), ...plugins(context), ...values(context)];
}

function removal(context: AndroidUnwireContext, path: string, span: Span, topic: Topic): Change[] {
  const text = context.tree.text(path)?.text;
  if (text === undefined) return [];
  const base = { platform: 'android' as const, network: context.network.id, topic, rules: [] };
  return [{ ...base, path, kind: 'edit', edits: [removeStatement(text, span)] }];
}

function dependencies(context: AndroidUnwireContext): Change[] {
  const { tree, model, network } = context;
  const own = (name: string) =>
    (network.android?.dependencies.some(({ coordinate }) => coordinate === name) ?? false) &&
    !othersNeed(
      context,
      ({ android }) => android?.dependencies.some(({ coordinate }) => coordinate === name) ?? false,
    );
  const files = (network.android?.binaries ?? []).map(({ file }) => file);
  return allDependencyCalls(model).flatMap(({ call, script, conditional }): Change[] => {
    if (conditional) return [];
    const named = coordinatesOf(tree, model, { call, script });
    const ours = named.length > 0 && named.every(({ name }) => own(name));
    const binary = binaryNames(call);
    const library = binary.length > 0 && binary.every((file) => files.includes(file));
    if (!ours && !library) return [];
    const line = removal(context, script, call, ours ? 'dependency' : 'binary');
    return ours
      ? [...line, ...catalogEntries(context, call.args[0]?.value, 'libraries', 'dependency')]
      : line;
  });
}

/** The catalogue entry that an argument refers to, if nothing else in the tree refers to it. */
function catalogEntries(
  context: AndroidUnwireContext,
  value: Expression | undefined,
  table: 'libraries' | 'plugins',
  topic: Topic,
): Change[] {
  const { tree, model } = context;
  const way = value ? pathOf(value) : null;
  if (way === null) return [];
  return catalogsOf(tree, model.module.root).flatMap(({ name, path, catalog }): Change[] => {
    const prefix = table === 'plugins' ? `${name}.plugins.` : `${name}.`;
    const entry = catalog[table].find(({ alias }) => `${prefix}${alias}` === way);
    const bundled = [...catalog.bundles.values()].some((members) => members.includes(entry?.alias ?? ''));
    const text = tree.text(path)?.text;
    if (!entry || bundled || text === undefined) return [];
    const uses = tree.paths
      .filter((file) => /\.gradle(\.kts)?$/.test(file))
      .reduce((sum, file) => sum + (tree.text(file)?.text.split(way).length ?? 1) - 1, 0);
    const mine = table === 'plugins' ? pluginUses(context, way) : 1;
    if (uses > mine) return [];
    const end = /^[^\r\n]*/.exec(text.slice(entry.start))?.[0].length ?? 0;
    const base = { platform: 'android' as const, network: context.network.id, topic, rules: [] };
    return [
      {
        ...base,
        path,
        kind: 'edit',
        edits: [removeLine(text, { start: entry.start, end: entry.start + end })],
      },
    ];
  });
}

function repositories(context: AndroidUnwireContext): Change[] {
  const { tree, model, network } = context;
  const { root, folder } = model.module;
  const urls = (network.android?.repositories ?? [])
    .map(({ url }) => url)
    .filter(
      (url) =>
        !othersNeed(
          context,
          ({ android }) => android?.repositories.some((other) => sameAddress(other.url, url)) ?? false,
        ),
    );
  return repositoriesOf(tree, root, folder).flatMap(({ name, place }): Change[] => {
    const document = tree.text(place.path);
    if (!document || !urls.some((url) => sameAddress(url, name))) return [];
    const start = document.lines.lineStart(place.line) + place.column - 1;
    const end = document.lines.lineStart(place.endLine ?? place.line) + (place.endColumn ?? place.column) - 1;
    const around = ownBlock(statementsOf(tree, place.path), { start, end });
    if (!around) return removal(context, place.path, { start, end }, 'dependency');
    const base = {
      platform: 'android' as const,
      network: network.id,
      topic: 'dependency' as const,
      rules: [],
    };
    return [{ ...base, path: place.path, kind: 'edit', edits: [removeLine(document.text, around)] }];
  });
}

/** The block that wiring creates for a repository in a build without repositories: it has no other content. */
function ownBlock(statements: readonly Statement[], { start, end }: Span): Span | undefined {
  for (const { path, call } of callsIn(statements)) {
    const [inner, ...others] = callsIn(call.body ?? []);
    if (path !== 'allprojects' || inner?.path !== 'repositories' || others.length > 0) continue;
    const [only, ...more] = inner.call.body ?? [];
    if (only && more.length === 0 && only.start <= start && end <= only.end) return call;
  }
  return undefined;
}

/** The scripts of a build that may name plugins: the module's, and the root's. */
function pluginScripts({ tree, model }: AndroidUnwireContext): string[] {
  const { root, script } = model.module;
  return [...new Set([script, ...(scriptOf(tree, root) ?? '').split('\n').filter(Boolean)])];
}

function pluginUses(context: AndroidUnwireContext, way: string): number {
  return pluginScripts(context).reduce(
    (sum, path) => sum + (context.tree.text(path)?.text.split(way).length ?? 1) - 1,
    0,
  );
}

function plugins(context: AndroidUnwireContext): Change[] {
  const { tree, model, network } = context;
  const wanted = network.android?.plugin?.id;
  if (wanted === undefined || othersNeed(context, ({ android }) => android?.plugin?.id === wanted)) return [];
  const onClassPath = pluginScripts(context).flatMap((path) => {
    const block = blockAt(statementsOf(tree, path), ['buildscript', 'dependencies']);
    return callsIn(block?.body ?? [])
      .filter(({ call }) => literal(call.args[0]?.value)?.startsWith(`${markerArtifact(wanted)}:`))
      .flatMap(({ call }) => removal(context, path, call, 'plugin'));
  });
  const named = pluginScripts(context).flatMap((path) =>
    namedPlugins(tree, model.module.root, path)
      .filter(({ id, script }) => id === wanted && script === path)
      .flatMap((plugin): Change[] => {
        const text = tree.text(path)?.text.slice(plugin.start, plugin.end) ?? '';
        const alias = /alias\((\w+)\.plugins\.([\w.]+)\)/.exec(text);
        const entry = alias ? catalogByWay(context, `${alias[1]}.plugins.${alias[2]}`) : [];
        return [...removal(context, path, plugin, 'plugin'), ...entry];
      }),
  );
  return [...onClassPath, ...named];
}

function catalogByWay(context: AndroidUnwireContext, way: string): Change[] {
  const parts = way.split('.');
  const value = parts.reduce<Expression | undefined>(
    (object, name) =>
      object ? { type: 'member', object, name, start: 0, end: 0 } : { type: 'name', name, start: 0, end: 0 },
    undefined,
  );
  return catalogEntries(context, value, 'plugins', 'plugin');
}

/** Lines that only set a placeholder or a generated resource to one of the network's app IDs. */
function values(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, recogniser } = context;
  if (network.android?.['app-id']?.place !== 'manifest') return [];
  const isOurs = (value: Expression | undefined) =>
    recogniser
      .recognise(literal(value) ?? '')
      .some((found) => found.network === network.id && found.kind === 'app');
  const found: Span[] = [];
  const walk = (statements: readonly Statement[]): void => {
    for (const statement of statements) {
      if (statement.type === 'assign' && isOurs(statement.value)) found.push(statement);
      if (statement.type === 'conditional') walk(statement.body);
      if (statement.type !== 'expression' || statement.value.type !== 'call') continue;
      const { callee, args, body } = statement.value;
      if (body) walk(body);
      if (
        /^(resValue|manifestPlaceholders\.(put|set))$/.test(pathOf(callee) ?? '') &&
        isOurs(args.at(-1)?.value)
      )
        found.push(statement);
    }
  };
  walk(statementsOf(tree, model.module.script));
  return found.flatMap((span) => removal(context, model.module.script, span, 'app-id'));
}
