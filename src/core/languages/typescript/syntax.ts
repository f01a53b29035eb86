import type { Node } from '../../syntax/grammars.js';
import { componentHeldAt } from './views.js';
import {
  childOf,
  named,
  pairwise,
  type ArgumentNode,
  type CodeLanguage,
  type Shape,
  describedBy,
} from '../../syntax/shape.js';
import { functions, nameOf, callback, keyOf, wrapsFunction, hook } from './functions.js';
import { object, pair, byPlatform, isSelect, casesOf } from './platforms.js';

const describe = describedBy([
  [['string', 'template_string'], literal],
  [['call_expression', 'new_expression'], call],
  [['jsx_opening_element', 'jsx_self_closing_element'], element],
  [
    ['assignment_expression'],
    (node) => {
      const [target, value] = named(node);
      if (!target || !value) return null;
      return functions.has(value.type) ? null : { is: 'assign', name: nameOf(target), value };
    },
  ],
  [
    ['class_declaration', 'abstract_class_declaration', 'class', 'enum_declaration'],
    (node) => ({
      is: 'type',
      name: childOf(node, 'type_identifier', 'identifier')?.text ?? '',
      bases: basesOf(node),
    }),
  ],
  [
    ['function_declaration', 'generator_function_declaration', 'method_definition'],
    (node) => ({
      is: 'method',
      name: childOf(node, 'identifier', 'property_identifier', 'private_property_identifier')?.text ?? '',
      body: childOf(node, 'statement_block') ?? null,
    }),
  ],
  [['arrow_function', 'function_expression', 'function', 'generator_function'], callback],
  [['variable_declarator'], variable],
  [
    ['public_field_definition', 'field_definition', 'enum_assignment'],
    (node) => {
      const name = childOf(node, 'property_identifier', 'private_property_identifier')?.text;
      const value = named(node).findLast(({ type }) => !/property_identifier|annotation|modifier/.test(type));
      if (name === undefined || (value && functions.has(value.type))) return null;
      return { is: 'constant', name, type: typeOf(node), value: value ?? null };
    },
  ],
  [
    ['required_parameter', 'optional_parameter'],
    (node) => {
      const [name, ...rest] = named(node);
      if (name?.type !== 'identifier') return null;
      const value = rest.find(({ type }) => type !== 'type_annotation');
      return value
        ? { is: 'constant', name: name.text, type: typeOf(node), value }
        : { is: 'parameter', name: name.text, type: typeOf(node) };
    },
  ],
  [['object'], object],
  [['pair'], pair],
  [
    ['if_statement'],
    (node) => {
      const [condition, then, otherwise] = named(node).filter(({ type }) => type !== 'comment');
      return {
        is: 'branch',
        conditions: condition ? [unbracketed(condition)] : [],
        then: then ? [then] : [],
        otherwise: otherwise ? [...named(otherwise)] : [],
      };
    },
  ],
  [
    ['ternary_expression'],
    (node) => {
      const [condition, then, otherwise] = named(node).filter(({ type }) => type !== 'comment');
      return {
        is: 'branch',
        conditions: condition ? [unbracketed(condition)] : [],
        then: then ? [then] : [],
        otherwise: otherwise ? [otherwise] : [],
        choice: { start: node.startIndex, end: node.endIndex },
      };
    },
  ],
  [
    ['binary_expression'],
    (node) => {
      const [left, right] = named(node);
      const and = node.children.some((child) => child?.type === '&&');
      return and && left && right && !isAsked(node)
        ? { is: 'branch', conditions: [left], then: [right], otherwise: [] }
        : null;
    },
  ],
  [['switch_case', 'switch_default'], switchCase],
  [
    [
      'parenthesized_expression',
      'await_expression',
      'non_null_expression',
      'as_expression',
      'satisfies_expression',
    ],
    (node) => {
      const [inner] = named(node);
      return inner ? { is: 'same', node: inner } : null;
    },
  ],
  [['subscript_expression', 'member_expression'], byPlatform],
]);

const pairs: CodeLanguage['pairs'] = (node) => (node.type === 'pair' ? pairwise(named(node)) : []);
const exits = new Set(['return_statement', 'throw_statement', 'break_statement', 'continue_statement']);

/** TypeScript, as the grammar of tree-sitter-typescript names its nodes. */
export const typescriptSyntax: CodeLanguage = { grammar: 'typescript', describe, exits, pairs };

/** TypeScript with elements, and JavaScript: the same nodes, read by the grammar that knows elements. */
export const tsxSyntax: CodeLanguage = {
  grammar: 'tsx',
  describe,
  exits,
  pairs,
  heldAt: componentHeldAt,
};

function literal(node: Node): Shape {
  const plain = named(node).every(({ type }) => type === 'string_fragment' || type === 'escape_sequence');
  const start = node.startIndex + 1;
  const end = Math.max(start, node.endIndex - 1);
  return { is: 'string', value: plain ? node.text.slice(1, -1) : null, start, end };
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
