import { pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';

/** A value that scripts give a name. */
export interface Declared {
  value: Expression;
  /** Whether it is given under a condition, so that reading cannot tell whether it holds. */
  conditional: boolean;
}

const holders =
  /^((project|rootProject|gradle|settings)\.)?((ext|extra|extraProperties|extensions\.extraProperties)\.)?/;

/** A name as it is declared: without the project and the extension that hold it. */
export function plainName(path: string): string {
  return path.replace(holders, '').replace(/^(ext|extra)\./, '');
}

/** The dotted name of what is read or set; `ext["a"]` and `versions["a"]` are names too. */
export function accessPath(expression: Expression): string | null {
  if (expression.type === 'index') {
    const object = accessPath(expression.object);
    const { index } = expression;
    return object !== null && index.type === 'string' ? `${object}.${index.raw}` : null;
  }
  if (expression.type !== 'member') return pathOf(expression);
  const object = accessPath(expression.object);
  return object === null ? null : `${object}.${expression.name}`;
}

/**
 * The value last given to a name: `def`, `val`, `ext.x = …`, `ext { x = … }`, `extra["x"] = …`, `set("x", …)`, and for
 * the entries of a map `versions.x = …`, `versions["x"] = …`, `versions.put("x", …)`.
 */
export function declarationOf(
  name: string,
  statements: readonly Statement[],
  conditional = false,
): Declared | undefined {
  let found: Declared | undefined;
  const take = (value: Expression | undefined) => {
    if (value) found = { value, conditional };
  };
  for (const statement of statements) {
    if (statement.type === 'conditional') found = declarationOf(name, statement.body, true) ?? found;
    else if (statement.type === 'declare') {
      if (statement.name === name) take(declaredValue(statement));
    } else if (statement.type === 'assign') {
      const path = accessPath(statement.target);
      if (path !== null && isHeld(path, name)) take(statement.value);
    } else if (statement.value.type === 'call') {
      const { callee, body, args } = statement.value;
      const path = pathOf(callee) ?? '';
      if (/(^|\.)(ext|extra)$/.test(path) && body) found = inBlock(name, body, conditional) ?? found;
      else if (/^(buildscript|allprojects|subprojects)$/.test(path) && body)
        found = declarationOf(name, body, conditional) ?? found;
      else take(setBy(path, args[0]?.value, args[1]?.value, name));
    }
  }
  return found;
}

/** Whether an assignment to a path gives the name a value: extra properties, and entries of a map. */
function isHeld(path: string, name: string): boolean {
  return plainName(path) === name && (path !== name || name.includes('.'));
}

/** `by extra(21)`, `by extra { 21 }`; what is delegated to a project is declared elsewhere. */
function declaredValue({ value, delegated }: Statement & { type: 'declare' }): Expression | undefined {
  if (!delegated || !value) return value ?? undefined;
  if (value.type !== 'call') return undefined;
  const last = value.body?.at(-1);
  return value.args[0]?.value ?? (last?.type === 'expression' ? last.value : undefined);
}

function inBlock(name: string, body: readonly Statement[], conditional: boolean): Declared | undefined {
  let found: Declared | undefined;
  for (const statement of body) {
    if (statement.type === 'conditional') found = inBlock(name, statement.body, true) ?? found;
    else if (statement.type === 'assign' && plainName(accessPath(statement.target) ?? '') === name)
      found = { value: statement.value, conditional };
    else if (statement.type === 'expression' && statement.value.type === 'call') {
      const { callee, args } = statement.value;
      const value = setBy(`ext.${pathOf(callee) ?? ''}`, args[0]?.value, args[1]?.value, name);
      if (value) found = { value, conditional };
    }
  }
  return found;
}

/** The value of `ext.set("x", value)`, `versions.put("x", value)`. */
function setBy(
  path: string,
  key: Expression | undefined,
  value: Expression | undefined,
  name: string,
): Expression | undefined {
  const object = /^(.+)\.(set|put|setProperty)$/.exec(path)?.[1];
  if (object === undefined || key?.type !== 'string') return undefined;
  const holder = plainName(`${object}.`).replace(/\.$/, '');
  return (holder === '' ? key.raw : `${holder}.${key.raw}`) === name ? value : undefined;
}

/** An entry of a map or a list: `[a: "b"]`, `mapOf("a" to "b")`, `listOf(21)`; a list's key is its index. */
export function entryOf(map: Expression, key: string): Expression | undefined {
  const items = map.type === 'list' ? map.items : map.type === 'call' ? map.args : [];
  if (/^\d+$/.test(key)) return items.filter(({ name }) => name === undefined)[Number(key)]?.value;
  if (map.type === 'list') return map.items.findLast(({ name }) => name === key)?.value;
  return items
    .map(({ value }) => value)
    .findLast(
      (value): value is Expression & { type: 'binary' } =>
        value.type === 'binary' &&
        value.operator === 'to' &&
        value.left.type === 'string' &&
        value.left.raw === key,
    )?.right;
}
