import type { Node } from '../../syntax/grammars.js';
import {
  childOf,
  dottedName,
  named,
  pairwise,
  stringShape,
  type ArgumentNode,
  type CodeLanguage,
  type Shape,
  describedBy,
} from '../../syntax/shape.js';

const notValues = new Set([
  'modifiers',
  'binding_pattern_kind',
  'variable_declaration',
  'multi_variable_declaration',
  'getter',
  'setter',
  'type_parameters',
  'type_constraints',
  'line_comment',
  'multiline_comment',
]);

/** Kotlin, as the grammar of tree-sitter-kotlin names its nodes. */
export const kotlinSyntax: CodeLanguage = {
  grammar: 'kotlin',
  exits: new Set(['jump_expression']),
  aliasesIn: otherNames,
  receiverIn: (part, { name, args }) => {
    if (part.type !== 'annotated_lambda') return undefined;
    if (name === 'with') return dottedName(args[0]?.node.text ?? '') || undefined;
    return /^(.+)\.(?:apply|run)$/.exec(name)?.[1];
  },
  pairs: (node) =>
    node.type === 'infix_expression' && named(node)[1]?.text === 'to'
      ? pairwise(named(node).filter((_, at) => at !== 1))
      : [],
  describe: describedBy([
    [
      ['string_literal'],
      (node) => stringShape(node, ['string_content'], node.text.startsWith('"""') ? 3 : 1),
    ],
    [['call_expression'], call],
    [
      ['assignment'],
      (node) => {
        const [target, value] = [named(node)[0], named(node).at(-1)];
        return target && value ? { is: 'assign', name: dottedName(target.text), value } : null;
      },
    ],
    [
      ['class_declaration', 'object_declaration'],
      (node) => ({
        is: 'type',
        name: childOf(node, 'type_identifier', 'simple_identifier')?.text ?? '',
        bases: basesOf(node),
      }),
    ],
    [['companion_object'], () => ({ is: 'type', name: 'Companion', bases: [] })],
    [
      ['object_literal'],
      (node) => ({
        is: 'type',
        name: `object : ${childOf(node, 'delegation_specifier')?.text ?? ''}`,
        bases: basesOf(node),
      }),
    ],
    [
      ['function_declaration'],
      (node) => ({
        is: 'method',
        name: childOf(node, 'simple_identifier')?.text ?? '',
        body: childOf(node, 'function_body') ?? null,
      }),
    ],
    [
      ['anonymous_initializer', 'secondary_constructor'],
      (node) => ({ is: 'method', name: 'init', body: node }),
    ],
    [['lambda_literal', 'anonymous_function'], () => ({ is: 'lambda' })],
    [['getter'], getter],
    [
      ['property_delegate'],
      (node) => {
        const [inner] = named(node);
        return inner ? { is: 'same', node: inner } : null;
      },
    ],
    [
      ['enum_entry'],
      (node) => {
        const list = childOf(node, 'value_arguments');
        const first = list && named(list)[0];
        const value = first && named(first).at(-1);
        const name = childOf(node, 'simple_identifier')?.text ?? '';
        return { is: 'constant', name, type: null, value: value ?? null };
      },
    ],
    [
      ['property_declaration'],
      (node) => {
        const variable = childOf(node, 'variable_declaration');
        const value = named(node).findLast(({ type }) => !notValues.has(type)) ?? null;
        const name = variable && childOf(variable, 'simple_identifier')?.text;
        if (!variable || name === undefined) return null;
        return { is: 'constant', name, type: typeOf(variable), value };
      },
    ],
    [
      ['class_parameter', 'parameter'],
      (node) => ({
        is: 'parameter',
        name: childOf(node, 'simple_identifier')?.text ?? '',
        type: typeOf(node),
      }),
    ],
    [
      ['if_expression'],
      (node) => {
        const [condition] = named(node);
        const bodies = named(node).filter(({ type }) => type === 'control_structure_body');
        const hasThen = node.children.findIndex((child) => child?.type === 'else');
        const first = bodies[0];
        const early = first && (hasThen < 0 || first.startIndex < (node.children[hasThen]?.startIndex ?? 0));
        return {
          is: 'branch',
          conditions: condition ? [condition] : [],
          then: early ? [first] : [],
          otherwise: early ? bodies.slice(1) : bodies,
        };
      },
    ],
    [['when_entry'], whenEntry],
  ]),
};

/** `get() = …` below the property, or beside it where it has a line of its own. */
function getter(node: Node): Shape | null {
  const property = node.parent?.type === 'property_declaration' ? node.parent : node.previousNamedSibling;
  const variable = property?.type === 'property_declaration' && childOf(property, 'variable_declaration');
  const name = variable ? childOf(variable, 'simple_identifier')?.text : undefined;
  return name === undefined
    ? null
    : { is: 'method', name, body: childOf(node, 'function_body') ?? null, gives: true };
}

/** An entry runs where the subject is one of its values; `else` where no other entry does. */
function whenEntry(node: Node): Shape {
  const body = childOf(node, 'control_structure_body');
  const conditions = named(node).filter(({ type }) => type === 'when_condition');
  const then = body ? [body] : [];
  const subject = node.parent && childOf(node.parent, 'when_subject');
  const held = subject ? dottedName(named(subject).at(-1)?.text ?? '') : '';
  if (held === '' || held.startsWith('?')) return { is: 'branch', conditions, then, otherwise: [] };
  const of = (entry: Node) =>
    named(entry).flatMap(({ type, text }) => (type === 'when_condition' ? [`${held} == ${text}`] : []));
  const all = named(node.parent ?? node).filter(({ type }) => type === 'when_entry');
  const text = conditions.length > 0 ? of(node).join(' || ') : `!(${all.flatMap(of).join(' || ')})`;
  return { is: 'branch', conditions, text, then, otherwise: [] };
}

function call(node: Node): Shape & { is: 'call' } {
  const [callee] = named(node);
  const suffix = childOf(node, 'call_suffix');
  const list = suffix && childOf(suffix, 'value_arguments');
  const lambda = suffix && childOf(suffix, 'annotated_lambda');
  // `start(context) { … }`: the grammar takes the lambda for another call, of what the first one gives.
  if (callee?.type === 'call_expression' && lambda && !list) {
    const before = call(callee);
    return { ...before, rest: [...before.rest, lambda] };
  }
  const args = (list ? named(list) : []).flatMap((argument): ArgumentNode[] => {
    if (argument.type !== 'value_argument') return [];
    const parts = named(argument);
    const value = parts.at(-1);
    if (!value) return [];
    const labelled = parts.length > 1 && argument.children.some((child) => child?.type === '=');
    return [{ label: labelled ? (parts[0]?.text ?? null) : null, node: value }];
  });
  return {
    is: 'call' as const,
    name: callee ? dottedName(callee.text) : '',
    args,
    rest: [...(callee && callee.type !== 'simple_identifier' ? [callee] : []), ...(lambda ? [lambda] : [])],
  };
}

/** `: Application(), Listener` as plain names. */
function basesOf(node: Node): string[] {
  return named(node)
    .filter(({ type }) => type === 'delegation_specifier')
    .map(({ text }) => text.replace(/[(<{].*$/s, '').trim());
}

function typeOf(node: Node): string | null {
  const type = childOf(node, 'user_type', 'nullable_type');
  return type ? type.text.replace(/\?$/, '') : null;
}

/** `page?.let { now -> … }` and `val now = page ?: return`. */
function otherNames(node: Node): [string, string][] {
  if (node.type === 'property_declaration') {
    const value = childOf(node, 'elvis_expression')?.firstNamedChild;
    const variable = childOf(node, 'variable_declaration');
    const name = variable && childOf(variable, 'simple_identifier')?.text;
    return value && name !== undefined ? [[name, value.text]] : [];
  }
  const [callee, suffix] = named(node);
  const lambda = suffix && childOf(suffix, 'annotated_lambda')?.firstNamedChild;
  const name = lambda ? childOf(lambda, 'lambda_parameters')?.text : undefined;
  if (!callee || callee.endIndex - callee.startIndex > longestName) return [];
  const other = /^([\w.]+)\??\.(?:let|also)$/.exec(callee.text)?.[1];
  return other !== undefined && name !== undefined && /^\w+$/.test(name) ? [[name, other]] : [];
}

/** A name longer than this (characters) is none. */
const longestName = 200;
