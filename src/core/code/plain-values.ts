import type { Span } from '../text/problem.js';
import type { Node } from '../syntax/grammars.js';
import { dottedName, named, type CodeLanguage, type Shape } from '../syntax/shape.js';
import type { PlainValue } from './source-reading.js';

const returns = /^(return_statement|jump_expression|control_transfer_statement)$/;
const bodies = /(block|statements|body|getter|computed_property)$/;
const functions: ReadonlySet<string> = new Set(['method', 'lambda', 'type']);
const maxDepth = 40;
const maxReturns = 200;
const maxTableDepth = 8;
const maxVisits = 1000;

/** The plain values of the expressions of one file. */
export class PlainValues {
  private readonly shapes = new Map<Node, Shape | null>();

  constructor(private readonly language: CodeLanguage) {}

  /** What a node means. Several callers ask for the same node, so the answer is kept. */
  describe(node: Node): Shape | null {
    let shape = this.shapes.get(node);
    if (shape === undefined) {
      shape = this.language.describe(node);
      this.shapes.set(node, shape);
    }
    return shape;
  }

  /** The plain values that an expression may have: one, or one per branch. */
  of(node: Node): PlainValue[] {
    const run = this.run(node);
    const last = run.at(-1) ?? node;
    const span = { start: node.startIndex, end: last.endIndex };
    if (last !== node) {
      if (isLong(span) || !node.parent) return [{ is: 'other', ...span }];
      const called = run.some((part) => this.describe(part)?.is === 'call');
      const from = node.parent.startIndex;
      const whole = node.parent.text.slice(span.start - from, span.end - from);
      const path = called ? '' : dottedName(whole);
      if (path === '' || path.startsWith('?')) return [asked({ text: whole }, span)];
      return [{ is: 'name', name: path, ...span }];
    }
    const shape = this.describe(node);
    if (shape?.is === 'string')
      return shape.value === null
        ? [{ is: 'other', ...span }]
        : [{ is: 'text', value: shape.value, ...span }];
    if (shape?.is === 'same') return this.of(shape.node).map((value) => ({ ...value, ...span }));
    if (shape?.is === 'name') return [{ is: 'name', name: shape.name, ...span }];
    if (shape?.is === 'cases') return shape.cases.flatMap((part) => this.of(part));
    if (shape?.is === 'branch')
      return [...shape.then, ...shape.otherwise].flatMap((part) =>
        this.language.continues?.has(part.type) ? [] : this.of(unwrapped(part)),
      );
    if (shape?.is === 'call') {
      const [first] = shape.args;
      const inner =
        first && /(^|\.)(getString|getText|stringResource)$/.test(shape.name)
          ? dottedName(first.node.text)
          : '';
      if (inner.startsWith('R.string.')) return [{ is: 'name', name: inner, ...span }];
      const made = /^(|(.*\.)?[lL]azy)$/.test(shape.name) ? this.madeBy(shape) : [];
      return made.length > 0 ? made : [asked(node, span)];
    }
    const choices = shape ? [] : named(node).filter((part) => this.describe(part)?.is === 'branch');
    if (choices.length > 0) return choices.flatMap((part) => this.of(part));
    if (isLong(span)) return [{ is: 'other', ...span }];
    const name = dottedName(node.text);
    const plain = name !== '' && !name.startsWith('?') && !shape;
    return [plain ? { is: 'name', name, ...span } : asked(node, span)];
  }

  /** What a function may give back: after each `return`, or what its body is where that is one expression. */
  returned(body: Node): PlainValue[] {
    const found: Node[] = [];
    const look = (node: Node, depth: number): void => {
      if (depth > maxDepth || found.length > maxReturns) return;
      for (const part of named(node)) {
        if (returns.test(part.type)) found.push(...named(part).slice(-1));
        else if (!functions.has(this.describe(part)?.is ?? '')) look(part, depth + 1);
      }
    };
    look(body, 0);
    const whole = unwrapped(body);
    const given = found.length > 0 || bodies.test(whole.type) ? found : [whole];
    return given.flatMap((node) => this.of(node)).filter(({ is }) => is !== 'other');
  }

  /** The value of a function that is called in place. */
  private madeBy({ rest, args }: Shape & { is: 'call' }): PlainValue[] {
    const parts = [...rest, ...args.map(({ node }) => node)].flatMap((part) => [part, ...named(part)]);
    const lambda = parts.find((part) => functions.has(this.describe(part)?.is ?? ''));
    return lambda ? this.returned(named(lambda).at(-1) ?? lambda) : [];
  }

  /** The plain values of a table, by their keys; those of tables within by both keys. */
  entries(value: Node): { key: string; way: string; node: Node; values: PlainValue[] }[] {
    const { pairs } = this.language;
    if (!pairs) return [];
    const found: { key: string; way: string; node: Node; values: PlainValue[] }[] = [];
    let visits = 0;
    const look = (node: Node, way: string, depth: number): void => {
      if (depth > maxTableDepth || ++visits > maxVisits) return;
      // A choice by platform is not a table: it evaluates to one of its values.
      if (node.type === 'call_expression' && this.describe(node)?.is === 'same') return;
      const held = pairs(node);
      for (const [key, inner] of held) {
        const path = `${way}${keyName(key.text)}`;
        const values = this.of(inner).filter(({ is }) => is !== 'other');
        found.push({ key: key.text, way: path, node: inner, values });
        look(inner, `${path}.`, depth + 1);
      }
      if (held.length === 0) for (const part of named(node)) look(part, way, depth + 1);
    };
    look(value, '', 0);
    return found;
  }

  /** A node with those beside it that go on with its expression. */
  run(node: Node): Node[] {
    const nodes = [node];
    const { continues } = this.language;
    if (!continues) return nodes;
    for (let next = node.nextNamedSibling; next && continues.has(next.type); next = next.nextNamedSibling)
      nodes.push(next);
    return nodes;
  }
}

/** An expression of more than this many characters is not plain; its text is not even taken. */
const maxPlain = 200;
const isLong = ({ start, end }: Span): boolean => end - start > maxPlain;

/** `units["footer"]` and `units.getValue("footer")` are `units.footer`; `unit()` is what `unit` gives back. */
function asked(node: { readonly text: string }, span: Span): PlainValue {
  if (isLong(span)) return { is: 'other', ...span };
  const plain = node.text.replace(/\s+/g, '').replace(/[!?]+(?=$|\.|\[)/g, '');
  const [, called] = /^((?:[A-Za-z_$][\w$]*\.)*[A-Za-z_$][\w$]*)\(\)$/.exec(plain) ?? [];
  if (called !== undefined) return { is: 'call', name: dottedName(called), ...span };
  const [, table, index, key] =
    /^((?:[A-Za-z_$][\w$]*\.)*[A-Za-z_$][\w$]*?)(?:\[(.+)\]|\.(?:get|getValue|getOrDefault)\((.+)\))$/.exec(
      plain,
    ) ?? [];
  const name = keyName(index ?? key ?? '');
  if (table === undefined || name === '') return { is: 'other', ...span };
  return { is: 'name', name: `${dottedName(table)}.${name}`, ...span };
}

/** The last part of a key: `footer` of `"footer"` and of `Slot.footer`. */
function keyName(text: string): string {
  return /^(?:[\w$]+\.)*\.?([\w$]+)$/.exec(text.replace(/^@?(["'])(.*)\1$/, '$2').trim())?.[1] ?? '';
}

function unwrapped(node: Node): Node {
  let inner = node;
  for (
    let depth = 0;
    depth < 6 &&
    inner.namedChildCount === 1 &&
    /body|block|statements|getter|computed_property|arrow_expression/.test(inner.type);
    depth++
  )
    inner = inner.namedChild(0) ?? inner;
  return inner;
}
