import type { Node } from '../../syntax/grammars.js';
import { named } from '../../syntax/shape.js';
import type { ConfigNode } from './model.js';
import { bindPattern, isCode, keyText, nothing, Scope, unwrapped, type Expressions } from './script-scope.js';

/**
 * What statements give back, or export; null where they end without that. Where they part, each way is read to its end
 * with the statements after it, so a value that one branch sets is known behind it.
 */
export function bodyOf(
  reader: Expressions,
  statements: readonly Node[],
  given: Scope,
  depth: number,
): ConfigNode | null {
  const [first] = statements;
  if (!first) return null;
  if (!reader.take(statements.length, depth)) return reader.open(first);
  let scope = given;
  hoist(statements, scope);
  for (const [at, whole] of statements.entries()) {
    const statement = declared(whole);
    const from = scope;
    const goOn = (inner: readonly Node[]) =>
      namesIn(inner).some((name) => from.get(name) !== undefined)
        ? reader.open(statement)
        : bodyOf(reader, [...inner, ...statements.slice(at + 1)], new Scope(from), depth + 1);
    if (isExport(whole)) {
      const value = named(whole).find(isCode);
      return value ? reader.exported(value, scope, depth) : null;
    }
    switch (statement.type) {
      case 'lexical_declaration':
      case 'variable_declaration':
        scope = declare(reader, statement, scope, depth);
        break;
      case 'expression_statement': {
        const expression = unwrapped(statement.namedChild(0) ?? statement);
        const exported = exportedBy(expression);
        if (exported) return reader.exported(exported, scope, depth);
        scope = changed(reader, expression, scope, depth);
        break;
      }
      case 'return_statement': {
        const value = named(statement).find(isCode);
        return value ? reader.value(value, scope, depth) : nothing(spanOf(statement));
      }
      case 'statement_block':
        return goOn(named(statement));
      case 'if_statement':
        return either(statement, { reader, scope, depth, goOn });
      case 'switch_statement':
        return switched(statement, { reader, scope, depth, goOn });
      case 'throw_statement':
      case 'for_statement':
      case 'for_in_statement':
      case 'while_statement':
      case 'do_statement':
      case 'try_statement':
        return reader.open(statement);
    }
  }
  return null;
}

/** Functions, and constants that functions above them use, are known from the beginning. */
function hoist(statements: readonly Node[], scope: Scope): void {
  for (const statement of statements.map(declared)) {
    const name = statement.childForFieldName('name');
    if (statement.type === 'function_declaration' && name) scope.set(name.text, { node: statement, scope });
    if (!/^(lexical|variable)_declaration$/.test(statement.type)) continue;
    for (const one of named(statement)) {
      const [target, value] = [one.childForFieldName('name'), one.childForFieldName('value')];
      if (target?.type !== 'identifier') continue;
      scope.set(target.text, value ? { node: value, scope } : { made: nothing(spanOf(target)) });
    }
  }
}

/** The names that the statements of a block give a meaning of their own, which ends with the block. */
function namesIn(statements: readonly Node[]): string[] {
  return statements
    .filter(({ type }) => /^(lexical_declaration|function_declaration)$/.test(type))
    .flatMap((one) => (one.type === 'function_declaration' ? [one] : named(one)))
    .flatMap((one) => one.childForFieldName('name')?.text ?? []);
}

/** The declaration that a statement exports, or the statement itself. */
function declared(statement: Node): Node {
  return (statement.type === 'export_statement' && statement.childForFieldName('declaration')) || statement;
}

function isExport(statement: Node): boolean {
  return (
    statement.type === 'export_statement' && statement.children.some((child) => child?.type === 'default')
  );
}

/** The value of `module.exports = …`. */
function exportedBy(expression: Node): Node | undefined {
  const [target, value] = expression.type === 'assignment_expression' ? named(expression).filter(isCode) : [];
  return target && /^(module\.)?exports(\.default)?$/.test(target.text) ? value : undefined;
}

function declare(reader: Expressions, statement: Node, scope: Scope, depth: number): Scope {
  const inner = new Scope(scope);
  for (const one of named(statement)) {
    const [target, value] = [one.childForFieldName('name'), one.childForFieldName('value')];
    if (target?.type === 'identifier')
      inner.set(target.text, value ? { node: value, scope: inner } : { made: nothing(spanOf(target)) });
    else if (target && value && unwrapped(value).text === 'process.env') bindVariables(target, inner);
    else if (target && value) {
      const made = reader.value(value, scope, depth + 1);
      bindPattern(target, made, inner, (node) => reader.value(node, scope, depth + 1));
    }
  }
  return inner;
}

/** `const { APP_VARIANT } = process.env`. */
function bindVariables(pattern: Node, scope: Scope): void {
  for (const part of named(pattern).filter(isCode)) {
    const [key, target] = named(part).filter(isCode);
    const span = spanOf(part);
    const name = key ? keyText(key) : part.text;
    const made: ConfigNode = { is: 'variable', name, ...span };
    const fallback = part.type === 'object_assignment_pattern' ? target : undefined;
    const text = fallback?.type === 'string' ? fallback.text.slice(1, -1) : undefined;
    const right: ConfigNode =
      text === undefined ? nothing(span) : { is: 'text', value: text, ...spanOf(fallback ?? part) };
    const value: ConfigNode = fallback ? { is: 'either', sign: '??', left: made, right, ...span } : made;
    scope.set(part.type === 'pair_pattern' && target ? target.text : name, { made: value });
  }
}

/** What is known after a statement that sets a value, or may change one. */
function changed(reader: Expressions, expression: Node, scope: Scope, depth: number): Scope {
  const [target, value] = named(expression).filter(isCode);
  const span = spanOf(expression);
  if (expression.type === 'assignment_expression' && target && value) {
    return set(reader, target, () => reader.value(value, scope, depth + 1), scope, depth);
  } else if (expression.type === 'augmented_assignment_expression' && target) {
    return set(reader, target, () => reader.open(expression), scope, depth);
  } else if (expression.type === 'call_expression') {
    const callee = expression.childForFieldName('function');
    const list = expression.childForFieldName('arguments');
    const args = list ? named(list).filter(isCode) : [];
    const [head, method] = [callee?.childForFieldName('object'), callee?.childForFieldName('property')?.text];
    if (head && method === 'push') {
      const items = (): ConfigNode[] => [
        { is: 'spread', of: reader.value(head, scope, depth + 1), ...span },
        ...args.map((one) => reader.value(one, scope, depth + 1)),
      ];
      return set(reader, head, () => ({ is: 'list', items: items(), ...span }), scope, depth);
    }
    if (/^console\./.test(callee?.text.slice(0, 20) ?? '')) return scope;
    // Whatever it is given, it may change.
    return [...args, ...(head ? [head] : [])].reduce(
      (inner, one) => set(reader, one, () => reader.open(expression), inner, depth),
      scope,
    );
  }
  return scope;
}

/** The names after a name, or what a way of keys from a name leads to, got another value. */
function set(reader: Expressions, given: Node, made: () => ConfigNode, scope: Scope, depth: number): Scope {
  const target = unwrapped(given);
  const root = rootOf(target);
  if (!root || !scope.get(root.text)) return scope;
  const inner = new Scope(scope);
  const way = wayOf(target);
  const whole = (): ConfigNode =>
    way
      ? { is: 'with', of: reader.value(root, scope, depth + 1), way, value: made(), ...spanOf(target) }
      : reader.open(target);
  inner.set(root.text, { made: target.type === 'identifier' ? made() : whole() });
  return inner;
}

/** The name with which an expression such as `config.ios.infoPlist` begins. */
function rootOf(given: Node): Node | undefined {
  let node = unwrapped(given);
  while (/^(member|subscript)_expression$/.test(node.type) && node.childForFieldName('object'))
    node = unwrapped(node.childForFieldName('object') ?? node);
  return node.type === 'identifier' ? node : undefined;
}

/** The keys of a member expression; undefined where one is computed. */
function wayOf(given: Node): string[] | undefined {
  const way: string[] = [];
  let node = unwrapped(given);
  while (node.type !== 'identifier') {
    const key = node.childForFieldName('property') ?? node.childForFieldName('index');
    const object = node.childForFieldName('object');
    if (!key || !object || !/^(property_identifier|string)$/.test(key.type)) return undefined;
    way.unshift(keyText(key));
    node = unwrapped(object);
  }
  return way;
}

/** The statements of a branch. */
function inside(node: Node | null): readonly Node[] {
  if (!node) return [];
  return node.type === 'statement_block' ? named(node) : [node];
}

function choice(
  condition: ConfigNode,
  then: ConfigNode | null,
  other: ConfigNode | null,
  node: Node,
): ConfigNode {
  const span = spanOf(node);
  return { is: 'choice', condition, then: then ?? nothing(span), otherwise: other ?? nothing(span), ...span };
}

/** Where statements part: what reads them, and how the statements of a branch go on with those behind it. */
interface Parting {
  reader: Expressions;
  scope: Scope;
  depth: number;
  goOn: (inner: readonly Node[]) => ConfigNode | null;
}

function either(statement: Node, { reader, scope, depth, goOn }: Parting): ConfigNode | null {
  const condition = statement.childForFieldName('condition');
  const then = goOn(inside(statement.childForFieldName('consequence')));
  const other = goOn(inside(statement.childForFieldName('alternative')?.namedChild(0) ?? null));
  if (!condition || !(then ?? other)) return null;
  return choice(reader.value(condition, scope, depth), then, other, statement);
}

/** Each case is a choice; one without `break` or `return` runs into the next. */
function switched(statement: Node, { reader, scope, depth, goOn }: Parting): ConfigNode | null {
  const subject = statement.childForFieldName('value');
  const body = statement.childForFieldName('body');
  if (!subject || !body) return reader.open(statement);
  const cases = named(body).filter(isCode);
  const left = reader.value(subject, scope, depth + 1);
  const codeFrom = (at: number): Node[] => {
    const all = cases
      .slice(at)
      .flatMap((one) => one.childrenForFieldName('body').filter((node) => node !== null));
    const flat = all.flatMap((node) => (node.type === 'statement_block' ? named(node) : [node]));
    const end = flat.findIndex(({ type }) => type === 'break_statement');
    return flat.slice(0, end < 0 ? undefined : end);
  };
  const standard = cases.findIndex(({ type }) => type === 'switch_default');
  let result = goOn(standard < 0 ? [] : codeFrom(standard));
  for (let at = cases.length - 1; at >= 0; at--) {
    const pattern = cases[at]?.childForFieldName('value');
    if (!pattern) continue;
    const right = reader.value(pattern, scope, depth + 1);
    const condition: ConfigNode = { is: 'compared', sign: '===', left, right, ...spanOf(pattern) };
    result = choice(condition, goOn(codeFrom(at)), result, statement);
  }
  return result;
}

function spanOf({ startIndex: start, endIndex: end }: Node) {
  return { start, end };
}
