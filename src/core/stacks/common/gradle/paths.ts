import { isTemplate, pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import { joinPath } from '../../../text/paths.js';

/** What a path in a script is relative to, and what it may refer to. */
export interface PathScope {
  /** The folder of the build's root, from the top of the tree. */
  root: string;
  /** The folder of the project that the script configures. */
  project: string;
  /** What plain relative paths begin at; the folder of the project unless it says otherwise. */
  base?: string;
  /** Statements that may declare a name. */
  statements: readonly Statement[];
}

/** A path from the top of the tree as it is put together, or a plain text that is not yet one. */
type Piece = { is: 'path'; path: string } | { is: 'text'; text: string };

const maxDepth = 12;
const rootNames =
  /^((isolated\.)?rootProject\.(projectDir|rootDir|projectDirectory)|rootDir|project\.rootDir|settingsDir|settings\.(rootDir|settingsDir)|layout\.settingsDirectory|rootProject\.layout\.projectDirectory)$/;
const projectNames = /^((project\.)?projectDir|(project\.)?layout\.projectDirectory|basePath)$/;
/** Accessors that do not change a path: `.path`, `.toString()`, `asFile`. */
const plainEnds =
  /^(path|absolutePath|canonicalPath|absoluteFile|canonicalFile|asFile|toString|toPath|getPath|getAbsolutePath|normalize)$/;

/**
 * The path from the top of the tree that an expression of a Gradle script comes to: texts, folders of the project and
 * of the build, names declared in the script, `+`, `file(…)`, `new File(…)`, `resolve(…)`. Undefined where it is
 * computed in another way.
 */
export function pathIn(expression: Expression | undefined, scope: PathScope): string | undefined {
  const piece = expression && pieceOf(expression, scope, 0);
  if (!piece) return undefined;
  return piece.is === 'path'
    ? (joinPath(piece.path) ?? undefined)
    : (inside(scope.base ?? scope.project, piece.text) ?? undefined);
}

function inside(folder: string, path: string): string | null {
  return path.startsWith('/') ? null : joinPath(folder, path);
}

function joined(left: Piece, right: Piece): Piece | undefined {
  if (right.is === 'path') return left.is === 'text' && left.text === '' ? right : undefined;
  if (left.is === 'text') return { is: 'text', text: left.text + right.text };
  // `"$rootDir-more"` names a neighbour of the tree.
  if (left.path === '' && right.text !== '' && !right.text.startsWith('/')) return undefined;
  return { is: 'path', path: left.path + right.text };
}

/** A path below another one, as `new File(a, b)` and `a.resolve(b)` put them together. */
function below(folder: Piece, inner: Piece): Piece | undefined {
  if (inner.is === 'path') return inner;
  if (folder.is === 'text') return { is: 'text', text: `${folder.text.replace(/\/+$/, '')}/${inner.text}` };
  return inner.text.startsWith('/') ? undefined : { is: 'path', path: `${folder.path}/${inner.text}` };
}

function pieceOf(expression: Expression, scope: PathScope, depth: number): Piece | undefined {
  if (depth > maxDepth) return undefined;
  const next = (inner: Expression) => pieceOf(inner, scope, depth + 1);
  if (expression.type === 'string') return fromString(expression, scope, depth);
  if (expression.type === 'binary') {
    if (expression.operator !== '+' && expression.operator !== '/') return undefined;
    const [left, right] = [next(expression.left), next(expression.right)];
    if (!left || !right) return undefined;
    return expression.operator === '/' ? below(left, right) : joined(left, right);
  }
  const named = pathOf(expression);
  if (named !== null) return fromName(named, scope, depth);
  if (expression.type === 'member')
    return plainEnds.test(expression.name) ? next(expression.object) : undefined;
  return expression.type === 'call' ? fromCall(expression, scope, depth) : undefined;
}

function fromString(
  expression: Expression & { type: 'string' },
  scope: PathScope,
  depth: number,
): Piece | undefined {
  const { raw } = expression;
  if (!isTemplate(expression)) return { is: 'text', text: raw };
  let piece: Piece | undefined = { is: 'text', text: '' };
  let at = 0;
  for (const found of raw.matchAll(/\$\{\s*([\w.()]+)\s*\}|\$(\w+(?:\.\w+)*)/g)) {
    const name = (found[1] ?? found[2] ?? '').replace(/\(\)/g, '');
    const before: Piece = { is: 'text', text: raw.slice(at, found.index) };
    const value = fromName(name, scope, depth + 1);
    piece = piece && joined(piece, before);
    piece = piece && value && joined(piece, value);
    at = found.index + found[0].length;
  }
  const rest = raw.slice(at);
  if (rest.includes('$')) return undefined;
  return piece && joined(piece, { is: 'text', text: rest });
}

function fromName(name: string, scope: PathScope, depth: number): Piece | undefined {
  if (depth > maxDepth) return undefined;
  if (rootNames.test(name)) return { is: 'path', path: scope.root };
  if (projectNames.test(name)) return { is: 'path', path: scope.project };
  const dot = name.lastIndexOf('.');
  if (dot > 0 && plainEnds.test(name.slice(dot + 1))) return fromName(name.slice(0, dot), scope, depth + 1);
  const declared = declaredIn(name.replace(/^(project\.)?ext(ra)?\./, ''), scope.statements);
  return declared && pieceOf(declared, scope, depth + 1);
}

/** The value that a script gives a name at its top: `def x = …`, `val x = …`, `ext.x = …`. */
function declaredIn(name: string, statements: readonly Statement[]): Expression | undefined {
  let found: Expression | undefined;
  for (const statement of statements) {
    if (statement.type === 'declare' && statement.name === name && statement.value && !statement.delegated)
      found = statement.value;
    if (statement.type === 'assign') {
      const target = pathOf(statement.target);
      if (target === name || target === `ext.${name}` || target === `project.ext.${name}`)
        found = statement.value;
    }
  }
  return found;
}

function fromCall(
  { callee, args }: Expression & { type: 'call' },
  scope: PathScope,
  depth: number,
): Piece | undefined {
  const values = args.map(({ value }) => pieceOf(value, scope, depth + 1));
  const [first, second] = values;
  const name = pathOf(callee) ?? '';
  if (callee.type === 'member' && plainEnds.test(callee.name) && args.length === 0)
    return pieceOf(callee.object, scope, depth + 1);
  if (/^((isolated\.)?rootProject)\.(file|uri)$/.test(name) && first)
    return first.is === 'path' ? first : below({ is: 'path', path: scope.root }, first);
  if (/^(project\.)?(file|files|uri)$/.test(name) && args.length === 1 && first)
    return first.is === 'path' ? first : below({ is: 'path', path: scope.project }, first);
  if (/^(java\.io\.)?(File|Paths\.get|Path\.of)$/.test(name) && first)
    return second ? below(first, second) : args.length === 1 ? first : undefined;
  if (
    callee.type === 'member' &&
    /^(resolve|dir|file|plus)$/.test(callee.name) &&
    first &&
    args.length === 1
  ) {
    const object = pieceOf(callee.object, scope, depth + 1);
    if (!object) return undefined;
    return callee.name === 'plus' ? joined(object, first) : below(object, first);
  }
  return undefined;
}
