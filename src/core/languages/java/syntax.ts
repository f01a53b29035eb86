import {
  childOf,
  dottedName,
  named,
  pairwise,
  stringShape,
  type CodeLanguage,
  describedBy,
} from '../../syntax/shape.js';

/** Java, as the grammar of tree-sitter-java names its nodes. */
export const javaSyntax: CodeLanguage = {
  grammar: 'java',
  exits: new Set(['return_statement', 'throw_statement', 'break_statement', 'continue_statement']),
  pairs: (node) => {
    const list = node.childForFieldName('arguments');
    return node.type === 'method_invocation' &&
      list &&
      /(^|\.)(of|entry)$/.test(node.childForFieldName('name')?.text ?? '')
      ? pairwise(named(list))
      : [];
  },
  describe: describedBy([
    [
      ['string_literal'],
      (node) =>
        stringShape(
          node,
          ['string_fragment', 'multiline_string_fragment'],
          node.text.startsWith('"""') ? 3 : 1,
        ),
    ],
    [
      ['method_invocation'],
      (node) => {
        const object = node.childForFieldName('object');
        const name = node.childForFieldName('name')?.text ?? '';
        const list = node.childForFieldName('arguments');
        return {
          is: 'call',
          name: dottedName(object ? `${object.text}.${name}` : name),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: object && object.type !== 'identifier' ? [object] : [],
        };
      },
    ],
    [
      ['object_creation_expression'],
      (node) => {
        const list = node.childForFieldName('arguments');
        const body = childOf(node, 'class_body');
        return {
          is: 'call',
          name: dottedName((node.childForFieldName('type')?.text ?? '').replace(/<.*$/s, '')),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: body ? [body] : [],
        };
      },
    ],
    [
      ['class_body'],
      (node) =>
        node.parent?.type === 'object_creation_expression'
          ? { is: 'type', name: `new ${node.parent.childForFieldName('type')?.text ?? ''}`, bases: [] }
          : null,
    ],
    [
      ['assignment_expression'],
      (node) => {
        const value = node.childForFieldName('right');
        const name = dottedName(node.childForFieldName('left')?.text ?? '');
        return value ? { is: 'assign', name, value } : null;
      },
    ],
    [
      ['class_declaration', 'interface_declaration', 'enum_declaration', 'record_declaration'],
      (node) => ({
        is: 'type',
        name: node.childForFieldName('name')?.text ?? '',
        bases: ['superclass', 'interfaces'].flatMap((field) =>
          (node.childForFieldName(field)?.text ?? '')
            .replace(/^(extends|implements)\s+/, '')
            .replace(/<[^<>]*>/g, '')
            .split(/[\s,]+/)
            .filter(Boolean),
        ),
      }),
    ],
    [
      ['method_declaration', 'constructor_declaration'],
      (node) => ({
        is: 'method',
        name: node.childForFieldName('name')?.text ?? '',
        body: node.childForFieldName('body'),
      }),
    ],
    [['static_initializer'], (node) => ({ is: 'method', name: 'init', body: node })],
    [['lambda_expression'], () => ({ is: 'lambda' })],
    [
      ['enum_constant'],
      (node) => {
        const list = node.childForFieldName('arguments');
        const name = node.childForFieldName('name')?.text ?? '';
        return { is: 'constant', name, type: null, value: (list && named(list)[0]) ?? null };
      },
    ],
    [
      ['variable_declarator'],
      (node) => ({
        is: 'constant',
        name: node.childForFieldName('name')?.text ?? '',
        type: writtenType(node.parent?.childForFieldName('type')?.text),
        value: node.childForFieldName('value'),
      }),
    ],
    [
      ['formal_parameter'],
      (node) => ({
        is: 'parameter',
        name: node.childForFieldName('name')?.text ?? '',
        type: node.childForFieldName('type')?.text ?? null,
      }),
    ],
    [
      ['if_statement', 'ternary_expression'],
      (node) => {
        const condition = node.childForFieldName('condition');
        const then = node.childForFieldName('consequence');
        const otherwise = node.childForFieldName('alternative');
        return {
          is: 'branch',
          conditions: condition ? [condition] : [],
          then: then ? [then] : [],
          otherwise: otherwise ? [otherwise] : [],
        };
      },
    ],
  ]),
};

/** The type of a variable; null where it is taken from the value. */
function writtenType(text: string | undefined): string | null {
  return text === undefined || text === 'var' ? null : text;
}
