import type { Argument, Expression, Statement } from '../../../formats/gradle/model.js';
import { pathOf } from '../../../formats/gradle/query.js';
import { placeAt } from '../../../facts/place.js';
import { scriptOf } from '../../common/gradle/catalogs.js';
import { scriptParts } from '../../common/gradle/parts.js';
import { pathIn } from '../../common/gradle/paths.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { folderOf } from '../../../text/paths.js';
import { propertyIn, type Scope } from './look-up.js';
import { locate } from './names.js';

/**
 * A property of a file that a script loads by itself: `props.getProperty("x")` after `props.load(file("x.properties"))`.
 * Undefined when the name is not that of loaded properties.
 */
export function loadedProperty(
  object: Expression,
  key: string,
  scope: Scope,
  at: Expression,
): Resolved | undefined {
  const name = pathOf(object);
  const declared = name === null ? undefined : locate(name, scope);
  if (name === null || !declared || !holdsProperties(declared.value)) return undefined;
  const files = filesLoaded(name, declared.scope);
  for (const path of files) {
    const found = propertyIn(scope.tree, path, key);
    if (found) return found;
  }
  const document = scope.tree.text(scope.path);
  const step = {
    what: 'Gradle',
    value: document?.text.slice(at.start, at.end) ?? null,
    place: placeAt(scope.path, document, at),
  };
  const [file] = files;
  if (file === undefined)
    return { value: null, reason: `${key} comes from a file whose path is computed`, chain: [step] };
  if (scope.tree.has(file))
    return { value: null, reason: `${key} is not set in ${file}`, chain: [step], absent: true };
  return { value: null, reason: `${key} comes from ${file}, which is not in the tree`, chain: [step] };
}

/** `new Properties()`, `Properties().apply { … }`. */
function holdsProperties(value: Expression): boolean {
  let inner = value;
  while (inner.type === 'call' && inner.callee.type === 'member' && inner.callee.object.type === 'call')
    inner = inner.callee.object;
  return inner.type === 'call' && /(^|\.)Properties$/.test(pathOf(inner.callee) ?? '');
}

/** The files that the statements of a script load into a name, in their order. */
function filesLoaded(name: string, { tree, root, module, path }: Scope): string[] {
  const { parts } = scriptParts(tree, root, scriptOf(tree, module) ?? path);
  const known = parts.some((part) => part.path === path) ? parts : scriptParts(tree, root, path).parts;
  const all = known.flatMap(({ statements }) => statements);
  const project = known === parts ? module : folderOf(path);
  const loads = all.filter((statement) => {
    const text = tree.text(path)?.text.slice(statement.start, statement.end) ?? '';
    return (statement.type === 'declare' && statement.name === name) || text.includes(`${name}.load`);
  });
  const found = loads
    .flatMap((statement) => inside(statement, 0))
    .flatMap((expression) => pathIn(expression, { root, project, statements: all }) ?? []);
  return [...new Set(found.filter((file) => file.endsWith('.properties')))];
}

const maxDepth = 12;

/** Every expression inside a statement. */
function inside(statement: Statement, depth: number): Expression[] {
  if (depth > maxDepth) return [];
  if (statement.type === 'conditional') return statement.body.flatMap((each) => inside(each, depth + 1));
  return statement.value ? within(statement.value, depth + 1) : [];
}

function within(expression: Expression, depth: number): Expression[] {
  if (depth > maxDepth) return [];
  const all = (args: readonly Argument[]) => args.flatMap(({ value }) => within(value, depth + 1));
  const body = (statements: readonly Statement[] | null) =>
    (statements ?? []).flatMap((each) => inside(each, depth + 1));
  switch (expression.type) {
    case 'call':
      return [
        expression,
        ...within(expression.callee, depth + 1),
        ...all(expression.args),
        ...body(expression.body),
      ];
    case 'member':
      return [expression, ...within(expression.object, depth + 1)];
    case 'list':
      return all(expression.items);
    case 'binary':
      return [expression, ...within(expression.left, depth + 1), ...within(expression.right, depth + 1)];
    case 'block':
      return body(expression.body);
    default:
      return [expression];
  }
}
