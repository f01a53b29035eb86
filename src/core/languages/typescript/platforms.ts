import type { Node } from '../../syntax/grammars.js';
import { named, type Shape } from '../../syntax/shape.js';
import { functions, nameOf, keyOf } from './functions.js';

/** The platforms that an object may hold values for, and what is for several of them. */
const platformKeys = new Set(['android', 'ios', 'native', 'default', 'web', 'windows', 'macos']);

/** The cases of an object that gives each platform its value; nothing for any other. */
export function casesOf(node: Node): Node[] | undefined {
  if (node.type !== 'object') return undefined;
  const entries = named(node).filter(({ type }) => type !== 'comment');
  const keys = entries.map((entry) => (entry.type === 'pair' ? keyOf(entry) : ''));
  const all = keys.length > 0 && keys.every((key) => platformKeys.has(key));
  return all && keys.some((key) => key === 'android' || key === 'ios') ? entries : undefined;
}

/** An object that gives each platform its value, as cases; null for any other. */
export function object(node: Node): Shape | null {
  const cases = casesOf(node);
  return cases ? { is: 'cases', cases, of: cases.map(keyOf), choice: selection(node) } : null;
}

/** `Platform.select({…})` around an object, with the non-null assertion after it. */
function selection(node: Node): { start: number; end: number } | undefined {
  const call = node.parent?.type === 'arguments' ? node.parent.parent : null;
  if (call?.type !== 'call_expression' || !isSelect(call)) return undefined;
  const whole = call.parent?.type === 'non_null_expression' ? call.parent : call;
  return { start: whole.startIndex, end: whole.endIndex };
}

/** Whether a call is `Platform.select(…)`. */
export function isSelect(call: Node): boolean {
  return /(^|\.)Platform\.select$/.test(nameOf(call.namedChild(0) ?? call));
}

/** A value under a key: of a platform, or a constant by the way that leads to it. */
export function pair(node: Node): Shape | null {
  const value = named(node)[1];
  const { parent } = node;
  if (!value || !parent) return null;
  const cases = casesOf(parent);
  if (cases) {
    const key = keyOf(node);
    const is = (name: string) => `Platform.OS === '${name}'`;
    const others = cases.map(keyOf).filter((name) => name !== 'default' && name !== 'native');
    const rest = others.length > 0 ? `!(${others.map(is).join(' || ')})` : 'true';
    // Where there is a value for all native platforms, the default is left for the web.
    const native = cases.some((one) => keyOf(one) === 'native');
    const text = key === 'native' ? rest : key === 'default' ? (native ? 'false' : rest) : is(key);
    return { is: 'branch', conditions: [], text, then: [value], otherwise: [] };
  }
  if (functions.has(value.type)) return null;
  const way = pathTo(node);
  return way === undefined
    ? null
    : { is: 'constant', name: way.name, type: null, value, more: way.byPlatform };
}

const maxWay = 6;

/** `units.footer` for what is under `footer` in the object that `units` names; platforms are left out. */
function pathTo(pair: Node): { name: string; byPlatform: boolean } | undefined {
  const keys = [keyOf(pair)];
  let byPlatform = false;
  let above = pair.parent;
  for (let depth = 0; depth < maxWay && above; depth++) {
    const holder = outermost(above).parent;
    if (holder?.type === 'pair') {
      if (holder.parent && casesOf(holder.parent)) byPlatform = true;
      else keys.unshift(keyOf(holder));
      above = holder.parent;
      continue;
    }
    if (holder?.type !== 'variable_declarator') return undefined;
    keys.unshift(named(holder)[0]?.text ?? '');
    return { name: keys.join('.'), byPlatform };
  }
  return undefined;
}

/** The expression that only wraps another one: `({…} as const)`. */
function outermost(node: Node): Node {
  let outer = node;
  while (outer.parent && /^(parenthesized|as|satisfies)_expression$/.test(outer.parent.type))
    outer = outer.parent;
  return outer;
}

/** `units[Platform.OS].footer` goes by the name `units.footer`. */
export function byPlatform(node: Node): Shape | null {
  if (!/\[\s*Platform\.OS\s*\]/.test(node.text) || node.text.length > 300) return null;
  const name = nameOf(node);
  return name === '' || name.startsWith('?') ? null : { is: 'name', name };
}
