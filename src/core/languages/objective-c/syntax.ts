import type { Node } from '../../syntax/grammars.js';
import {
  childOf,
  dottedName,
  named,
  stringShape,
  type ArgumentNode,
  type CodeLanguage,
  describedBy,
} from '../../syntax/shape.js';

/** Objective-C, as the grammar of tree-sitter-objc names its nodes. */
export const objectiveCSyntax: CodeLanguage = {
  grammar: 'objc',
  labelsAreNames: true,
  exits: new Set(['return_statement', 'break_statement', 'continue_statement']),
  describe: describedBy([
    [
      ['string_literal'],
      (node) => stringShape(node, ['string_content'], node.text.startsWith('@') ? 2 : 1, 1),
    ],
    [['message_expression'], message],
    [
      ['call_expression'],
      (node) => {
        const callee = node.childForFieldName('function');
        const list = node.childForFieldName('arguments');
        return {
          is: 'call',
          name: dottedName(callee?.text ?? ''),
          args: (list ? named(list) : []).map((argument) => ({ label: null, node: argument })),
          rest: callee && callee.type !== 'identifier' ? [callee] : [],
        };
      },
    ],
    [
      ['assignment_expression'],
      (node) => {
        const value = node.childForFieldName('right');
        const name = dottedName((node.childForFieldName('left')?.text ?? '').replace(/->/g, '.'));
        return value ? { is: 'assign', name, value } : null;
      },
    ],
    [
      [
        'class_interface',
        'class_implementation',
        'category_implementation',
        'category_interface',
        'protocol_declaration',
      ],
      (node) => ({
        is: 'type',
        name: childOf(node, 'identifier')?.text ?? '',
        bases: [node.childForFieldName('superclass')?.text ?? ''].filter((base) => base !== ''),
      }),
    ],
    [
      ['method_definition'],
      (node) => ({
        is: 'method',
        name: childOf(node, 'identifier')?.text ?? '',
        body: childOf(node, 'compound_statement') ?? null,
      }),
    ],
    [
      ['function_definition'],
      (node) => {
        const name = /([A-Za-z_]\w*)\s*\(/.exec(node.childForFieldName('declarator')?.text ?? '')?.[1];
        return { is: 'method', name: name ?? '', body: node.childForFieldName('body') };
      },
    ],
    [['block_literal', 'block_expression'], () => ({ is: 'lambda' })],
    [
      ['init_declarator'],
      (node) => ({
        is: 'constant',
        name: lastName(node.childForFieldName('declarator')),
        type: node.parent?.childForFieldName('type')?.text ?? null,
        value: node.childForFieldName('value'),
      }),
    ],
    [
      ['property_declaration'],
      (node) => {
        const declared = childOf(node, 'struct_declaration');
        const declarator = declared && childOf(declared, 'struct_declarator');
        const type = declared && childOf(declared, 'type_identifier')?.text;
        return declarator
          ? { is: 'constant', name: lastName(declarator), type: type ?? null, value: null }
          : null;
      },
    ],
    [
      ['if_statement', 'conditional_expression'],
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
