import { childOf, dottedName, named, stringShape, type CodeLanguage } from '../../syntax/shape.js';

/** Java, as the grammar of tree-sitter-java names its nodes. */
export const java: CodeLanguage = {
  id: 'java',
  exits: new Set(['return_statement', 'throw_statement', 'break_statement', 'continue_statement']),
  describe(node) {
    switch (node.type) {
      case 'string_literal':
        return stringShape(
          node,
          ['string_fragment', 'multiline_string_fragment'],
          node.text.startsWith('"""') ? 3 : 1,
        );
      case 'method_invocation': {
        const object = node.childForFieldName('object');
        const name = node.childForFieldName('name')?.text ?? '';
        const list = node.childForFieldName('arguments');
        return {
          is: 'call',
          name: dottedName(object ? `${object.text}.${name}` : name),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: object && object.type !== 'identifier' ? [object] : [],
        };
      }
      case 'object_creation_expression': {
        const list = node.childForFieldName('arguments');
        const body = childOf(node, 'class_body');
        return {
          is: 'call',
          name: dottedName((node.childForFieldName('type')?.text ?? '').replace(/<.*$/s, '')),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: body ? [body] : [],
        };
      }
      case 'class_body':
        return node.parent?.type === 'object_creation_expression'
          ? { is: 'type', name: `new ${node.parent.childForFieldName('type')?.text ?? ''}`, bases: [] }
          : null;
      case 'assignment_expression': {
        const value = node.childForFieldName('right');
        const name = dottedName(node.childForFieldName('left')?.text ?? '');
        return value ? { is: 'assign', name, value } : null;
      }
      case 'class_declaration':
      case 'interface_declaration':
      case 'enum_declaration':
      case 'record_declaration':
        return {
          is: 'type',
          name: node.childForFieldName('name')?.text ?? '',
          bases: (node.childForFieldName('superclass')?.text ?? '')
            .replace(/^extends\s+/, '')
            .replace(/<.*$/s, '')
            .split(/\s+/)
            .filter(Boolean),
        };
      case 'method_declaration':
      case 'constructor_declaration':
        return {
          is: 'method',
          name: node.childForFieldName('name')?.text ?? '',
          body: node.childForFieldName('body'),
        };
      case 'static_initializer':
        return { is: 'method', name: 'init', body: node };
      case 'lambda_expression':
        return { is: 'lambda' };
      case 'variable_declarator':
        return {
          is: 'constant',
          name: node.childForFieldName('name')?.text ?? '',
          type: node.parent?.childForFieldName('type')?.text ?? null,
          value: node.childForFieldName('value'),
        };
      case 'formal_parameter':
        return {
          is: 'parameter',
          name: node.childForFieldName('name')?.text ?? '',
          type: node.childForFieldName('type')?.text ?? null,
        };
      case 'if_statement':
      case 'ternary_expression': {
        const condition = node.childForFieldName('condition');
        const then = node.childForFieldName('consequence');
        const otherwise = node.childForFieldName('alternative');
        return {
          is: 'branch',
          conditions: condition ? [condition] : [],
          then: then ? [then] : [],
          otherwise: otherwise ? [otherwise] : [],
        };
      }
      default:
        return null;
    }
  },
};
