import type { Node } from '../syntax/grammars.js';
import { dottedName, named, type ArgumentNode, type CodeLanguage, type Shape } from '../syntax/shape.js';
import type {
  SourceReading,
  PlainValue,
  SourceString,
  SourceCall,
  SourceMethod,
  SourceType,
  CodeContext,
  Flow,
  Condition,
} from './source-reading.js';

const maxDepth = 400;

const maxItems = 20_000;

export class SourceReader {
  private readonly strings: SourceString[] = [];
  private readonly calls: SourceCall[] = [];
  private readonly methods: SourceMethod[] = [];
  private readonly classes: SourceType[] = [];
  private readonly choices: SourceReading['choices'] = [];
  private readonly constants = new Map<string, PlainValue[]>();
  private readonly types = new Map<string, string>();

  private readonly shapes = new Map<Node, Shape | null>();

  constructor(private readonly language: CodeLanguage) {}

  /** What a node is; it is asked for from several sides, and worked out once. */
  private describe(node: Node): Shape | null {
    let shape = this.shapes.get(node);
    if (shape === undefined) {
      shape = this.language.describe(node);
      this.shapes.set(node, shape);
    }
    return shape;
  }

  read(root: Node): SourceReading {
    this.walk(root, { type: null, method: null, methods: [], conditions: [] }, null, 0);
    const { strings, methods, classes: types, choices, constants } = this;
    const calls = this.calls.map((call) => ({ ...call, name: this.typed(call.name) }));
    return { strings, calls, methods, types, choices, constants };
  }

  private walk(node: Node, context: CodeContext, flow: Flow | null, depth: number): void {
    if (depth > maxDepth || this.calls.length + this.strings.length > maxItems) return;
    const shape = this.describe(node);
    if (!shape) {
      this.walkAll(named(node), context, flow, depth);
      return;
    }
    switch (shape.is) {
      case 'string':
        if (shape.value !== null) {
          const { value, start, end } = shape;
          this.strings.push({ value, start, end, flow, context });
        } else this.walkAll(named(node), context, null, depth);
        return;
      case 'call':
        this.call(node, shape, context, flow, depth);
        return;
      case 'assign': {
        const values = this.plain(shape.value);
        this.calls.push({
          name: shape.name,
          arguments: [{ label: null, values }],
          context,
          start: node.startIndex,
          end: node.endIndex,
        });
        for (const part of this.run(shape.value))
          this.walk(part, context, { into: 'constant', name: shape.name }, depth + 1);
        return;
      }
      case 'constant':
        this.constant(shape, context, depth);
        return;
      case 'parameter':
        if (shape.type !== null) this.types.set(shape.name, shape.type);
        return;
      case 'type':
        this.classes.push({
          name: shape.name,
          bases: shape.bases,
          start: node.startIndex,
          end: node.endIndex,
        });
        this.walkAll(named(node), { ...context, type: shape.name, method: null }, null, depth);
        return;
      case 'method': {
        this.methods.push({
          name: shape.name,
          context,
          empty: shape.body === null || isEmpty(shape.body),
          start: node.startIndex,
          end: node.endIndex,
        });
        const inside = {
          ...context,
          method: shape.name,
          methods: [...context.methods, shape.name],
          // A callback that is written inside another method runs later: what held there need not hold then.
          conditions: [],
        };
        this.walkAll(named(node), inside, null, depth);
        return;
      }
      case 'lambda':
        this.walkAll(named(node), context, null, depth);
        return;
      case 'branch': {
        if (shape.choice) this.choices.push({ ...shape.choice, values: this.plain(node) });
        const text = shape.text ?? conditionText(shape.conditions);
        const under = (holds: boolean) => ({
          ...context,
          conditions: [...context.conditions, { text, holds }],
        });
        for (const condition of shape.conditions) this.walk(condition, context, null, depth + 1);
        for (const part of shape.then) this.walk(part, under(true), flow, depth + 1);
        for (const part of shape.otherwise) this.walk(part, under(false), flow, depth + 1);
        return;
      }
      case 'cases':
        this.choices.push({
          start: shape.choice?.start ?? node.startIndex,
          end: shape.choice?.end ?? node.endIndex,
          values: this.plain(node),
          cases: shape.of,
          isValue: shape.choice !== undefined,
        });
        for (const part of shape.cases) this.walk(part, context, flow, depth + 1);
        return;
      case 'same':
        this.walk(shape.node, context, flow, depth + 1);
        return;
      case 'name':
        this.walkAll(named(node), context, null, depth);
        return;
      case 'guard': {
        for (const condition of shape.conditions) this.walk(condition, context, null, depth + 1);
        const text = conditionText(shape.conditions);
        const missed = { ...context, conditions: [...context.conditions, { text, holds: false }] };
        for (const part of shape.body) this.walk(part, missed, null, depth + 1);
        return;
      }
    }
  }

  /** Statements in their order: after `if (!ready) return` and after a guard, what follows knows the condition. */
  private walkAll(nodes: readonly Node[], context: CodeContext, flow: Flow | null, depth: number): void {
    let current = context;
    for (const node of nodes) {
      this.walk(node, current, flow, depth + 1);
      const left = this.leftBehind(node);
      if (left) current = { ...current, conditions: [...current.conditions, left] };
    }
  }

  private leftBehind(node: Node): Condition | null {
    const inner = node.type === 'expression_statement' ? (node.namedChild(0) ?? node) : node;
    const shape = this.describe(inner);
    if (shape?.is === 'guard') return { text: conditionText(shape.conditions), holds: true };
    if (shape?.is !== 'branch' || shape.otherwise.length > 0) return null;
    if (shape.conditions.length === 0) return null;
    const last = shape.then.at(-1);
    const text = shape.text ?? conditionText(shape.conditions);
    return last && this.leaves(last, 0) ? { text, holds: false } : null;
  }

  private leaves(node: Node, depth: number): boolean {
    if (this.language.exits.has(node.type)) return true;
    const last = named(node).at(-1);
    const wraps = /body|block|statement|statements/.test(node.type);
    return depth < 6 && wraps && last !== undefined && this.leaves(last, depth + 1);
  }

  private call(
    node: Node,
    { name, args, rest, start }: Shape & { is: 'call' },
    context: CodeContext,
    flow: Flow | null,
    depth: number,
  ): void {
    this.calls.push({
      name,
      arguments: args.map(({ label, node: value }) => ({ label, values: this.plain(value) })),
      context,
      start: start ?? node.startIndex,
      end: node.endIndex,
      heldAt: /^[A-Z]\w*$/.test(name) ? this.language.heldAt?.(node) : undefined,
    });
    for (const part of rest) this.walk(part, context, null, depth + 1);
    this.handedOver(args, context);
    const collects = /(^|\.)(listOf|setOf|arrayOf|asList|of)$/.test(name);
    args.forEach(({ label, node: value, within }, index) => {
      if (within) return;
      const into: Flow = collects && flow ? flow : { into: 'argument', of: name, at: label ?? index };
      for (const part of this.run(value)) this.walk(part, context, into, depth + 1);
    });
  }

  /** A method that is handed over by its name answers to the label that it is given under. */
  private handedOver(args: readonly ArgumentNode[], context: CodeContext): void {
    // In Objective-C every argument has a label, which is a part of what is called.
    if (this.language.id === 'objective-c') return;
    for (const { label, node } of args) {
      const [value, ...more] = label === null ? [] : this.plain(node);
      if (label === null || value?.is !== 'name' || more.length > 0 || value.name === 'null') continue;
      const { startIndex: start, endIndex: end } = node;
      this.methods.push({ name: label, context, empty: false, start, end });
    }
  }

  private constant(shape: Shape & { is: 'constant' }, context: CodeContext, depth: number): void {
    const { name, type, value } = shape;
    const last = value ? (this.run(value).at(-1) ?? value) : null;
    const shown = last ? this.describe(last) : null;
    const made = shown?.is === 'same' ? this.describe(shown.node) : shown;
    const declared = type ?? (made?.is === 'call' ? (made.makes ?? madeBy(made.name)) : null);
    if (declared !== null && !this.types.has(name)) this.types.set(name, declared);
    if (!value) return;
    const values = this.plain(value);
    for (const key of [name, `${context.type ?? ''}.${name}`])
      if (!this.constants.has(key)) this.constants.set(key, values);
      else if (shape.more) this.constants.set(key, [...(this.constants.get(key) ?? []), ...values]);
    for (const part of this.run(value)) this.walk(part, context, { into: 'constant', name }, depth + 1);
  }

  /** The plain values that an expression may have: one, or one per branch. */
  private plain(node: Node): PlainValue[] {
    const run = this.run(node);
    const last = run.at(-1) ?? node;
    const span = { start: node.startIndex, end: last.endIndex };
    if (last !== node) {
      const called = run.some((part) => this.describe(part)?.is === 'call');
      const whole = node.parent?.text.slice(
        span.start - node.parent.startIndex,
        span.end - node.parent.startIndex,
      );
      const path = called ? '' : dottedName(whole ?? '');
      return [
        path === '' || path.startsWith('?') ? { is: 'other', ...span } : { is: 'name', name: path, ...span },
      ];
    }
    const shape = this.describe(node);
    if (shape?.is === 'string')
      return shape.value === null
        ? [{ is: 'other', ...span }]
        : [{ is: 'text', value: shape.value, ...span }];
    if (shape?.is === 'same') return this.plain(shape.node).map((value) => ({ ...value, ...span }));
    if (shape?.is === 'name') return [{ is: 'name', name: shape.name, ...span }];
    if (shape?.is === 'cases') return shape.cases.flatMap((part) => this.plain(part));
    if (shape?.is === 'branch')
      return [...shape.then, ...shape.otherwise].flatMap((part) =>
        this.language.continues?.has(part.type) ? [] : this.plain(unwrapped(part)),
      );
    if (shape?.is === 'call') {
      const [first] = shape.args;
      const inner =
        first && /(^|\.)(getString|getText|stringResource)$/.test(shape.name)
          ? dottedName(first.node.text)
          : '';
      return [
        inner.startsWith('R.string.') ? { is: 'name', name: inner, ...span } : { is: 'other', ...span },
      ];
    }
    const name = dottedName(node.text);
    const plain = name !== '' && !name.startsWith('?') && !shape;
    return [plain ? { is: 'name', name, ...span } : { is: 'other', ...span }];
  }

  /** A node with those beside it that go on with its expression. */
  private run(node: Node): Node[] {
    const nodes = [node];
    const { continues } = this.language;
    if (!continues) return nodes;
    for (let next = node.nextNamedSibling; next && continues.has(next.type); next = next.nextNamedSibling)
      nodes.push(next);
    return nodes;
  }

  /** `banner.release` with the type of `banner` in its place. */
  private typed(name: string): string {
    const dot = name.indexOf('.');
    if (dot < 0) return name;
    const type = this.types.get(name.slice(0, dot));
    return type === undefined ? name : `${dottedName(type)}${name.slice(dot)}`;
  }
}

/** What `HeronBanner.load(…)` makes is taken for a `HeronBanner`. */
function madeBy(name: string): string {
  return /^((?:\w+\.)*[A-Z]\w*)(?:\.[a-z_]\w*)+$/.exec(name)?.[1] ?? name;
}

function unwrapped(node: Node): Node {
  let inner = node;
  for (
    let depth = 0;
    depth < 6 && inner.namedChildCount === 1 && /body|block|statements/.test(inner.type);
    depth++
  )
    inner = inner.namedChild(0) ?? inner;
  return inner;
}

function conditionText(conditions: readonly Node[]): string {
  return conditions.map(({ text }) => text.replace(/\s+/g, ' ').slice(0, 200)).join(' && ');
}

/** A body without statements, or with nothing but comments and a call of what it overrides. */
function isEmpty(body: Node): boolean {
  const statements = named(body).flatMap((node) =>
    /^(statements|block)$/.test(node.type) ? named(node) : [node],
  );
  return statements.every(({ type, text }) => /comment/.test(type) || /^\[?super\b/.test(text.trim()));
}
