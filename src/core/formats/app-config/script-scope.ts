import type { Node } from '../../syntax/grammars.js';
import { named } from '../../syntax/shape.js';
import type { Span } from '../../text/problem.js';
import type { ConfigNode } from './model.js';

/** The definition of a name: code that is evaluated at its use, or a known value. */
export type Bound = { node: Node; scope: Scope } | { made: ConfigNode };

/** The names that code sees at a place. */
export class Scope {
  readonly names = new Map<string, Bound>();

  constructor(readonly outer?: Scope) {}

  get(name: string): Bound | undefined {
    return boundIn(this, name);
  }

  set(name: string, bound: Bound): void {
    this.names.set(name, bound);
  }
}

/**
 * The definition of a name in a scope or in those around it; iterative, because a chain may have thousands of scopes.
 */
function boundIn(scope: Scope, name: string): Bound | undefined {
  for (let at: Scope | undefined = scope; at; at = at.outer) {
    const bound = at.names.get(name);
    if (bound) return bound;
  }
  return undefined;
}

/** Reads expressions; they are evaluated later, when the variables of a build are known. */
export interface Expressions {
  value(node: Node, scope: Scope, depth: number): ConfigNode;
  /** What is exported: a value, or what a function makes of the static configuration. */
  exported(node: Node, scope: Scope, depth: number): ConfigNode;
  /** What no reading can settle. */
  open(node: Node): ConfigNode;
  /** Whether this many more parts may be read. */
  take(parts: number, depth: number): boolean;
}

/** Gives the names of a pattern, such as `{ config: base = {} }`, the parts of a value. */
export function bindPattern(
  pattern: Node | null | undefined,
  made: ConfigNode,
  scope: Scope,
  valueOf: (node: Node) => ConfigNode,
): void {
  if (!pattern) return;
  const inner = (one: Node | null | undefined, value: ConfigNode) => bindPattern(one, value, scope, valueOf);
  const [first, second] = named(pattern).filter(isCode);
  switch (pattern.type) {
    case 'identifier':
    case 'shorthand_property_identifier_pattern':
      scope.set(pattern.text, { made });
      return;
    case 'required_parameter':
    case 'optional_parameter': {
      const given = pattern.childForFieldName('value');
      inner(pattern.childForFieldName('pattern') ?? first, given ? orElse(made, valueOf(given)) : made);
      return;
    }
    case 'assignment_pattern':
      inner(first, second ? orElse(made, valueOf(second)) : made);
      return;
    case 'object_pattern':
      for (const part of named(pattern).filter(isCode)) inner(...partOf(part, made, valueOf));
      return;
    case 'rest_pattern':
      inner(first, made);
  }
}

/** The name, or the pattern, that a part of an object pattern binds, and the value that it gets. */
function partOf(
  part: Node,
  made: ConfigNode,
  valueOf: (node: Node) => ConfigNode,
): [Node | undefined, ConfigNode] {
  const [first, second] = named(part).filter(isCode);
  if (part.type === 'pair_pattern' && first) return [second, memberOf(made, keyText(first), part)];
  if (part.type === 'object_assignment_pattern' && first && second)
    return [first, orElse(memberOf(made, first.text, part), valueOf(second))];
  return [part, part.type === 'rest_pattern' ? made : memberOf(made, part.text, part)];
}

export function memberOf(
  of: ConfigNode,
  key: string,
  { startIndex: start, endIndex: end }: Node,
): ConfigNode {
  const span = { start, end };
  return { is: 'member', of, key: { is: 'text', value: key, ...span }, ...span };
}

function orElse(left: ConfigNode, right: ConfigNode): ConfigNode {
  const { start, end } = left;
  return { is: 'either', sign: '??', left, right, start, end };
}

export const nothing = (span: Span): ConfigNode => ({ is: 'plain', value: null, ...span });

/** The name of a property, its quotes taken off. */
export function keyText(key: Node): string {
  return key.type === 'string' ? key.text.slice(1, -1) : key.text;
}

export function isCode({ type }: Node): boolean {
  return type !== 'comment';
}

export function isFunction({ type }: Node): boolean {
  return /^(arrow_function|function_expression|function|function_declaration)$/.test(type);
}

/** A node without what only wraps it. */
export function unwrapped(node: Node): Node {
  let inner = node;
  while (/^(parenthesized|as|satisfies|non_null|await)_expression$/.test(inner.type) && inner.namedChild(0))
    inner = inner.namedChild(0) ?? inner;
  return inner;
}
