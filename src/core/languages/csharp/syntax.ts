import type { Node } from '../../syntax/grammars.js';
import { accessor, pairs, plainType, property } from './properties.js';
import { preprocessed } from '../../syntax/preprocessor.js';
import {
  childOf,
  dottedName,
  named,
  type ArgumentNode,
  type CodeLanguage,
  type Shape,
  describedBy,
} from '../../syntax/shape.js';

/** C#, as the grammar of tree-sitter-c-sharp names its nodes. */
export const csharpSyntax: CodeLanguage = {
  grammar: 'c_sharp',
  exits: new Set([
    'return_statement',
    'throw_statement',
    'throw_expression',
    'break_statement',
    'continue_statement',
  ]),
  views: preprocessed,
  aliasesIn: namedPatterns,
  receiverIn: (part, { name }) => (part.type === 'initializer_expression' ? name : undefined),
  pairs,
  describe: describedBy([
    [['string_literal'], (node) => literal(node, 1, 1)],
    [['verbatim_string_literal'], (node) => literal(node, 2, 1)],
    [['raw_string_literal'], (node) => literal(node, 3, 3)],
    [
      ['interpolated_string_expression'],
      (node) => ({ is: 'string', value: null, start: node.startIndex, end: node.endIndex }),
    ],
    [['invocation_expression'], called],
    [['object_creation_expression'], made],
    [['attribute'], attribute],
    [['assignment_expression'], assigned],
    [
      [
        'class_declaration',
        'struct_declaration',
        'record_declaration',
        'interface_declaration',
        'enum_declaration',
      ],
      (node) => ({
        is: 'type',
        name: node.childForFieldName('name')?.text ?? '',
        bases: named(childOf(node, 'base_list') ?? node).flatMap(({ type, text }) =>
          /^(identifier|qualified_name|generic_name)$/.test(type) ? plainType(text) : [],
        ),
      }),
    ],
    [
      ['method_declaration', 'constructor_declaration', 'local_function_statement'],
      (node) => ({
        is: 'method',
        name: node.childForFieldName('name')?.text ?? '',
        body: node.childForFieldName('body'),
      }),
    ],
    [['lambda_expression', 'anonymous_method_expression'], callback],
    [['accessor_declaration'], accessor],
    [
      ['variable_declarator'],
      (node) => {
        const value = childOf(node, 'equals_value_clause');
        const type = node.parent?.childForFieldName('type');
        return {
          is: 'constant',
          name: childOf(node, 'identifier')?.text ?? '',
          type: type && type.type !== 'implicit_type' ? plainType(type.text) : null,
          value: (value && named(value)[0]) ?? null,
        };
      },
    ],
    [['property_declaration'], property],
    [
      ['parameter'],
      (node) => {
        const type = node.childForFieldName('type');
        return {
          is: 'parameter',
          name: node.childForFieldName('name')?.text ?? '',
          type: type ? plainType(type.text) : null,
        };
      },
    ],
    [['await_expression', 'parenthesized_expression'], (node) => inner(node, named(node)[0])],
    [['cast_expression'], (node) => inner(node, node.childForFieldName('value') ?? named(node).at(-1))],
    [['if_statement'], branch],
    [
      ['conditional_expression'],
      (node) => ({ ...branch(node), choice: { start: node.startIndex, end: node.endIndex } }),
    ],
    [['switch_expression'], choice],
    [['switch_expression_arm'], arm],
    [['switch_section'], section],
  ]),
};

function literal(node: Node, open: number, close: number): Shape {
  const start = node.startIndex + open;
  const end = Math.max(start, node.endIndex - close);
  return { is: 'string', value: node.text.slice(open, node.text.length - close), start, end };
}

function inner(node: Node, value: Node | undefined): Shape | null {
  return value && value !== node ? { is: 'same', node: value } : null;
}

function argumentsOf(list: Node | undefined | null): ArgumentNode[] {
  if (!list) return [];
  return named(list).flatMap((argument): ArgumentNode[] => {
    const label = childOf(argument, 'name_colon', 'name_equals');
    const value = named(argument).findLast((child) => child !== label);
    return value ? [{ label: label?.text.replace(/[:=]\s*$/, '').trim() ?? null, node: value }] : [];
  });
}

function called(node: Node): Shape {
  const target = node.childForFieldName('function');
  const name = dottedName((target?.text ?? '').replace(/<[^()<>]*>(?=[.(]|$)/g, ''));
  const before = target?.childForFieldName('expression') ?? target?.childForFieldName('condition');
  const rest = before && !/^(identifier|this_expression|base_expression)$/.test(before.type) ? [before] : [];
  // The result of `HeronBanner.LoadAsync(…)` counts as a `HeronBanner`.
  const makes = /^((?:\w+\.)*[A-Z]\w*)\.\w+$/.exec(name)?.[1];
  const args = argumentsOf(node.childForFieldName('arguments'));
  return { is: 'call', name, args, rest, ...(makes === undefined ? {} : { makes }) };
}

function made(node: Node): Shape {
  const initializer = node.childForFieldName('initializer');
  const name = dottedName(plainType(node.childForFieldName('type')?.text ?? ''));
  return {
    is: 'call',
    name,
    makes: name,
    args: argumentsOf(node.childForFieldName('arguments')),
    rest: initializer ? [initializer] : [],
  };
}

/** An attribute is a call of its name. The grammar takes the target of `[assembly: Name(…)]` for the name. */
function attribute(node: Node): Shape {
  const name = /^\s*(?:assembly|module)\s*:\s*([\w.]+)/.exec(node.text)?.[1];
  return {
    is: 'call',
    name: dottedName(name ?? node.childForFieldName('name')?.text ?? ''),
    args: argumentsOf(childOf(node, 'attribute_argument_list')),
    rest: [],
  };
}

/** `ad.OnClosed += Handle` and `OnClosed = Handle` hand a method over; everything else gives a value. */
function assigned(node: Node): Shape | null {
  const name = dottedName(node.childForFieldName('left')?.text ?? '');
  const value = node.childForFieldName('right');
  if (!value) return null;
  const event = /(?:^|\.)(On[A-Z]\w*)$/.exec(name)?.[1];
  const sign = childOf(node, 'assignment_operator')?.text;
  if (event !== undefined || sign === '+=' || sign === '-=')
    return {
      is: 'call',
      name,
      args: [{ label: sign === '-=' ? null : (event ?? lastOf(name)), node: value }],
      rest: [],
    };
  return { is: 'assign', name, value };
}

const lastOf = (name: string): string => name.split('.').at(-1) ?? name;

/** A function that is given under a name, or to an event, answers by that name. */
function callback(node: Node): Shape {
  const { parent } = node;
  const body = node.childForFieldName('body') ?? childOf(node, 'block') ?? null;
  const label =
    parent?.type === 'argument' ? childOf(parent, 'name_colon')?.text.replace(/:\s*$/, '') : undefined;
  const left = parent?.type === 'assignment_expression' ? parent.childForFieldName('left')?.text : undefined;
  const name = label?.trim() ?? (left === undefined ? undefined : lastOf(dottedName(left)));
  return name === undefined ? { is: 'lambda' } : { is: 'method', name, body };
}

function branch(node: Node): Shape & { is: 'branch' } {
  const condition = node.childForFieldName('condition');
  const [then, otherwise] = ['consequence', 'alternative'].map((field) => node.childForFieldName(field));
  return {
    is: 'branch',
    conditions: condition ? [condition] : [],
    then: then ? [then] : [],
    otherwise: otherwise ? [otherwise] : [],
  };
}

const armsOf = (node: Node): Node[] => named(node).filter(({ type }) => type === 'switch_expression_arm');

/** The pattern of an arm; undefined for the default arm. */
function patternOf(arm: Node): string | undefined {
  const [pattern] = named(arm);
  return !pattern || pattern.type === 'discard' ? undefined : pattern.text;
}

const platformCase = /^(?:\w+\.)*(?:RuntimePlatform|DevicePlatform)\.(Android|IPhonePlayer|iOS)$/;

/** A `switch` by platform says which platforms it names; by anything else it leaves none open. */
function choice(node: Node): Shape {
  const cases = armsOf(node);
  const platforms = cases.flatMap((one) =>
    (patternOf(one) ?? '').split(/\s+or\s+/).flatMap((text) => platformCase.exec(text)?.[1] ?? []),
  );
  const all = cases.some((one) => patternOf(one) === undefined && !/\bthrow\b/.test(one.text));
  const of = platforms.map((name) => (name === 'Android' ? 'android' : 'ios'));
  return {
    is: 'cases',
    cases,
    of: platforms.length === 0 || all ? [...of, 'default'] : of,
    choice: { start: node.startIndex, end: node.endIndex },
  };
}

/** `a == B || a == C` of the pattern `B or C`. */
function equation(subject: string, pattern: string): string {
  return pattern
    .split(/\s+or\s+/)
    .map((one) => `${subject} == ${one}`)
    .join(' || ');
}

function arm(node: Node): Shape | null {
  const { parent } = node;
  const value = named(node).at(-1);
  const subject = parent ? named(parent)[0]?.text : undefined;
  if (!parent || !value || subject === undefined) return null;
  const pattern = patternOf(node);
  const others = armsOf(parent).flatMap((one) => patternOf(one) ?? []);
  const text =
    pattern === undefined
      ? `!(${others.map((one) => equation(subject, one)).join(' || ')})`
      : equation(subject, pattern);
  return { is: 'branch', conditions: [], text, then: [value], otherwise: [] };
}

function labelsOf(section: Node): string[] {
  return named(section).flatMap((child) =>
    /^case_(?:pattern_)?switch_label$/.test(child.type) ? (named(child)[0]?.text ?? []) : [],
  );
}

function section(node: Node): Shape | null {
  const subject = node.parent?.parent?.childForFieldName('value')?.text;
  if (subject === undefined || !node.parent) return null;
  const own = labelsOf(node);
  const others = named(node.parent).flatMap(labelsOf);
  const isDefault = childOf(node, 'default_switch_label') !== undefined;
  const of = (labels: readonly string[]) => labels.map((one) => equation(subject, one)).join(' || ');
  return {
    is: 'branch',
    conditions: [],
    text: isDefault ? `!(${of(others.filter((one) => !own.includes(one)))})` : of(own),
    then: named(node).filter(({ type }) => !type.endsWith('switch_label')),
    otherwise: [],
  };
}

/** A condition longer than this (characters) names nothing. */
const longestCondition = 2_000;

/** `page is { } now` and `page is Page now`. */
function namedPatterns(node: Node): [string, string][] {
  const condition = node.childForFieldName('condition');
  if (!condition || condition.endIndex - condition.startIndex > longestCondition) return [];
  return condition.descendantsOfType('is_pattern_expression').flatMap((one): [string, string][] => {
    const name = one?.childForFieldName('pattern')?.childForFieldName('name')?.text;
    const value = one?.childForFieldName('expression')?.text;
    return name === undefined || value === undefined ? [] : [[name, value]];
  });
}
