import { callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Part } from '../../common/gradle/parts.js';

/** A build type, a flavour or `defaultConfig`: its name and the statements that configure it, in order. */
export interface ConfigBlock {
  name: string;
  parts: Part[];
}

const configuring = new Set(['create', 'getByName', 'named', 'register', 'maybeCreate']);
const forAll = new Set(['all', 'each', 'configureEach', 'forEach']);
/** Calls that may be in a container without naming an element of it. */
const others = new Set(['matching', 'whenObjectAdded', 'withType', 'println', 'apply', 'afterEvaluate']);

/**
 * The elements of a container: `debug { }`, `create("staging") { }`, `getByName`, `named`, `register`,
 * `val staging by creating { }`, `staging.minifyEnabled = true`, `all { }`. What `initWith` copies is first.
 */
export function namedBlocks(container: readonly Part[], always: readonly string[]): ConfigBlock[] {
  const blocks = new Map<string, Part[]>(always.map((name) => [name, []]));
  const add = (name: string, path: string, body: readonly Statement[]) => {
    const known = blocks.get(name) ?? [];
    blocks.set(name, [...known, ...inherited(body, blocks), { path, statements: body }]);
  };
  for (const { path, statements } of container) {
    for (const statement of statements) {
      const named = elementOf(statement);
      if (!named) continue;
      if (named.name === null) {
        for (const name of blocks.keys()) add(name, path, named.body);
      } else add(named.name, path, named.body);
    }
  }
  return [...blocks].map(([name, parts]) => ({ name, parts }));
}

/** The element that a statement configures; `null` as its name means all of them. */
function elementOf(statement: Statement): { name: string | null; body: Statement[] } | undefined {
  if (statement.type === 'conditional') {
    const inner = statement.body.map(elementOf).find((found) => found !== undefined);
    return inner && { ...inner, body: [{ ...statement, body: inner.body }] };
  }
  if (statement.type === 'declare') {
    const { value, delegated, name } = statement;
    if (!delegated || (value?.type !== 'call' && value?.type !== 'name')) return undefined;
    const way = pathOf(value.type === 'call' ? value.callee : value);
    if (!/^(creating|registering|getting)$/.test(way ?? '')) return undefined;
    return { name, body: (value.type === 'call' && value.body) || [] };
  }
  if (statement.type === 'assign') {
    const split = splitHead(statement.target);
    return split && { name: split.head, body: [{ ...statement, target: split.rest }] };
  }
  if (statement.value.type !== 'call') return undefined;
  const { callee, args, body } = statement.value;
  const path = pathOf(callee);
  if (path !== null && forAll.has(path)) return body ? { name: null, body } : undefined;
  if (path !== null && configuring.has(path)) {
    const name = literal(args[0]?.value);
    return name === undefined ? undefined : { name, body: body ?? [] };
  }
  if (path !== null && !path.includes('.')) {
    if (body && !others.has(path)) return { name: path, body };
    return undefined;
  }
  const split = splitHead(callee);
  return (
    split && { name: split.head, body: [{ ...statement, value: { ...statement.value, callee: split.rest } }] }
  );
}

/** `debug.minifyEnabled` and `getByName("debug").minifyEnabled` as the element and the statement about it. */
function splitHead(expression: Expression): { head: string; rest: Expression } | undefined {
  if (expression.type !== 'member') return undefined;
  const { object, name, start, end } = expression;
  const direct = headName(object);
  if (direct !== undefined) return { head: direct, rest: { type: 'name', name, start, end } };
  const inner = splitHead(object);
  return inner && { head: inner.head, rest: { ...expression, object: inner.rest } };
}

function headName(expression: Expression): string | undefined {
  if (expression.type === 'name') return others.has(expression.name) ? undefined : expression.name;
  if (expression.type === 'index') return literal(expression.index);
  if (expression.type === 'call' && configuring.has(pathOf(expression.callee) ?? ''))
    return literal(expression.args[0]?.value);
  return undefined;
}

function inherited(body: readonly Statement[], blocks: ReadonlyMap<string, Part[]>): Part[] {
  return callsIn(body).flatMap(({ path, call }) => {
    const from = path === 'initWith' ? call.args[0]?.value : undefined;
    const source =
      from &&
      (from.type === 'call'
        ? literal(from.args[0]?.value)
        : (headOfIndex(from) ?? pathOf(from)?.split('.').at(-1)));
    return (source !== undefined && blocks.get(source)) || [];
  });
}

function headOfIndex(expression: Expression): string | undefined {
  return expression.type === 'index' ? literal(expression.index) : undefined;
}
