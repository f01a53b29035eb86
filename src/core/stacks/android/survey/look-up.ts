import { pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { catalogsOf } from '../../common/gradle/scripts.js';
import type { Resolved } from '../../common/gradle/resolved.js';

/** The version under an alias of a version catalogue; undefined when there is none. */
export function catalogVersion(catalog: string, alias: string, scope: Scope): Resolved | undefined {
  const found = catalogsOf(scope.tree, scope.root).find(({ name }) => name === catalog);
  const version = found?.catalog.versions.get(alias);
  if (!found || !version) return undefined;
  const document = scope.tree.text(found.path);
  const line = /^[^\r\n]*/.exec(document?.text.slice(version.start) ?? '')?.[0].trimEnd() ?? alias;
  const place = placeAt(found.path, document, { start: version.start, end: version.start + line.length });
  return { value: version.value, chain: [{ what: 'version catalogue', value: version.value, place }] };
}

/** The entry of a map: `[a: "b"]`, `mapOf("a" to "b")`. */
export function entryOf(map: Expression, key: string): Expression | undefined {
  if (map.type === 'list') return map.items.find(({ name }) => name === key)?.value;
  if (map.type !== 'call') return undefined;
  return map.args
    .map(({ value }) => value)
    .find(
      (value): value is Expression & { type: 'binary' } =>
        value.type === 'binary' &&
        value.operator === 'to' &&
        value.left.type === 'string' &&
        value.left.raw === key,
    )?.right;
}

/** The value last given to a name by `def`, `val`, `ext.x = …`, `ext { x = … }`, `extra["x"] = …`, `set("x", …)`. */
export function declarationOf(name: string, statements: readonly Statement[]): Expression | undefined {
  let found: Expression | undefined;
  for (const statement of statements) {
    if (statement.type === 'declare' && statement.name === name && statement.value) {
      const { value } = statement;
      found = statement.delegated && value.type === 'call' ? value.args[0]?.value : value;
    } else if (statement.type === 'assign') {
      const { target, value } = statement;
      const index =
        target.type === 'index' &&
        /(^|\.)(ext|extra)$/.test(pathOf(target.object) ?? '') &&
        target.index.type === 'string'
          ? target.index.raw
          : undefined;
      const path = pathOf(target)?.replace(/^(project|rootProject)\./, '');
      if (index === name || path === `ext.${name}` || path === `extra.${name}`) found = value;
    } else if (statement.type === 'expression' && statement.value.type === 'call') {
      const path = pathOf(statement.value.callee) ?? '';
      const { body, args } = statement.value;
      if (/(^|\.)(ext|extra)$/.test(path) && body) found = assigned(name, body) ?? found;
      else if (['buildscript', 'allprojects', 'subprojects'].includes(path) && body)
        found = declarationOf(name, body) ?? found;
      else if (
        /(^|\.)(ext|extra)\.set$/.test(path) &&
        args[0]?.value.type === 'string' &&
        args[0].value.raw === name
      )
        found = args[1]?.value ?? found;
    }
  }
  return found;
}

function assigned(name: string, body: readonly Statement[]): Expression | undefined {
  return body
    .flatMap((statement) =>
      statement.type === 'assign' && pathOf(statement.target) === name ? [statement.value] : [],
    )
    .at(-1);
}

/** The value of a property in `gradle.properties`; undefined when there is none. */
export function gradleProperty(name: string, { tree, root, module }: Scope): Resolved | undefined {
  for (const folder of new Set([module, root])) {
    const found = propertyIn(tree, folder ? `${folder}/gradle.properties` : 'gradle.properties', name);
    if (found) return found;
  }
  return undefined;
}

function propertyIn(tree: Tree, path: string, name: string): Resolved | undefined {
  const document = tree.has(path) ? tree.text(path) : undefined;
  if (!document) return undefined;
  let at = 0;
  let found: Resolved | undefined;
  for (const line of document.text.split('\n')) {
    const match = /^\s*([^#!\s=:][^=:\s]*)\s*[=:]?\s*(.*?)\s*$/.exec(line.slice(0, 2000));
    if (match?.[1] === name) {
      const value = match[2] ?? '';
      found = {
        value,
        chain: [
          {
            what: 'gradle.properties',
            value,
            place: placeAt(path, document, { start: at, end: at + line.trimEnd().length }),
          },
        ],
      };
    }
    at += line.length + 1;
  }
  return found;
}

/** What names mean in the scripts of one module. */
export interface Scope {
  tree: Tree;
  root: string;
  /** Script in which the expression stands. */
  path: string;
  module: string;
}
