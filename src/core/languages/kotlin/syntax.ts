import type { Node } from '../../syntax/grammars.js';
import {
  childOf,
  dottedName,
  named,
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
  receiverIn: (part, { name, args }) => {
    if (part.type !== 'annotated_lambda') return undefined;
    if (name === 'with') return dottedName(args[0]?.node.text ?? '') || undefined;
    return /^(.+)\.(?:apply|run)$/.exec(name)?.[1];
  },
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
    [
      ['when_entry'],
      (node) => {
        const body = childOf(node, 'control_structure_body');
        const conditions = named(node).filter(({ type }) => type === 'when_condition');
        return { is: 'branch', conditions, then: body ? [body] : [], otherwise: [] };
      },
    ],
  ]),
};

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
