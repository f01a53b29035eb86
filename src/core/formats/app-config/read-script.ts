import { dottedName, named } from '../../syntax/shape.js';
import type { Node, Syntax } from '../../syntax/grammars.js';
import type { ReadProblem } from '../../text/problem.js';
import type { ConfigNode } from './model.js';

const maxDepth = 60;

/** What an `app.config.js` or `.ts` gives, as far as it is written and not computed. */
export interface ScriptConfig {
  config: ConfigNode | null;
  problems: ReadProblem[];
}

/** Reads a configuration that is a script: an object that it exports, or that the function it exports gives back. */
export function readAppScript(text: string, syntax: Syntax): ScriptConfig {
  const config = syntax.visit('tsx', text, (root) => new ScriptReader(root).read());
  return { config: config ?? null, problems: [] };
}

class ScriptReader {
  private readonly constants = new Map<string, Node>();
  /** The names by which the function calls the static configuration. */
  private given = new Set<string>();

  constructor(private readonly root: Node) {}

  read(): ConfigNode | null {
    for (const statement of named(this.root)) this.declare(statement);
    const exported = this.exported();
    return exported ? this.value(this.inside(exported), 0) : null;
  }

  private declare(statement: Node): void {
    if (!/^(lexical|variable)_declaration$/.test(statement.type)) return;
    for (const one of named(statement)) {
      const [name] = named(one);
      const value = named(one).at(-1);
      if (name?.type === 'identifier' && value && value.id !== name.id) this.constants.set(name.text, value);
      // `const { config } = context` only hands on what the function was given.
      if (name?.type === 'object_pattern' && /\bconfig\b/.test(name.text)) this.given.add('config');
    }
  }

  private exported(): Node | undefined {
    for (const statement of named(this.root)) {
      if (
        statement.type === 'export_statement' &&
        statement.children.some((child) => child?.type === 'default')
      )
        return named(statement).find(({ type }) => type !== 'comment');
      const assignment = statement.type === 'expression_statement' ? statement.namedChild(0) : null;
      const [target, value] = assignment?.type === 'assignment_expression' ? named(assignment) : [];
      if (target && value && /^(module\.)?exports(\.default)?$/.test(target.text)) return value;
    }
    return undefined;
  }

  /** The body of a function that is exported, or what a name stands for. */
  private inside(node: Node): Node {
    let inner = this.plain(node);
    for (let depth = 0; depth < 6; depth++) {
      if (inner.type === 'identifier') {
        const named = this.constants.get(inner.text) ?? this.declared(inner.text);
        if (!named) return inner;
        inner = this.plain(named);
      } else if (/^(arrow_function|function_expression|function|function_declaration)$/.test(inner.type)) {
        inner = this.plain(this.returned(inner) ?? inner);
        if (inner.type !== 'identifier') return inner;
      } else return inner;
    }
    return inner;
  }

  private declared(name: string): Node | undefined {
    return named(this.root).find(
      (statement) => statement.type === 'function_declaration' && statement.namedChild(0)?.text === name,
    );
  }

  private returned(fn: Node): Node | undefined {
    const parameters =
      named(fn).find(({ type }) => type === 'formal_parameters') ??
      (fn.type === 'arrow_function' ? named(fn)[0] : undefined);
    const first = parameters?.type === 'identifier' ? parameters : parameters?.namedChild(0);
    const pattern = first?.type === 'required_parameter' ? first.namedChild(0) : first;
    if (pattern?.type === 'object_pattern') {
      for (const part of named(pattern)) {
        const [key, name] = part.type === 'pair_pattern' ? named(part) : [part, part];
        if (key?.text === 'config' && name) this.given.add(name.text);
      }
    } else if (pattern?.type === 'identifier') this.given.add(`${pattern.text}.config`);
    const body = named(fn).at(-1);
    if (body?.type !== 'statement_block') return body;
    for (const statement of named(body)) this.declare(statement);
    return (
      named(body)
        .findLast(({ type }) => type === 'return_statement')
        ?.namedChild(0) ?? undefined
    );
  }

  /** A node without what only wraps it. */
  private plain(node: Node): Node {
    let inner = node;
    while (/^(parenthesized|as|satisfies|non_null)_expression$/.test(inner.type) && inner.namedChild(0))
      inner = inner.namedChild(0) ?? inner;
    return inner;
  }

  private value(given: Node, depth: number): ConfigNode {
    const node = this.plain(given);
    const span = { start: node.startIndex, end: node.endIndex };
    const open: ConfigNode = { is: 'open', written: node.text.replace(/\s+/g, ' ').slice(0, 120), ...span };
    if (depth > maxDepth) return open;
    const inner = (one: Node) => this.value(one, depth + 1);
    switch (node.type) {
      case 'string':
      case 'template_string': {
        const isPlain = named(node).every(({ type }) => type === 'string_fragment');
        return isPlain ? { is: 'text', value: node.text.slice(1, -1), ...span } : open;
      }
      case 'true':
      case 'false':
        return { is: 'plain', value: node.type === 'true', ...span };
      case 'null':
        return { is: 'plain', value: null, ...span };
      case 'number':
        return { is: 'plain', value: Number(node.text), ...span };
      case 'array':
        return { is: 'list', items: named(node).filter(isCode).map(inner), ...span };
      case 'object':
        return {
          is: 'object',
          entries: named(node)
            .filter(isCode)
            .map((part) => this.entry(part, depth)),
          ...span,
        };
      case 'spread_element':
        return { is: 'spread', of: inner(node.namedChild(0) ?? node), ...span };
      case 'ternary_expression': {
        const [condition, then, otherwise] = named(node).filter(isCode);
        if (!condition || !then || !otherwise) return open;
        const text = this.condition(condition);
        return { is: 'choice', condition: text, then: inner(then), otherwise: inner(otherwise), ...span };
      }
      case 'binary_expression': {
        const [left, right] = named(node).filter(isCode);
        const sign = node.children.find((child) => child && !child.isNamed)?.type;
        if (!left || !right || (sign !== '??' && sign !== '||')) return open;
        const first = inner(left);
        if (first.is === 'variable') return { ...first, otherwise: inner(right), ...span };
        return first.is === 'given' ? first : open;
      }
      case 'identifier': {
        if (this.given.has(node.text)) return { is: 'given', way: [], ...span };
        const constant = this.constants.get(node.text);
        return constant ? inner(constant) : open;
      }
      case 'member_expression':
      case 'subscript_expression':
        return this.member(node) ?? open;
      default:
        return open;
    }
  }

  private entry(part: Node, depth: number) {
    const span = { start: part.startIndex, end: part.endIndex };
    if (part.type === 'spread_element') return { key: '', value: this.value(part, depth + 1), ...span };
    if (part.type === 'shorthand_property_identifier') {
      const constant = this.constants.get(part.text);
      const value: ConfigNode = constant
        ? this.value(constant, depth + 1)
        : { is: 'open', written: part.text, ...span };
      return { key: part.text, value, ...span };
    }
    const [key, value] = named(part).filter(isCode);
    const name = key?.type === 'string' ? key.text.slice(1, -1) : (key?.text ?? '');
    const open: ConfigNode = { is: 'open', written: part.text.slice(0, 120), ...span };
    return { key: name, value: value && part.type === 'pair' ? this.value(value, depth + 1) : open, ...span };
  }

  private member(node: Node): ConfigNode | undefined {
    const span = { start: node.startIndex, end: node.endIndex };
    const way = dottedName(node.text.replace(/\[\s*(['"])([\w$]+)\1\s*\]/g, '.$2'));
    const name = /^process\.env\.(\w+)$/.exec(way)?.[1];
    if (name !== undefined) return { is: 'variable', name, otherwise: null, ...span };
    for (const given of this.given)
      if (way.startsWith(`${given}.`))
        return { is: 'given', way: way.slice(given.length + 1).split('.'), ...span };
    return undefined;
  }

  /** A condition as text, its names replaced by what they stand for. */
  private condition(node: Node): string {
    let text = node.text.replace(/\s+/g, ' ');
    for (let depth = 0; depth < 4; depth++) {
      const before = text;
      text = text.replace(/(?<![.\w$'"])[A-Za-z_$][\w$]*(?![\w$'"(])/g, (name) => {
        const constant = this.constants.get(name);
        return constant ? `(${constant.text.replace(/\s+/g, ' ')})` : name;
      });
      if (text === before) break;
    }
    return unbracketed(text).slice(0, 300);
  }
}

/** Brackets around a plain name or text, or around all of it, are no help to whoever reads the condition. */
function unbracketed(text: string): string {
  const inner = text.replace(/\(([\w.$]+|'[^']*'|"[^"]*")\)/g, '$1');
  return /^\([^()]*\)$/.test(inner) ? inner.slice(1, -1) : inner;
}

function isCode({ type }: Node): boolean {
  return type !== 'comment';
}
