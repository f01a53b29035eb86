import type { Node } from '../../syntax/grammars.js';
import {
  childOf,
  dottedName,
  named,
  pairwise,
  stringShape,
  type ArgumentNode,
  type CodeLanguage,
  describedBy,
} from '../../syntax/shape.js';

/** Swift, as the grammar of tree-sitter-swift names its nodes. */
export const swiftSyntax: CodeLanguage = {
  grammar: 'swift',
  exits: new Set(['control_transfer_statement']),
  aliasesIn: bindings,
  pairs: (node) =>
    node.type === 'dictionary_literal'
      ? pairwise(named(node).filter(({ type }) => !type.endsWith('comment')))
      : [],
  describe: describedBy([
    [['line_string_literal'], (node) => stringShape(node, ['line_str_text'], 1)],
    [['multi_line_string_literal'], (node) => stringShape(node, ['multi_line_str_text'], 3)],
    [['raw_string_literal'], rawString],
    [['call_expression'], call],
    [
      ['assignment'],
      (node) => {
        const target = node.childForFieldName('target');
        const value = node.childForFieldName('result');
        return target && value ? { is: 'assign', name: dottedName(target.text), value } : null;
      },
    ],
    [
      ['class_declaration', 'protocol_declaration'],
      (node) => ({
        is: 'type',
        name: node.childForFieldName('name')?.text ?? '',
        bases: named(node)
          .filter(({ type }) => type === 'inheritance_specifier')
          .map(({ text }) => text),
      }),
    ],
    [
      ['function_declaration'],
      (node) => ({
        is: 'method',
        name: node.childForFieldName('name')?.text ?? '',
        body: node.childForFieldName('body'),
      }),
    ],
    [
      ['init_declaration', 'deinit_declaration'],
      (node) => ({
        is: 'method',
        name: node.type === 'init_declaration' ? 'init' : 'deinit',
        body: node.childForFieldName('body'),
      }),
    ],
    [['lambda_literal'], () => ({ is: 'lambda' })],
    [
      ['computed_property'],
      (node) => {
        const name = node.parent?.childForFieldName('name')?.text;
        const body = childOf(node, 'computed_getter') ?? node;
        return name === undefined ? null : { is: 'method', name, body, gives: true };
      },
    ],
    [
      ['enum_entry'],
      (node) => {
        const [name, value] = [node.childForFieldName('name'), node.childForFieldName('raw_value')];
        return name && value ? { is: 'constant', name: name.text, type: null, value } : null;
      },
    ],
    [
      ['property_declaration'],
      (node) => {
        const name = node.childForFieldName('name');
        if (!name) return null;
        return {
          is: 'constant',
          name: name.text,
          type: annotated(childOf(node, 'type_annotation')),
          value: node.childForFieldName('value') ?? node.childForFieldName('computed_value'),
        };
      },
    ],
    [
      ['parameter'],
      (node) => {
        const [inner, type] = node.childrenForFieldName('name');
        return inner && type ? { is: 'parameter', name: inner.text, type: plainType(type.text) } : null;
      },
    ],
    [
      ['if_statement'],
      (node) => {
        const bodies = named(node).filter(({ type }) => type === 'statements' || type === 'if_statement');
        const [first] = bodies;
        const otherwise = childOf(node, 'else');
        const before = first && (!otherwise || first.startIndex < otherwise.startIndex);
        return {
          is: 'branch',
          conditions: conditionsOf(node),
          then: before ? [first] : [],
          otherwise: before ? bodies.slice(1) : bodies,
        };
      },
    ],
    [
      ['ternary_expression'],
      (node) => {
        const [then, otherwise] = [node.childForFieldName('if_true'), node.childForFieldName('if_false')];
        return {
          is: 'branch',
          conditions: conditionsOf(node),
          then: then ? [then] : [],
          otherwise: otherwise ? [otherwise] : [],
        };
      },
    ],
    [
      ['guard_statement'],
      (node) => ({
        is: 'guard',
        conditions: conditionsOf(node),
        body: named(node).filter(({ type }) => type === 'statements'),
      }),
    ],
  ]),
};

/** `#"…"#`, with as many signs as it takes. */
function rawString(node: Node) {
  const quotes = /^#+(?:"""|")/.exec(node.text)?.[0].length ?? 0;
  return stringShape(node, ['raw_str_end_part'], quotes);
}

function conditionsOf(node: Node): Node[] {
  return node
    .childrenForFieldName('condition')
    .filter((child): child is Node => child?.isNamed === true && child.type !== 'value_binding_pattern')
    .concat(node.childrenForFieldName('bound_identifier').filter((child): child is Node => child !== null));
}

function call(node: Node) {
  const [callee] = named(node);
  const suffix = childOf(node, 'call_suffix');
  const list = suffix && childOf(suffix, 'value_arguments');
  const args = (list ? named(list) : []).flatMap((argument): ArgumentNode[] => {
    const value = argument.childForFieldName('value');
    return value ? [{ label: argument.childForFieldName('name')?.text ?? null, node: value }] : [];
  });
  const lambdas = suffix ? named(suffix).filter(({ type }) => type === 'lambda_literal') : [];
  return {
    is: 'call' as const,
    name: callee ? dottedName(callee.text) : '',
    args,
    rest: [...(callee && callee.type !== 'simple_identifier' ? [callee] : []), ...lambdas],
  };
}

function annotated(annotation: Node | undefined): string | null {
  const name = annotation?.childForFieldName('name');
  return name ? plainType(name.text) : null;
}

function plainType(text: string): string {
  return text.replace(/[?!]+$/, '').replace(/^(weak|any|some)\s+/, '');
}

/** `if let now = page` and `guard let now = page`; a binding without a value keeps its name. */
function bindings(node: Node): [string, string][] {
  const bound = node.childrenForFieldName('bound_identifier').filter((child) => child !== null);
  const values = node.childrenForFieldName('condition').filter((child) => child?.isNamed === true);
  return bound.flatMap((name): [string, string][] => {
    const value = values.find((one) => one !== null && one.startIndex > name.endIndex);
    const isBetween =
      value &&
      /^\s*=\s*$/.test(node.text.slice(name.endIndex - node.startIndex, value.startIndex - node.startIndex));
    return isBetween ? [[name.text, value.text]] : [];
  });
}
