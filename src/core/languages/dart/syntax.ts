import {
  childOf,
  dottedName,
  named,
  pairwise,
  type ArgumentNode,
  type CodeLanguage,
  type Shape,
  describedBy,
} from '../../syntax/shape.js';
import { conditionOnOneLine } from '../../syntax/conditions.js';
import type { Node } from '../../syntax/grammars.js';
import { widgetHeldAt } from './views.js';

/** Dart, as the grammar of tree-sitter-dart names its nodes. A call's parts stand side by side in it. */
export const dartSyntax: CodeLanguage = {
  grammar: 'dart',
  exits: new Set(['return_statement', 'break_statement', 'continue_statement', 'throw_expression']),
  aliasesIn: casePattern,
  continues: new Set(['selector', 'unconditional_assignable_selector', 'conditional_assignable_selector']),
  heldAt: (node) => widgetHeldAt(node, (inner) => dartSyntax.describe(inner)),
  pairs: (node) => (node.type === 'pair' ? pairwise(named(node)) : []),
  describe: describedBy([
    [['string_literal'], literal],
    [['selector', 'cascade_section'], called],
    [
      ['const_object_expression', 'new_expression'],
      (node) => {
        const type = childOf(node, 'type_identifier')?.text ?? '';
        const list = childOf(node, 'arguments');
        return { is: 'call', name: type, args: list ? argumentsOf(list) : [], rest: [] };
      },
    ],
    [
      ['assignment_expression'],
      (node) => {
        const [target, ...values] = named(node);
        const value = plainStart(values[0]);
        return target && value ? { is: 'assign', name: dottedName(target.text), value } : null;
      },
    ],
    [
      ['class_definition', 'mixin_declaration', 'enum_declaration', 'extension_declaration'],
      (node) => {
        const above = childOf(node, 'superclass');
        const mixed = above && childOf(above, 'mixins');
        return {
          is: 'type',
          name: (childOf(node, 'identifier') ?? childOf(node, 'type_identifier'))?.text ?? '',
          bases: [above, mixed, childOf(node, 'interfaces')].flatMap((part) =>
            part ? named(part).flatMap(({ type, text }) => (type === 'type_identifier' ? [text] : [])) : [],
          ),
        };
      },
    ],
    [
      ['function_body'],
      (node) => {
        const signature = node.previousNamedSibling;
        const gives = signature && /(^|\s)get\s+\w+$/.test(signature.text) ? { gives: true as const } : {};
        return { is: 'method', name: signatureName(signature), body: node, ...gives };
      },
    ],
    [['function_expression'], callback],
    [['static_final_declaration', 'initialized_identifier', 'initialized_variable_definition'], constant],
    [
      ['formal_parameter'],
      (node) => {
        const name = named(node).findLast(({ type }) => type === 'identifier')?.text;
        return name === undefined
          ? null
          : { is: 'parameter', name, type: childOf(node, 'type_identifier')?.text ?? null };
      },
    ],
    [['if_statement', 'if_element'], ifStatement],
    [['conditional_expression'], conditional],
    [['switch_statement_case', 'switch_expression_case', 'switch_statement_default'], switchCase],
  ]),
};

function literal(node: Node): Shape {
  const { text } = node;
  const [, quote = "'", inner = ''] = /^r?('''|"""|'|")([\s\S]*)\1$/.exec(text) ?? [];
  const open = text.indexOf(quote) + quote.length;
  const whole = named(node).every(({ type }) => /escape/.test(type));
  // Two literals side by side are one text, and none that could be replaced as it is.
  const single = quote.length === 3 || !new RegExp(`(^|[^\\\\])${quote}`).test(inner);
  const start = node.startIndex + open;
  const end = Math.max(start, node.endIndex - quote.length);
  return { is: 'string', value: whole && single ? inner : null, start, end };
}

/** `(…)` after an expression: the call of what is before it. */
function called(node: Node): Shape | null {
  const list = childOf(childOf(node, 'argument_part') ?? node, 'arguments');
  if (!list) {
    const assigned = node.type === 'cascade_section' ? childOf(node, 'cascade_selector') : undefined;
    const value = assigned && plainStart(named(node)[1]);
    return assigned && value
      ? { is: 'assign', name: `${headOf(node)?.text ?? ''}.${assigned.text.replace(/^\.+/, '')}`, value }
      : null;
  }
  const head = headOf(node);
  if (!head) return null;
  const step = childOf(node, 'cascade_selector')?.text.replace(/^\.+/, '');
  const before =
    step === undefined
      ? (node.parent?.text.slice(
          head.startIndex - node.parent.startIndex,
          node.startIndex - node.parent.startIndex,
        ) ?? '')
      : `${head.text}.${step}`;
  const written = dottedName(before.replace(/\.\.+/g, '.').replace(/<[^()]*>$/, ''));
  const isMade = /^[A-Z]\w*$/.test(head.text) && head.nextNamedSibling?.text.startsWith('(');
  // `LoaderBuilder().unit(…)`: a builder gives itself back.
  const name = isMade && written.startsWith('?.') ? `${head.text}${written.slice(1)}` : written;
  return { is: 'call', name, args: argumentsOf(list), rest: [], start: head.startIndex };
}

/** The node with which the expression of a selector begins. */
function headOf(node: Node): Node | null {
  let head = node.previousNamedSibling;
  while (head && (dartSyntax.continues?.has(head.type) || head.type === 'cascade_section'))
    head = head.previousNamedSibling;
  return head;
}

function argumentsOf(list: Node): ArgumentNode[] {
  return named(list).flatMap((argument): ArgumentNode[] => {
    const label = childOf(argument, 'label');
    const value = plainStart(named(argument)[label ? 1 : 0]);
    return value ? [{ label: label?.text.replace(/:$/, '').trim() ?? null, node: value }] : [];
  });
}

/** The value that is waited for, where there is an `await` before it. */
function plainStart(node: Node | undefined): Node | undefined {
  if (node?.type === 'unary_expression' && node.namedChild(0)?.type === 'await_expression')
    return node.namedChild(0)?.namedChild(0) ?? node;
  return node?.type === 'await_expression' ? (node.namedChild(0) ?? node) : node;
}

function signatureName(signature: Node | null): string {
  const inner = signature?.type === 'method_signature' ? signature.namedChild(0) : signature;
  const names = inner ? named(inner).filter(({ type }) => type === 'identifier') : [];
  return names.map(({ text }) => text).join('.');
}

/** A function that is passed under a name is called by that name. */
function callback(node: Node): Shape {
  const { parent } = node;
  const body = childOf(node, 'function_expression_body') ?? null;
  const label =
    parent?.type === 'named_argument' ? childOf(parent, 'label')?.text.replace(/:$/, '') : undefined;
  const assigned =
    parent?.type === 'cascade_section'
      ? childOf(parent, 'cascade_selector')?.text
      : parent?.type === 'assignment_expression'
        ? parent.namedChild(0)?.text
        : undefined;
  const name = label?.trim() ?? assigned?.split('.').at(-1);
  return name === undefined ? { is: 'lambda' } : { is: 'method', name, body };
}

function constant(node: Node): Shape | null {
  const parts = named(node);
  const at = parts.findIndex(({ type }) => type === 'identifier');
  const name = parts[at];
  if (!name) return null;
  const declaration = node.type === 'initialized_variable_definition' ? node : node.parent?.parent;
  return {
    is: 'constant',
    name: name.text,
    type: (declaration && childOf(declaration, 'type_identifier')?.text) ?? null,
    value: plainStart(parts[at + 1]) ?? null,
  };
}

/** What is between two of a node's own signs, such as `(` and `)`. */
function between(node: Node, from: (child: Node) => boolean, to: (child: Node) => boolean): Node[] {
  const children = node.children.filter((child): child is Node => child !== null);
  const start = children.findIndex(from);
  const rest = children.slice(start + 1);
  const end = rest.findIndex(to);
  return rest.slice(0, end < 0 ? rest.length : end).filter(({ isNamed }) => isNamed);
}

const sign = (text: string) => (node: Node) => !node.isNamed && node.text === text;

function textOf(nodes: readonly Node[]): string {
  const [first, last] = [nodes[0], nodes.at(-1)];
  const { parent } = first ?? { parent: null };
  if (!first || !last || !parent) return '';
  return conditionOnOneLine(
    parent.text.slice(first.startIndex - parent.startIndex, last.endIndex - parent.startIndex),
  );
}

function ifStatement(node: Node): Shape {
  const conditions = between(node, sign('('), sign(')'));
  const children = node.children.filter((child): child is Node => child !== null);
  const close = children.findIndex(sign(')'));
  const other = children.findIndex((child, at) => at > close && child.text === 'else');
  const named = ({ isNamed }: Node) => isNamed;
  return {
    is: 'branch',
    conditions,
    text: textOf(conditions),
    then: children.slice(close + 1, other < 0 ? undefined : other).filter(named),
    otherwise: other < 0 ? [] : children.slice(other + 1).filter(named),
  };
}

/** `a ? b : c`. The grammar takes only the last part of `x && a` for the condition, so what is before it is added. */
function conditional(node: Node): Shape {
  const children = node.children.filter((child): child is Node => child !== null);
  const question = children.findIndex(sign('?'));
  const colon = children.findIndex((child, at) => at > question && sign(':')(child));
  const conditions = children.slice(0, question).filter(({ isNamed }) => isNamed);
  let start = node;
  while (
    start.parent &&
    /^(logical_and|logical_or|equality|relational)_expression$/.test(start.parent.type) &&
    start.parent.endIndex === start.endIndex
  )
    start = start.parent;
  const before = start.text.slice(0, node.startIndex - start.startIndex);
  return {
    is: 'branch',
    conditions,
    text: conditionOnOneLine(`${before}${textOf(conditions)}`),
    then: children.slice(question + 1, colon).filter(({ isNamed }) => isNamed),
    otherwise: children.slice(colon + 1).filter(({ isNamed }) => isNamed),
    choice: { start: start.startIndex, end: node.endIndex },
  };
}

/** A case runs where what is switched on equals its pattern; the default where no other case does. */
function switchCase(node: Node): Shape | null {
  const whole = node.type === 'switch_expression_case' ? node.parent : node.parent?.parent;
  const subject = whole && childOf(whole, 'parenthesized_expression')?.text.slice(1, -1).trim();
  if (!whole || subject === undefined) return null;
  const cases = named(node.parent ?? node).filter(({ type }) =>
    /^switch_(statement|expression)_case$/.test(type),
  );
  const patternOf = (one: Node) => childOf(one, 'constant_pattern')?.text;
  const pattern = patternOf(node);
  const isDefault = node.type === 'switch_statement_default' || pattern === '_' || pattern === undefined;
  const others = cases.flatMap((one) => {
    const text = patternOf(one);
    return text === undefined || text === '_' ? [] : [`${subject} == ${text}`];
  });
  return {
    is: 'branch',
    conditions: [],
    text: isDefault ? `!(${others.join(' || ')})` : `${subject} == ${pattern}`,
    then: named(node).filter(({ type }) => type !== 'constant_pattern' && type !== 'case_builtin'),
    otherwise: [],
  };
}

/** `if (_page case final now?)`. */
function casePattern(node: Node): [string, string][] {
  const pattern = childOf(node, 'null_check_pattern', 'variable_pattern');
  const value = pattern && node.firstNamedChild;
  const name = pattern?.descendantsOfType('identifier').at(-1)?.text;
  return value && name !== undefined && value.id !== pattern.id ? [[name, value.text]] : [];
}
