import { CallChains, madeBy, type CallShape } from './call-chains.js';
import { underCall, underNode } from './loops.js';
import { NamedTypes } from './named-types.js';
import { PlainValues } from './plain-values.js';
import { conditionOnOneLine } from '../syntax/conditions.js';
import type { Node } from '../syntax/grammars.js';
import { named, type ArgumentNode, type CodeLanguage, type Shape } from '../syntax/shape.js';
import type {
  SourceReading,
  PlainValue,
  SourceString,
  SourceCall,
  SourceMethod,
  SourceType,
  SourceHolder,
  SourceStretch,
  CodeContext,
  Flow,
  Condition,
} from './source-reading.js';

const maxDepth = 400;

const maxItems = 20_000;

/** What may give a name to something that has one already. */
const namesAnew: ReadonlySet<Shape['is']> = new Set(['branch', 'guard', 'call', 'constant']);

/** Reads one syntax tree: strings, calls, methods, types, choices and constants, each with what surrounds it. */
export class SourceReader {
  private readonly strings: SourceString[] = [];
  private readonly calls: SourceCall[] = [];
  private readonly methods: SourceMethod[] = [];
  private readonly classes: SourceType[] = [];
  private readonly choices: SourceReading['choices'] = [];
  private readonly constants = new Map<string, PlainValue[]>();
  private readonly results = new Map<string, PlainValue[]>();
  private readonly types = new NamedTypes();
  private readonly stretches: SourceStretch[] = [];
  private readonly holders: SourceHolder[] = [];

  private readonly values: PlainValues;
  private readonly chains: CallChains;

  constructor(private readonly language: CodeLanguage) {
    this.values = new PlainValues(language);
    this.chains = new CallChains((node) => this.values.describe(node));
  }

  read(root: Node): SourceReading {
    this.walk(root, { type: null, method: null, methods: [], conditions: [] }, null, 0);
    const { strings, methods, classes: types, choices, constants, results } = this;
    const variables = this.types.declared;
    const { stretches, holders } = this;
    const calls = this.calls.map(({ receiver, ...call }) => ({
      ...call,
      name: this.types.typed(call.name),
      // The dot makes it the name of something that has a type of its own.
      ...(receiver === undefined ? {} : { receiver: this.types.typed(`${receiver}.`).slice(0, -1) }),
    }));
    return { strings, calls, methods, types, choices, constants, results, variables, stretches, holders };
  }

  private walk(node: Node, around: CodeContext, flow: Flow | null, depth: number): void {
    if (depth > maxDepth || this.calls.length + this.strings.length > maxItems) return;
    const shape = this.values.describe(node);
    const context = underNode(around, node.type);
    if (!shape) return this.walkAll(named(node), context, flow, depth);
    this.take(node, shape, { context, flow, depth });
  }

  private take(node: Node, shape: Shape, at: Walk): void {
    const { context, flow, depth } = at;
    if (namesAnew.has(shape.is))
      for (const [name, other] of this.language.aliasesIn?.(node) ?? []) this.types.alias(name, other);
    switch (shape.is) {
      case 'string': {
        const { value, start, end } = shape;
        if (value !== null) this.strings.push({ value, start, end, flow, context });
        else this.walkAll(named(node), context, null, depth);
        return;
      }
      case 'call':
        return this.call(node, shape, at);
      case 'assign':
        return this.assign(node, shape, at);
      case 'constant':
        return this.constant(node, shape, context, depth);
      case 'parameter':
        if (shape.type !== null) this.types.put(shape.name, shape.type);
        return;
      case 'type': {
        const { name, bases } = shape;
        this.classes.push({ name, bases, start: node.startIndex, end: node.endIndex });
        this.hold(node, 'name', name, true);
        return this.walkAll(named(node), { ...context, type: name, method: null }, null, depth);
      }
      case 'method':
        return this.method(node, shape, at);
      case 'lambda':
      case 'name':
        return this.walkAll(named(node), context, null, depth);
      case 'branch':
        return this.branch(node, shape, at);
      case 'cases':
        return this.cases(node, shape, at);
      case 'same':
        return this.walk(shape.node, context, flow, depth + 1);
      case 'guard':
        return this.guard(shape, at);
    }
  }

  private assign(node: Node, { name, value }: Shape & { is: 'assign' }, { context, depth }: Walk): void {
    const values = this.values.of(value);
    const { startIndex: start, endIndex: end } = node;
    const held = this.receiverOf(name, context);
    this.calls.push({ name, arguments: [{ label: null, values }], context, ...held, start, end });
    for (const part of this.values.run(value))
      this.walk(part, context, { into: 'constant', name }, depth + 1);
  }

  private method(node: Node, shape: Shape & { is: 'method' }, { context, depth }: Walk): void {
    const { name, body, gives } = shape;
    const { startIndex: start, endIndex: end } = node;
    const results = body ? this.values.returned(body) : [];
    for (const key of results.length > 0 ? [name, `${context.type ?? ''}.${name}`] : []) {
      const known = this.results.get(key);
      if (known) known.push(...results);
      else this.results.set(key, [...results]);
    }
    if (results.length > 0) this.hold(node, 'name', name);
    const flow: Flow | null = gives ? { into: 'constant', name } : null;
    this.methods.push({ name, context, empty: body === null || isEmpty(body), start, end });
    // A callback that is written inside another method runs later: what held there need not hold then.
    const inside = { ...context, method: name, methods: [...context.methods, name], conditions: [] };
    this.walkAll(named(node), inside, flow, depth);
  }

  private branch(node: Node, shape: Shape & { is: 'branch' }, { context, flow, depth }: Walk): void {
    if (shape.choice) this.choices.push({ ...shape.choice, values: this.values.of(node) });
    const text = shape.text ?? conditionText(shape.conditions);
    for (const condition of shape.conditions) this.walk(condition, context, null, depth + 1);
    for (const holds of [true, false])
      for (const part of holds ? shape.then : shape.otherwise) {
        this.stretches.push({ start: part.startIndex, end: part.endIndex, condition: { text, holds } });
        this.walk(part, under(context, { text, holds }), flow, depth + 1);
      }
  }

  private cases(
    node: Node,
    { choice, cases, of }: Shape & { is: 'cases' },
    { context, flow, depth }: Walk,
  ): void {
    this.choices.push({
      start: choice?.start ?? node.startIndex,
      end: choice?.end ?? node.endIndex,
      values: this.values.of(node),
      cases: of,
      isValue: choice !== undefined,
    });
    for (const part of cases) this.walk(part, context, flow, depth + 1);
  }

  private guard({ conditions, body }: Shape & { is: 'guard' }, { context, depth }: Walk): void {
    for (const condition of conditions) this.walk(condition, context, null, depth + 1);
    const missed = under(context, { text: conditionText(conditions), holds: false });
    for (const part of body) this.walk(part, missed, null, depth + 1);
  }

  /** Statements in their order: after `if (!ready) return` and after a guard, what follows knows the condition. */
  private walkAll(nodes: readonly Node[], context: CodeContext, flow: Flow | null, depth: number): void {
    let current = context;
    for (const node of nodes) {
      this.walk(node, current, flow, depth + 1);
      const left = this.leftBehind(node);
      if (!left) continue;
      current = under(current, left);
      const end = nodes.at(-1)?.endIndex ?? node.endIndex;
      this.stretches.push({ start: node.endIndex, end, condition: left });
    }
  }

  private leftBehind(node: Node): Condition | null {
    const inner = node.type === 'expression_statement' ? (node.namedChild(0) ?? node) : node;
    const shape = this.values.describe(inner);
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

  private call(node: Node, shape: CallShape, { context, flow, depth }: Walk): void {
    const { args, rest, start } = shape;
    const name = this.chains.nameOf(shape);
    const inside = underCall(context, name);
    this.calls.push({
      name,
      arguments: args.map(({ label, node: value }) => ({ label, values: this.values.of(value) })),
      context,
      ...this.receiverOf(name, context),
      start: start ?? node.startIndex,
      end: node.endIndex,
      heldAt: /^[A-Z]\w*$/.test(name) ? this.language.heldAt?.(node) : undefined,
    });
    for (const part of rest) {
      const receiver = this.language.receiverIn?.(part, { name, args });
      this.walk(part, receiver === undefined ? inside : { ...inside, receiver }, null, depth + 1);
    }
    this.handedOver(args, context);
    const collects = /(^|\.)(listOf|setOf|arrayOf|asList|of)$/.test(name);
    args.forEach(({ label, node: value, within }, index) => {
      if (within) return;
      const into: Flow = collects && flow ? flow : { into: 'argument', of: name, at: label ?? index };
      for (const part of this.values.run(value)) this.walk(part, inside, into, depth + 1);
    });
  }

  /** What a name without a dot may belong to. */
  private receiverOf(name: string, { receiver }: CodeContext): { receiver?: string } {
    return receiver === undefined || name.includes('.') ? {} : { receiver };
  }

  /** A method that is handed over by its name answers to the label that it is given under. */
  private handedOver(args: readonly ArgumentNode[], context: CodeContext): void {
    if (this.language.labelsAreNames) return;
    for (const { label, node } of args) {
      const [value, ...more] = label === null ? [] : this.values.of(node);
      if (label === null || value?.is !== 'name' || more.length > 0 || value.name === 'null') continue;
      const { startIndex: start, endIndex: end } = node;
      this.methods.push({ name: label, context, empty: false, start, end });
    }
  }

  private constant(node: Node, shape: Shape & { is: 'constant' }, context: CodeContext, depth: number): void {
    const { name, type, value } = shape;
    const last = value ? (this.values.run(value).at(-1) ?? value) : null;
    const shown = last ? this.values.describe(last) : null;
    const made = shown?.is === 'same' ? this.values.describe(shown.node) : shown;
    const declared = type ?? (made?.is === 'call' ? (made.makes ?? madeBy(this.chains.nameOf(made))) : null);
    if (declared !== null) this.types.declare(name, declared);
    if (!value) return this.walkAll(named(node), context, null, depth);
    const values = this.values.of(value);
    const [same, ...different] = values.filter(({ is }) => is !== 'other');
    if (declared === null && same?.is === 'name' && different.length === 0) this.types.alias(name, same.name);
    const isKey = this.language.pairs?.(node).length === 1;
    if (!isKey) this.hold(node, 'name', name);
    const entries = isKey ? [] : this.values.entries(value);
    for (const { key, node: inner } of entries) this.hold(inner, 'key', key);
    for (const { way, values: inner } of entries)
      for (const key of [`${name}.${way}`, `${context.type ?? ''}.${name}.${way}`])
        if (!this.constants.has(key)) this.constants.set(key, inner);
    for (const key of [name, `${context.type ?? ''}.${name}`])
      if (!this.constants.has(key)) this.constants.set(key, values);
      else if (shape.more) this.constants.set(key, [...(this.constants.get(key) ?? []), ...values]);
    for (const part of this.values.run(value))
      this.walk(part, context, { into: 'constant', name }, depth + 1);
  }

  private hold(node: Node, is: SourceHolder['is'], name: string, isType = false): void {
    const { startIndex: start, endIndex: end } = node;
    this.holders.push({ is, name, start, end, ...(isType && { isType }) });
  }
}

/** Where a walk is: what surrounds the node, and what its value goes into. */
interface Walk {
  context: CodeContext;
  flow: Flow | null;
  depth: number;
}

function under(context: CodeContext, condition: Condition): CodeContext {
  return { ...context, conditions: [...context.conditions, condition] };
}

function conditionText(conditions: readonly Node[]): string {
  const texts = conditions.map(({ text }) => text);
  const joint = texts.map((text) => (texts.length > 1 && text.includes('||') ? `(${text})` : text));
  return conditionOnOneLine(joint.join(' && '));
}

/** A body without statements, or with only comments and a call of the overridden method. */
function isEmpty(body: Node): boolean {
  const statements = named(body).flatMap((node) =>
    /^(statements|block)$/.test(node.type) ? named(node) : [node],
  );
  return statements.every(({ type, text }) => /comment/.test(type) || /^\[?super\b/.test(text.trim()));
}
