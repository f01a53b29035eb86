import type { Node } from '../../syntax/grammars.js';
import {
  childOf,
  dottedName,
  named,
  stringShape,
  type ArgumentNode,
  type CodeLanguage,
} from '../../syntax/shape.js';

/** Objective-C, as the grammar of tree-sitter-objc names its nodes. */
export const objectiveC: CodeLanguage = {
  id: 'objective-c',
  exits: new Set(['return_statement', 'break_statement', 'continue_statement']),
  describe(node) {
    switch (node.type) {
      case 'string_literal':
        return stringShape(node, ['string_content'], node.text.startsWith('@') ? 2 : 1, 1);
      case 'message_expression':
        return message(node);
      case 'call_expression': {
        const callee = node.childForFieldName('function');
        const list = node.childForFieldName('arguments');
        return {
          is: 'call',
          name: dottedName(callee?.text ?? ''),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: callee && callee.type !== 'identifier' ? [callee] : [],
        };
      }
      case 'assignment_expression': {
        const value = node.childForFieldName('right');
        const name = dottedName((node.childForFieldName('left')?.text ?? '').replace(/->/g, '.'));
        return value ? { is: 'assign', name, value } : null;
      }
      case 'class_interface':
      case 'class_implementation':
      case 'category_implementation':
      case 'category_interface':
      case 'protocol_declaration':
        return {
          is: 'type',
          name: childOf(node, 'identifier')?.text ?? '',
          bases: [node.childForFieldName('superclass')?.text ?? ''].filter((base) => base !== ''),
        };
      case 'method_definition':
        return {
          is: 'method',
          name: childOf(node, 'identifier')?.text ?? '',
          body: childOf(node, 'compound_statement') ?? null,
        };
      case 'function_definition': {
        const name = /([A-Za-z_]\w*)\s*\(/.exec(node.childForFieldName('declarator')?.text ?? '')?.[1];
        return { is: 'method', name: name ?? '', body: node.childForFieldName('body') };
      }
      case 'block_literal':
      case 'block_expression':
        return { is: 'lambda' };
      case 'init_declarator':
        return {
          is: 'constant',
          name: lastName(node.childForFieldName('declarator')),
          type: node.parent?.childForFieldName('type')?.text ?? null,
          value: node.childForFieldName('value'),
        };
      case 'property_declaration': {
        const declared = childOf(node, 'struct_declaration');
        const declarator = declared && childOf(declared, 'struct_declarator');
        const type = declared && childOf(declared, 'type_identifier')?.text;
        return declarator
          ? { is: 'constant', name: lastName(declarator), type: type ?? null, value: null }
          : null;
      }
      case 'if_statement':
      case 'conditional_expression': {
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

/** `[HeronBanner loadWithUnitID:id delegate:self]` is a call of `HeronBanner.loadWithUnitID` with labelled arguments. */
function message(node: Node) {
  const receiver = node.childForFieldName('receiver');
  const parts: ArgumentNode[] = [];
  let first: string | undefined;
  let label: string | null = null;
  for (const child of named(node).filter((part) => part.id !== receiver?.id)) {
    const isName =
      child.type === 'identifier' &&
      node.text
        .slice(child.endIndex - node.startIndex)
        .trimStart()
        .startsWith(':');
    if (first === undefined) {
      first = child.text;
      label = isName ? child.text : null;
    } else if (isName) label = child.text;
    else parts.push({ label, node: child });
  }
  const name = dottedName(`${receiver?.text.replace(/->/g, '.') ?? ''}.${first ?? ''}`);
  return {
    is: 'call' as const,
    name,
    args: parts,
    rest: receiver && receiver.type !== 'identifier' ? [receiver] : [],
  };
}

function lastName(node: Node | null): string {
  return /([A-Za-z_]\w*)\W*$/.exec(node?.text ?? '')?.[1] ?? '';
}
