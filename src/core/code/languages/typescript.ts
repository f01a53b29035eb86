import type { Node } from '../../syntax/grammars.js';
import { componentHeldAt } from '../views/typescript.js';
import {
  childOf,
  dottedName,
  named,
  type ArgumentNode,
  type CodeLanguage,
  type Shape,
} from '../../syntax/shape.js';

/** The platforms that an object may hold values for, and what stands for several of them. */
const platformKeys = new Set(['android', 'ios', 'native', 'default', 'web', 'windows', 'macos']);

/** What runs a function of its own accord, and how often it does so depends on the list that follows it. */
const effects = /^(?:React\.)?use(?:Layout|Insertion)?Effect$/;
const hook = /^(?:React\.)?use[A-Z]\w*$/;
const functions = new Set(['arrow_function', 'function_expression', 'function', 'generator_function']);

/** The name of a function that an effect gives back, which runs when its screen goes away. */
export const cleanUp = 'cleanup';

function describe(node: Node): Shape | null {
  switch (node.type) {
    case 'string':
    case 'template_string':
      return literal(node);
    case 'call_expression':
    case 'new_expression':
      return call(node);
    case 'jsx_opening_element':
    case 'jsx_self_closing_element':
      return element(node);
    case 'assignment_expression': {
      const [target, value] = named(node);
      if (!target || !value) return null;
      return functions.has(value.type) ? null : { is: 'assign', name: nameOf(target), value };
    }
    case 'class_declaration':
    case 'abstract_class_declaration':
    case 'class':
    case 'enum_declaration':
      return {
        is: 'type',
        name: childOf(node, 'type_identifier', 'identifier')?.text ?? '',
        bases: basesOf(node),
      };
    case 'function_declaration':
    case 'generator_function_declaration':
    case 'method_definition':
      return {
        is: 'method',
        name: childOf(node, 'identifier', 'property_identifier', 'private_property_identifier')?.text ?? '',
        body: childOf(node, 'statement_block') ?? null,
      };
    case 'arrow_function':
    case 'function_expression':
    case 'function':
    case 'generator_function':
      return callback(node);
    case 'variable_declarator':
      return variable(node);
    case 'public_field_definition':
    case 'field_definition':
    case 'enum_assignment': {
      const name = childOf(node, 'property_identifier', 'private_property_identifier')?.text;
      const value = named(node).findLast(({ type }) => !/property_identifier|annotation|modifier/.test(type));
      if (name === undefined || (value && functions.has(value.type))) return null;
      return { is: 'constant', name, type: typeOf(node), value: value ?? null };
    }
    case 'required_parameter':
    case 'optional_parameter': {
      const [name, ...rest] = named(node);
      if (name?.type !== 'identifier') return null;
      const value = rest.find(({ type }) => type !== 'type_annotation');
      return value
        ? { is: 'constant', name: name.text, type: typeOf(node), value }
        : { is: 'parameter', name: name.text, type: typeOf(node) };
    }
    case 'object':
      return object(node);
    case 'pair':
      return pair(node);
    case 'if_statement': {
      const [condition, then, otherwise] = named(node).filter(({ type }) => type !== 'comment');
      return {
        is: 'branch',
        conditions: condition ? [unbracketed(condition)] : [],
        then: then ? [then] : [],
        otherwise: otherwise ? [...named(otherwise)] : [],
      };
    }
    case 'ternary_expression': {
      const [condition, then, otherwise] = named(node).filter(({ type }) => type !== 'comment');
      return {
        is: 'branch',
        conditions: condition ? [unbracketed(condition)] : [],
        then: then ? [then] : [],
        otherwise: otherwise ? [otherwise] : [],
        choice: { start: node.startIndex, end: node.endIndex },
      };
    }
    case 'binary_expression': {
      const [left, right] = named(node);
      const and = node.children.some((child) => child?.type === '&&');
      return and && left && right && !isAsked(node)
        ? { is: 'branch', conditions: [left], then: [right], otherwise: [] }
        : null;
    }
    case 'switch_case':
    case 'switch_default':
      return switchCase(node);
    case 'parenthesized_expression':
    case 'await_expression':
    case 'non_null_expression':
    case 'as_expression':
    case 'satisfies_expression': {
      const [inner] = named(node);
      return inner ? { is: 'same', node: inner } : null;
    }
    case 'subscript_expression':
    case 'member_expression':
      return byPlatform(node);
    default:
      return null;
  }
}

const exits = new Set(['return_statement', 'throw_statement', 'break_statement', 'continue_statement']);

/** TypeScript, as the grammar of tree-sitter-typescript names its nodes. */
export const typescript: CodeLanguage = { id: 'typescript', describe, exits };

/** TypeScript with elements, and JavaScript: the same nodes, read by the grammar that knows elements. */
export const tsx: CodeLanguage = {
  id: 'typescript',
  grammar: 'tsx',
  describe,
  exits,
  heldAt: componentHeldAt,
};

function literal(node: Node): Shape {
  const plain = named(node).every(({ type }) => type === 'string_fragment' || type === 'escape_sequence');
  const start = node.startIndex + 1;
  const end = Math.max(start, node.endIndex - 1);
  return { is: 'string', value: plain ? node.text.slice(1, -1) : null, start, end };
}

/** The name of what is called or assigned: `banner.current?.release` is `banner.release`. */
function nameOf(node: Node): string {
  return dottedName(node.text.replace(/\[\s*Platform\.OS\s*\]/g, '')).replace(/\.current(?=\.|$)/g, '');
}

function call(node: Node): Shape | null {
  const callee = named(node).find(({ type }) => type !== 'comment');
  const list = childOf(node, 'arguments');
  if (!callee || !list) return null;
  const name = nameOf(callee);
  const given = named(list).filter(({ type }) => type !== 'comment');
  const [first] = given;
  if (isSelect(node) && first && casesOf(first)) return { is: 'same', node: first };
  const args = given.map((value): ArgumentNode => ({ label: null, node: value }));
  return {
    is: 'call',
    name,
    args: [...args, ...given.flatMap((value) => (value.type === 'object' ? labelled(value) : []))],
    rest: /identifier$/.test(callee.type) || callee.type === 'import' ? [] : [callee],
  };
}

/** What an object gives under names: arguments as much as those by position. */
function labelled(object: Node): ArgumentNode[] {
  return named(object).flatMap((entry): ArgumentNode[] => {
    if (entry.type === 'shorthand_property_identifier')
      return [{ label: entry.text, node: entry, within: true }];
    const [, value] = named(entry);
    return entry.type === 'pair' && value ? [{ label: keyOf(entry), node: value, within: true }] : [];
  });
}

/** `<Banner unit={…} />` makes a Banner, as a call would. */
function element(node: Node): Shape {
  const [tag] = named(node);
  const args = named(node).flatMap((attribute): ArgumentNode[] => {
    if (attribute.type !== 'jsx_attribute') return [];
    const [name, value] = named(attribute);
    const inner = value?.type === 'jsx_expression' ? named(value)[0] : value;
    return name && inner ? [{ label: name.text, node: inner }] : [];
  });
  const spread = named(node).filter(({ type }) => type === 'jsx_expression');
  return { is: 'call', name: tag ? nameOf(tag) : '', args, rest: spread };
}

function basesOf(node: Node): string[] {
  const heritage = childOf(node, 'class_heritage');
  if (!heritage) return [];
  const clauses = named(heritage).flatMap((part) => (/clause$/.test(part.type) ? named(part) : [part]));
  return clauses.filter(({ type }) => type !== 'type_arguments').map(({ text }) => text.replace(/<.*$/s, ''));
}

/** The first type that is named, of `HeronBanner | null` as much as of `HeronBanner`. */
function typeOf(node: Node): string | null {
  const annotation = childOf(node, 'type_annotation', 'type_arguments');
  if (!annotation) return null;
  return /[A-Z][\w$]*(?:\.[A-Z][\w$]*)*/.exec(annotation.text)?.[0] ?? null;
}

function variable(node: Node): Shape | null {
  const [name, ...rest] = named(node).filter(({ type }) => type !== 'comment');
  const given = rest.findLast(({ type }) => type !== 'type_annotation');
  const value = given && unwrapped(given);
  if (!name || (value && (functions.has(value.type) || wrapsFunction(value)))) return null;
  const state = value?.type === 'call_expression' && hook.test(named(value)[0]?.text ?? '');
  const type = typeOf(node) ?? (state ? typeOf(value) : null);
  if (name.type === 'array_pattern') {
    const [first] = named(name);
    return first ? { is: 'constant', name: first.text, type, value: value ?? null } : null;
  }
  if (name.type !== 'identifier') return null;
  return { is: 'constant', name: name.text, type, value: value ?? null };
}

/** `useCallback(() => …)`, `memo(() => …)`: the function is what the name stands for. */
function wrapsFunction(node: Node): boolean {
  const [callee] = named(node);
  const list = childOf(node, 'arguments');
  const [first] = list ? named(list) : [];
  return (
    node.type === 'call_expression' &&
    /^(?:React\.)?(?:useCallback|memo|forwardRef)$/.test(callee?.text ?? '') &&
    first !== undefined &&
    functions.has(first.type)
  );
}

/**
 * What a function is called: by the variable, the field, the key or the attribute that it is given to, by the hook
 * that runs it. One without a name runs where it stands, and so does an effect that has no list of what it waits
 * for: it runs after each drawing.
 */
function callback(node: Node): Shape {
  const body = childOf(node, 'statement_block') ?? named(node).at(-1) ?? null;
  const own = node.type === 'arrow_function' ? undefined : childOf(node, 'identifier')?.text;
  const name = own ?? givenName(node);
  return name === undefined ? { is: 'lambda' } : { is: 'method', name, body };
}

function givenName(node: Node): string | undefined {
  const { parent } = node;
  switch (parent?.type) {
    case 'variable_declarator':
    case 'public_field_definition':
    case 'field_definition':
      return named(parent)[0]?.text;
    case 'pair':
      return keyOf(parent);
    case 'assignment_expression':
      return nameOf(named(parent)[0] ?? parent)
        .split('.')
        .at(-1);
    case 'jsx_expression':
      return parent.parent?.type === 'jsx_attribute' ? named(parent.parent)[0]?.text : undefined;
    case 'return_statement':
      return isEffect(parent.parent?.parent ?? null) ? cleanUp : undefined;
    case 'arrow_function':
      return isEffect(parent) ? cleanUp : undefined;
    case 'arguments':
      return argumentName(node, parent);
    default:
      return undefined;
  }
}

/** Whether a function is what an effect runs. */
function isEffect(node: Node | null): boolean {
  const list = node?.parent;
  if (!node || !functions.has(node.type) || list?.type !== 'arguments') return false;
  return /use\w*Effect$/.test(list.parent?.namedChild(0)?.text ?? '') || isCalledBack(list);
}

/** `useFocusEffect(useCallback(() => …, []))`. */
function isCalledBack(list: Node): boolean {
  const around = list.parent?.parent;
  return (
    /useCallback$/.test(list.parent?.namedChild(0)?.text ?? '') &&
    around?.type === 'arguments' &&
    /use\w*Effect$/.test(around.parent?.namedChild(0)?.text ?? '')
  );
}

function argumentName(node: Node, list: Node): string | undefined {
  const call = list.parent;
  const callee = call?.namedChild(0)?.text ?? '';
  if (!call || named(list)[0]?.id !== node.id) return undefined;
  if (/^(?:React\.)?(?:useCallback|memo|forwardRef)$/.test(callee)) {
    const above = call.parent;
    if (above?.type === 'variable_declarator') return named(above)[0]?.text;
    return above?.type === 'arguments' ? above.parent?.namedChild(0)?.text : undefined;
  }
  if (effects.test(callee) && named(list).length < 2) return undefined;
  return hook.test(callee) ? callee.replace(/^React\./, '') : undefined;
}

/** The cases of an object that gives each platform its value; nothing for any other. */
function casesOf(node: Node): Node[] | undefined {
  if (node.type !== 'object') return undefined;
  const entries = named(node).filter(({ type }) => type !== 'comment');
  const keys = entries.map((entry) => (entry.type === 'pair' ? keyOf(entry) : ''));
  const all = keys.length > 0 && keys.every((key) => platformKeys.has(key));
  return all && keys.some((key) => key === 'android' || key === 'ios') ? entries : undefined;
}

function object(node: Node): Shape | null {
  const cases = casesOf(node);
  return cases ? { is: 'cases', cases, of: cases.map(keyOf), choice: selection(node) } : null;
}

/** `Platform.select({…})` around an object, with the sign behind it that the value is there. */
function selection(node: Node): { start: number; end: number } | undefined {
  const call = node.parent?.type === 'arguments' ? node.parent.parent : null;
  if (call?.type !== 'call_expression' || !isSelect(call)) return undefined;
  const whole = call.parent?.type === 'non_null_expression' ? call.parent : call;
  return { start: whole.startIndex, end: whole.endIndex };
}

function isSelect(call: Node): boolean {
  return /(^|\.)Platform\.select$/.test(nameOf(call.namedChild(0) ?? call));
}

function keyOf(pair: Node): string {
  const [key] = named(pair);
  return key?.type === 'string' ? key.text.slice(1, -1) : (key?.text ?? '');
}

/** A value under a key: of a platform, or a constant by the way that leads to it. */
function pair(node: Node): Shape | null {
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
  const way = wayTo(node);
  return way === undefined
    ? null
    : { is: 'constant', name: way.name, type: null, value, more: way.byPlatform };
}

const maxWay = 6;

/** `units.footer` for what stands under `footer` in the object that `units` names; platforms are left out. */
function wayTo(pair: Node): { name: string; byPlatform: boolean } | undefined {
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

function unwrapped(node: Node): Node {
  let inner = node;
  while (/^(parenthesized|as|satisfies|await|non_null)_expression$/.test(inner.type) && inner.namedChild(0))
    inner = inner.namedChild(0) ?? inner;
  return inner;
}

function unbracketed(node: Node): Node {
  return node.type === 'parenthesized_expression' ? (named(node)[0] ?? node) : node;
}

/** Whether a comparison is the question of an `if` or of a choice, and not what follows from one. */
function isAsked(node: Node): boolean {
  let inner = node;
  while (inner.parent && /^(binary|unary|parenthesized)_expression$/.test(inner.parent.type))
    inner = inner.parent;
  const { parent } = inner;
  return (
    (parent?.type === 'if_statement' || parent?.type === 'ternary_expression') &&
    named(parent)[0]?.id === inner.id
  );
}

/** A case runs where what is switched on equals its value; the default where no other case does. */
function switchCase(node: Node): Shape | null {
  const whole = node.parent?.parent;
  const subject = whole && childOf(whole, 'parenthesized_expression')?.text.slice(1, -1).trim();
  if (subject === undefined || !node.parent) return null;
  const is = (value: string) => `${subject} === ${value}`;
  const all = named(node.parent);
  const others = all.flatMap((one) => (one.type === 'switch_case' ? [named(one)[0]?.text ?? ''] : []));
  const [value, ...statements] = named(node);
  if (node.type === 'switch_default')
    return {
      is: 'branch',
      conditions: [],
      text: `!(${others.map(is).join(' || ')})`,
      then: [...named(node)],
      otherwise: [],
    };
  // Cases without statements of their own share those of the next one.
  const at = all.findIndex(({ id }) => id === node.id);
  const shared = [value?.text ?? ''];
  for (let before = at - 1; before >= 0 && named(all[before] ?? node).length === 1; before--)
    shared.unshift(named(all[before] ?? node)[0]?.text ?? '');
  return { is: 'branch', conditions: [], text: shared.map(is).join(' || '), then: statements, otherwise: [] };
}

/** `units[Platform.OS].footer` goes by the name `units.footer`. */
function byPlatform(node: Node): Shape | null {
  if (!/\[\s*Platform\.OS\s*\]/.test(node.text) || node.text.length > 300) return null;
  const name = nameOf(node);
  return name === '' || name.startsWith('?') ? null : { is: 'name', name };
}
