import type { Span } from '../../text/problem.js';
import type { ConfigNode } from './model.js';

/** A value as a build would see it, with the file and the place that give it. */
export type ConfigValue = Span & {
  path: string;
  /** The variable that it came from, where it came from one. */
  variable?: string;
} & (
    | { is: 'text'; value: string }
    | { is: 'plain'; value: number | boolean | null }
    | { is: 'list'; items: ConfigValue[] }
    /** `rest` is what may hold further entries, and cannot be settled. */
    | { is: 'object'; entries: Map<string, ConfigValue>; rest?: OpenValue }
    | OpenPart
  );

/** What reading cannot settle, with the reason; `unset` where it is a variable that no build profile sets. */
interface OpenPart {
  is: 'open';
  reason: string;
  unset?: boolean;
}
type OpenValue = Span & { path: string } & OpenPart;

/** What a configuration is computed with. */
export interface ConfigSetting {
  /** The file of the configuration. */
  path: string;
  /** What a variable is set to; undefined where it is not set, null where that cannot be determined. */
  variable: (name: string) => string | undefined | null;
  /** The static configuration that a script is given. */
  given?: ConfigValue | undefined;
}

/** How many values a configuration may come to, how deep they may lie, and how long a text may become. */
const maxSteps = 50_000;
const maxDepth = 300;
const maxText = 10_000;

/** Works a configuration out. What depends on something unknown is open, and the rest is given all the same. */
export function resolveConfig(node: ConfigNode, setting: ConfigSetting): ConfigValue {
  return new Resolver(setting).value(node);
}

class Resolver {
  private steps = 0;
  private depth = 0;

  constructor(private readonly setting: ConfigSetting) {}

  value(node: ConfigNode): ConfigValue {
    if (++this.steps > maxSteps || this.depth > maxDepth)
      return this.open(node, 'the configuration has too many possible values');
    this.depth++;
    const value = this.inner(node);
    this.depth--;
    return value;
  }

  private inner(node: ConfigNode): ConfigValue {
    const span = this.spanOf(node);
    switch (node.is) {
      case 'text':
        return { is: 'text', value: node.value, ...span };
      case 'plain':
        return { is: 'plain', value: node.value, ...span };
      case 'open':
        return this.open(node, `it is computed when the configuration runs: ${node.written}`);
      case 'spread':
        return this.value(node.of);
      case 'given':
        return this.setting.given ?? { is: 'plain', value: null, ...span };
      case 'list':
        return { is: 'list', items: node.items.flatMap((item) => this.items(item)), ...span };
      case 'object':
        return this.object(node);
      case 'variable': {
        const value = this.setting.variable(node.name);
        if (typeof value === 'string') return { is: 'text', value, variable: node.name, ...span };
        const why = value === null ? 'is set outside the files of the tree' : 'is set by no build profile';
        return { ...this.open(node, `the variable ${node.name} ${why}`), unset: value === undefined };
      }
      case 'choice': {
        const holds = truth(this.value(node.condition));
        if (holds === undefined) return this.open(node, `it depends on ${written(node.condition, 0)}`);
        return this.value(holds ? node.then : node.otherwise);
      }
      case 'either':
        return this.either(node);
      case 'not': {
        const holds = truth(this.value(node.of));
        return holds === undefined ? this.depends(node) : { is: 'plain', value: !holds, ...span };
      }
      case 'compared': {
        const same = isSame(this.value(node.left), this.value(node.right));
        if (same === undefined) return this.depends(node);
        return { is: 'plain', value: same === (node.sign === '==='), ...span };
      }
      case 'joined':
        return this.joined(node);
      case 'asked':
        return this.asked(node);
      case 'member':
        return this.member(node);
      case 'with':
        return this.changed(this.value(node.of), node.way, this.value(node.value));
    }
  }

  private spanOf({ start, end }: ConfigNode) {
    return { path: this.setting.path, start, end };
  }

  private open(node: ConfigNode, reason: string): OpenValue {
    return { is: 'open', reason, ...this.spanOf(node) };
  }

  private depends(node: ConfigNode): OpenValue {
    return this.open(node, `it depends on ${written(node, 0)}`);
  }

  private items(item: ConfigNode): ConfigValue[] {
    if (item.is !== 'spread') return [this.value(item)];
    const spread = this.value(item.of);
    if (spread.is === 'list') this.steps += spread.items.length;
    return spread.is === 'list' ? spread.items : spread.is === 'open' ? [spread] : [];
  }

  private object(node: ConfigNode & { is: 'object' }): ConfigValue {
    const entries = new Map<string, ConfigValue>();
    let rest: OpenValue | undefined;
    for (const { key, value } of node.entries) {
      const held = this.value(value);
      if (value.is !== 'spread') entries.set(key, held);
      else if (held.is === 'object') {
        this.steps += held.entries.size;
        for (const [name, one] of held.entries) entries.set(name, one);
        rest ??= held.rest;
      } else if (held.is === 'open' && !held.unset) rest ??= held;
    }
    return { is: 'object', entries, ...(rest && { rest }), ...this.spanOf(node) };
  }

  private either({ sign, left, right }: ConfigNode & { is: 'either' }): ConfigValue {
    const first = this.value(left);
    if (sign === '??') {
      const none = isNothing(first);
      return none === undefined ? first : none ? this.value(right) : first;
    }
    const holds = truth(first);
    if (holds === undefined) return first;
    return holds === (sign === '||') ? first : this.value(right);
  }

  private joined(node: ConfigNode & { is: 'joined' }): ConfigValue {
    let text = '';
    let isText = node.parts.some(({ is }) => is === 'text');
    for (const part of node.parts) {
      const held = this.value(part);
      if (held.is === 'open') return { ...held, ...this.spanOf(node) };
      if (held.is === 'list' || held.is === 'object') return this.depends(node);
      isText ||= held.is === 'text';
      text += String(held.value);
      if (text.length > maxText) return this.open(node, 'the text would be too long');
    }
    return isText ? { is: 'text', value: text, ...this.spanOf(node) } : this.depends(node);
  }

  private asked(node: ConfigNode & { is: 'asked' }): ConfigValue {
    const of = this.value(node.of);
    const args = node.args.map((one) => this.value(one));
    const open = [of, ...args].find(({ is }) => is === 'open');
    if (open?.is === 'open') return this.depends(node);
    const span = this.spanOf(node);
    const [first] = args;
    const part = first?.is === 'text' ? first.value : undefined;
    if (of.is === 'list' && node.method === 'includes' && first) {
      const found = of.items.map((item) => isSame(item, first));
      if (found.includes(true)) return { is: 'plain', value: true, ...span };
      return found.includes(undefined) ? this.depends(node) : { is: 'plain', value: false, ...span };
    }
    if (of.is !== 'text') return this.depends(node);
    const text = of.value;
    if (part !== undefined && args.length === 1) {
      if (node.method === 'includes') return { is: 'plain', value: text.includes(part), ...span };
      if (node.method === 'startsWith') return { is: 'plain', value: text.startsWith(part), ...span };
      if (node.method === 'endsWith') return { is: 'plain', value: text.endsWith(part), ...span };
    }
    if (args.length > 0) return this.depends(node);
    if (node.method === 'toLowerCase') return { is: 'text', value: text.toLowerCase(), ...span };
    if (node.method === 'toUpperCase') return { is: 'text', value: text.toUpperCase(), ...span };
    if (node.method === 'trim') return { is: 'text', value: text.trim(), ...span };
    return node.method === 'toString' ? of : this.depends(node);
  }

  private member(node: ConfigNode & { is: 'member' }): ConfigValue {
    const [of, key] = [this.value(node.of), this.value(node.key)];
    const nothing: ConfigValue = { is: 'plain', value: null, ...this.spanOf(node) };
    if (of.is === 'open') return of;
    if (key.is !== 'text' && key.is !== 'plain') return key.is === 'open' ? key : this.depends(node);
    if (of.is === 'object') return of.entries.get(String(key.value)) ?? of.rest ?? nothing;
    if (of.is === 'list' && typeof key.value === 'number') return of.items[key.value] ?? nothing;
    return of.is === 'plain' && of.value === null ? nothing : this.depends(node);
  }

  /** An object with another value at a way of keys. */
  private changed(of: ConfigValue, way: readonly string[], value: ConfigValue): ConfigValue {
    const [key, ...further] = way;
    if (key === undefined) return value;
    if (of.is === 'open') return of;
    const { path, start, end } = value;
    const entries = new Map(of.is === 'object' ? of.entries : []);
    this.steps += entries.size;
    const inner = entries.get(key) ?? { is: 'plain' as const, value: null, path, start, end };
    entries.set(key, this.changed(inner, further, value));
    return of.is === 'object' ? { ...of, entries } : { is: 'object', entries, path, start, end };
  }
}

/** Whether a value holds in a condition; undefined where that cannot be determined. */
function truth(value: ConfigValue): boolean | undefined {
  if (value.is === 'open') return value.unset ? false : undefined;
  return value.is === 'text' || value.is === 'plain' ? Boolean(value.value) : true;
}

/** Whether a value is null or undefined, which are one here. */
function isNothing(value: ConfigValue): boolean | undefined {
  if (value.is === 'open') return value.unset ? true : undefined;
  return value.is === 'plain' && value.value === null;
}

function isSame(left: ConfigValue, right: ConfigValue): boolean | undefined {
  const [none, other] = [isNothing(left), isNothing(right)];
  if (none === undefined || other === undefined) return undefined;
  if (none || other) return none === other;
  if (left.is === 'text' || left.is === 'plain')
    return (right.is === 'text' || right.is === 'plain') && left.value === right.value;
  return undefined;
}

/** A condition as one would write it, what names stand for in their places. */
function written(node: ConfigNode, depth: number): string {
  const inner = (one: ConfigNode) => written(one, depth + 1);
  if (depth > 6) return '…';
  switch (node.is) {
    case 'text':
      return `'${node.value.slice(0, 60)}'`;
    case 'plain':
      return String(node.value);
    case 'variable':
      return `process.env.${node.name}`;
    case 'given':
      return 'config';
    case 'not':
      return `!${node.of.is === 'variable' ? inner(node.of) : `(${inner(node.of)})`}`;
    case 'compared':
    case 'either':
      return `${inner(node.left)} ${node.sign} ${inner(node.right)}`;
    case 'member':
      return node.key.is === 'text'
        ? `${inner(node.of)}.${node.key.value}`
        : `${inner(node.of)}[${inner(node.key)}]`;
    case 'asked':
      return `${inner(node.of)}.${node.method}(${node.args.map(inner).join(', ')})`;
    case 'joined':
      return node.parts.map(inner).join(' + ');
    case 'choice':
      return `${inner(node.condition)} ? ${inner(node.then)} : ${inner(node.otherwise)}`;
    case 'list':
      return `[${node.items.slice(0, 5).map(inner).join(', ')}]`;
    case 'open':
      return node.written;
    default:
      return '…';
  }
}

/** The value that a way of keys leads to; undefined where there is none. */
export function configValueAt(
  value: ConfigValue | undefined,
  way: readonly string[],
): ConfigValue | undefined {
  let at = value;
  for (const step of way) {
    if (at?.is === 'open') return at;
    at = at?.is === 'object' ? (at.entries.get(step) ?? at.rest) : undefined;
  }
  return at;
}

/** Every part of a value that reading cannot settle. */
export function openParts(value: ConfigValue): (ConfigValue & { is: 'open' })[] {
  if (value.is === 'open') return [value];
  if (value.is === 'list') return value.items.flatMap(openParts);
  if (value.is !== 'object') return [];
  return [...(value.rest ? [value.rest] : []), ...[...value.entries.values()].flatMap(openParts)];
}
