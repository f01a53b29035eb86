import type { Node, Syntax } from '../../syntax/grammars.js';
import { named } from '../../syntax/shape.js';
import type { ReadProblem } from '../../text/problem.js';
import type { ConfigNode } from './model.js';
import {
  bindPattern,
  isCode,
  isFunction,
  keyText,
  nothing,
  Scope,
  unwrapped,
  type Expressions,
} from './script-scope.js';
import { bodyOf } from './script-statements.js';

const maxDepth = 60;
/** How many parts a configuration may come to, functions read anew wherever they are called. */
const maxParts = 20_000;

/** What an `app.config.js` or `.ts` gives, as far as reading can tell. */
export interface ScriptConfig {
  config: ConfigNode | null;
  problems: ReadProblem[];
}

/**
 * Reads a configuration that is a script: an object that it exports, or that the function it exports gives back.
 * Follows constants, functions of the script's own, `if`, `switch` and assignments; what needs more than that is open.
 */
export function readAppScript(text: string, syntax: Syntax): ScriptConfig {
  const config = syntax.visit('tsx', text, (root) => bodyOf(new ScriptReader(), named(root), new Scope(), 0));
  return { config: config ?? null, problems: [] };
}

/** Methods of texts and lists that give the same for the same values. */
const askable = new Set([
  'includes',
  'startsWith',
  'endsWith',
  'toLowerCase',
  'toUpperCase',
  'trim',
  'toString',
]);

class ScriptReader implements Expressions {
  private parts = 0;

  take(parts: number, depth: number): boolean {
    this.parts += parts;
    return depth <= maxDepth && this.parts <= maxParts;
  }

  value(given: Node, scope: Scope, depth: number): ConfigNode {
    const node = unwrapped(given);
    const span = { start: node.startIndex, end: node.endIndex };
    if (!this.take(1, depth)) return this.open(node);
    const inner = (one: Node) => this.value(one, scope, depth + 1);
    const parts = named(node).filter(isCode);
    switch (node.type) {
      case 'string':
        return { is: 'text', value: stringValue(node), ...span };
      case 'template_string':
        return this.template(node, inner);
      case 'true':
      case 'false':
        return { is: 'plain', value: node.type === 'true', ...span };
      case 'null':
      case 'undefined':
        return nothing(span);
      case 'number':
        return { is: 'plain', value: Number(node.text), ...span };
      case 'array':
        return { is: 'list', items: parts.map(inner), ...span };
      case 'object':
        return { is: 'object', entries: parts.map((part) => this.entry(part, scope, depth)), ...span };
      case 'spread_element':
        return parts[0] ? { is: 'spread', of: inner(parts[0]), ...span } : this.open(node);
      case 'ternary_expression': {
        const [condition, then, otherwise] = parts.map(inner);
        if (!condition || !then || !otherwise) return this.open(node);
        return { is: 'choice', condition, then, otherwise, ...span };
      }
      case 'unary_expression':
        return parts[0] && node.child(0)?.type === '!'
          ? { is: 'not', of: inner(parts[0]), ...span }
          : this.open(node);
      case 'binary_expression':
        return this.binary(node, inner);
      case 'identifier':
        return this.named(node, scope, depth);
      case 'member_expression':
      case 'subscript_expression':
        return this.member(node, inner);
      case 'call_expression':
        return this.call(node, scope, depth);
      default:
        return this.open(node);
    }
  }

  open(node: Node): ConfigNode {
    const written = node.text.slice(0, 400).replace(/\s+/g, ' ').slice(0, 120);
    return { is: 'open', written, start: node.startIndex, end: node.endIndex };
  }

  exported(given: Node, scope: Scope, depth: number): ConfigNode {
    const node = unwrapped(given);
    const span = { start: node.startIndex, end: node.endIndex };
    const config: ConfigNode = { is: 'given', ...span };
    const context: ConfigNode = {
      is: 'object',
      entries: [{ key: 'config', value: config, ...span }],
      ...span,
    };
    const [fn, home] = this.functionOf(node, scope) ?? [];
    return fn && home ? this.run(fn, home, [context], depth + 1) : this.value(node, scope, depth);
  }

  /** The function that an expression evaluates to, with the names in its scope. */
  private functionOf(given: Node, scope: Scope): [Node, Scope] | undefined {
    let [node, home] = [unwrapped(given), scope];
    for (let depth = 0; depth < 6 && node.type === 'identifier'; depth++) {
      const bound = home.get(node.text);
      if (!bound || !('node' in bound)) return undefined;
      [node, home] = [unwrapped(bound.node), bound.scope];
    }
    return isFunction(node) ? [node, home] : undefined;
  }

  /** What a function gives back for its arguments. */
  private run(fn: Node, home: Scope, args: readonly ConfigNode[], depth: number): ConfigNode {
    const span = { start: fn.startIndex, end: fn.endIndex };
    if (!this.take(1, depth)) return this.open(fn);
    const scope = new Scope(home);
    const alone = fn.childForFieldName('parameter');
    const list = fn.childForFieldName('parameters');
    const parameters = alone ? [alone] : list ? named(list).filter(isCode) : [];
    for (const [at, parameter] of parameters.entries())
      bindPattern(parameter, args[at] ?? nothing(span), scope, (node) => this.value(node, scope, depth + 1));
    const body = fn.childForFieldName('body');
    if (!body) return this.open(fn);
    if (body.type !== 'statement_block') return this.value(body, scope, depth + 1);
    return bodyOf(this, named(body), scope, depth + 1) ?? nothing(span);
  }

  private call(node: Node, scope: Scope, depth: number): ConfigNode {
    const callee = node.childForFieldName('function');
    const list = node.childForFieldName('arguments');
    if (!callee || list?.type !== 'arguments') return this.open(node);
    const args = named(list).filter(isCode);
    const value = (one: Node) => this.value(one, scope, depth + 1);
    const [fn, home] = this.functionOf(callee, scope) ?? [];
    if (fn && home) return this.run(fn, home, args.map(value), depth + 1);
    const head = callee.childForFieldName('object');
    const method = callee.childForFieldName('property')?.text ?? '';
    if (callee.type !== 'member_expression' || !head || !askable.has(method)) return this.open(node);
    const span = { start: node.startIndex, end: node.endIndex };
    return { is: 'asked', method, of: value(head), args: args.map(value), ...span };
  }

  private named(node: Node, scope: Scope, depth: number): ConfigNode {
    const bound = scope.get(node.text);
    if (!bound)
      return node.text === 'undefined'
        ? nothing({ start: node.startIndex, end: node.endIndex })
        : this.open(node);
    return 'made' in bound ? bound.made : this.value(bound.node, bound.scope, depth + 1);
  }

  private template(node: Node, inner: (one: Node) => ConfigNode): ConfigNode {
    const parts = named(node).map((part): ConfigNode => {
      const span = { start: part.startIndex, end: part.endIndex };
      const held = part.type === 'template_substitution' ? part.namedChild(0) : null;
      if (held) return inner(held);
      return part.type === 'string_fragment' ? { is: 'text', value: part.text, ...span } : this.open(part);
    });
    const span = { start: node.startIndex, end: node.endIndex };
    const [only] = parts;
    if (parts.length === 0) return { is: 'text', value: '', ...span };
    return parts.length === 1 && only?.is === 'text'
      ? { ...only, ...span }
      : { is: 'joined', parts, ...span };
  }

  private binary(node: Node, inner: (one: Node) => ConfigNode): ConfigNode {
    const [first, second] = named(node).filter(isCode);
    const sign = node.childForFieldName('operator')?.type ?? '';
    const span = { start: node.startIndex, end: node.endIndex };
    if (!first || !second) return this.open(node);
    const [left, right] = [inner(first), inner(second)];
    if (sign === '+') return { is: 'joined', parts: [left, right], ...span };
    if (sign === '??' || sign === '||' || sign === '&&') return { is: 'either', sign, left, right, ...span };
    if (/^[!=]==?$/.test(sign))
      return { is: 'compared', sign: sign.startsWith('!') ? '!==' : '===', left, right, ...span };
    return this.open(node);
  }

  private entry(part: Node, scope: Scope, depth: number) {
    const span = { start: part.startIndex, end: part.endIndex };
    const value = (one: Node) => this.value(one, scope, depth + 1);
    if (part.type === 'spread_element') return { key: '', value: value(part), ...span };
    if (part.type === 'shorthand_property_identifier')
      return { key: part.text, value: this.named(part, scope, depth), ...span };
    const [key, held] = named(part).filter(isCode);
    if (key?.type === 'computed_property_name') {
      const rest: ConfigNode = { is: 'spread', of: this.open(part), ...span };
      return { key: '', value: rest, ...span };
    }
    const name = key ? keyText(key) : '';
    return { key: name, value: held && part.type === 'pair' ? value(held) : this.open(part), ...span };
  }

  private member(node: Node, inner: (one: Node) => ConfigNode): ConfigNode {
    const span = { start: node.startIndex, end: node.endIndex };
    const object = node.childForFieldName('object');
    const property = node.childForFieldName('property');
    const index = node.childForFieldName('index');
    if (!object || !(index ?? property)) return this.open(node);
    const named = (key: Node | null): ConfigNode => ({
      is: 'text',
      value: key?.text ?? '',
      start: key?.startIndex ?? span.start,
      end: key?.endIndex ?? span.end,
    });
    const key = index ? inner(index) : named(property);
    if (/^process\.env$/.test(unwrapped(object).text))
      return key.is === 'text' ? { is: 'variable', name: key.value, ...span } : this.open(node);
    const of = inner(object);
    return of.is === 'open' ? this.open(node) : { is: 'member', of, key, ...span };
  }
}

function stringValue(node: Node): string {
  return node.text.slice(1, -1).replace(/\\(['"\\])/g, '$1');
}
