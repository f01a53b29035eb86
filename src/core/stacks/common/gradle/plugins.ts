import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { blockBody, callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import type { Span } from '../../../text/problem.js';
import type { Tree } from '../../../tree/tree.js';
import { catalogsOf } from './catalogs.js';

/** A plugin that a script names: its ID, the version beside it, and whether the script applies it. */
export interface NamedPlugin extends Span {
  id: string;
  version: Expression | string | undefined;
  applied: boolean;
  script: string;
}

/** The plugins that statements of a script name in `plugins { }` or apply, catalogue aliases resolved. */
export function pluginsIn(
  tree: Tree,
  root: string,
  statements: readonly Statement[],
  script: string,
): NamedPlugin[] {
  return [
    ...pluginLines(tree, root, blockBody(statements, 'plugins'), script),
    ...callsIn(statements).flatMap(({ path: name, call }): NamedPlugin[] => {
      const plugin =
        name === 'apply' || name === 'project.apply'
          ? call.args.find((arg) => arg.name === 'plugin')?.value
          : name === 'plugins.apply' || name === 'pluginManager.apply'
            ? call.args[0]?.value
            : undefined;
      const id = literal(plugin);
      const { start, end } = call;
      return id === undefined ? [] : [{ id, version: undefined, applied: true, script, start, end }];
    }),
  ];
}

/** The lines of a `plugins { }` block, wherever it is. */
export function pluginLines(
  tree: Tree,
  root: string,
  body: readonly Statement[],
  script: string,
): NamedPlugin[] {
  return body.flatMap((statement): NamedPlugin[] => {
    if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
    const call = statement.value;
    let inner = call;
    let applied = true;
    let version: NamedPlugin['version'];
    while (inner.callee.type === 'member' && inner.callee.object.type === 'call') {
      const value = inner.args[0]?.value;
      if (inner.callee.name === 'apply' && value && pathOf(value) === 'false') applied = false;
      if (inner.callee.name === 'version') version = value;
      inner = inner.callee.object;
    }
    const name = pathOf(inner.callee);
    const value = inner.args[0]?.value;
    const base = { applied, script, start: call.start, end: call.end };
    if (!value) return [];
    if (name === 'id') return [{ ...base, id: literal(value) ?? '', version }];
    if (name === 'kotlin') return [{ ...base, id: `org.jetbrains.kotlin.${literal(value) ?? ''}`, version }];
    const alias = name === 'alias' ? /^(\w+)\.plugins\.(.+)$/.exec(pathOf(value) ?? '') : null;
    const catalog = catalogsOf(tree, root).find((candidate) => candidate.name === alias?.[1])?.catalog;
    const found = catalog?.plugins.find((plugin) => plugin.alias === alias?.[2]);
    return found ? [{ ...base, id: found.name, version: found.version }] : [];
  });
}
