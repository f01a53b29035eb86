import { callsIn, pathOf } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import { both, either, opposite, type Compiled } from '../../../syntax/compiled.js';
import { reachedUnder, type ConditionTerms } from '../../../syntax/conditions.js';
import type { Tree } from '../../../tree/tree.js';
import { blockParts, type Part } from '../../common/gradle/parts.js';

/** What a filter asks of a variant. */
interface FilteredVariant {
  name: string;
  type: string;
  flavours: readonly string[];
}

/** A block of a script that takes variants out of the build. */
export interface VariantFilter {
  path: string;
  start: number;
  /** Whether it takes a variant out. */
  removes: (variant: FilteredVariant) => Compiled;
}

/** Filters longer than this (characters) are left to the build. */
const maxLength = 4_000;

/**
 * The filters of a module: `variantFilter { … }` and `androidComponents { beforeVariants(…) { … } }` (Android,
 * "Configure build variants", "Extend the Android Gradle plugin").
 */
export function variantFilters(
  tree: Tree,
  android: readonly Part[],
  parts: readonly Part[],
): VariantFilter[] {
  const components = blockParts(parts, 'androidComponents');
  const named = (from: readonly Part[], name: RegExp) =>
    from.flatMap(({ path, statements }) =>
      callsIn(statements).flatMap(({ path: call, call: found }) =>
        name.test(call) ? [{ path, found }] : [],
      ),
    );
  return [...named(android, /^variantFilter$/), ...named(components, /^beforeVariants$/)].map(
    ({ path, found }) => {
      const text = tree.text(path)?.text.slice(found.start, found.end) ?? '';
      const selects = selectorOf(found.args[0]?.value);
      const removes = filterOf(text);
      return {
        path,
        start: found.start,
        removes: (variant) => both(selects(variant), removes(variant)),
      };
    },
  );
}

const decided = (holds: boolean): Compiled => (holds ? 'yes' : 'no');

/** What `selector().withBuildType("x").withFlavor("dimension" to "y")` selects. */
function selectorOf(expression: Expression | undefined): (variant: FilteredVariant) => Compiled {
  if (!expression) return () => 'yes';
  if (expression.type !== 'call') return () => 'unknown';
  const { callee, args } = expression;
  if (pathOf(callee) === 'selector') return () => 'yes';
  if (callee.type !== 'member') return () => 'unknown';
  const inner = selectorOf(callee.object);
  const texts = args.flatMap(({ value }) => textsIn(value));
  const last = texts.at(-1);
  if (callee.name === 'all') return inner;
  if (last !== undefined && callee.name === 'withBuildType')
    return (one) => both(inner(one), decided(one.type === last));
  if (last !== undefined && callee.name === 'withName')
    return (one) => both(inner(one), decided(one.name === last));
  if (last !== undefined && callee.name === 'withFlavor')
    return (one) => both(inner(one), decided(one.flavours.includes(last)));
  return () => 'unknown';
}

function textsIn(expression: Expression): string[] {
  if (expression.type === 'string') return [expression.raw];
  if (expression.type === 'binary') return [...textsIn(expression.left), ...textsIn(expression.right)];
  return expression.type === 'call' ? expression.args.flatMap(({ value }) => textsIn(value)) : [];
}

/** What the block of a filter says of a variant: the conditions around what ignores it. */
function filterOf(call: string): (variant: FilteredVariant) => Compiled {
  const brace = call.indexOf('{');
  if (brace < 0 || call.length > maxLength) return () => 'unknown';
  const body = withoutNames(withoutComments(call.slice(brace + 1, call.lastIndexOf('}'))));
  const statements = ignoring(body);
  // A block that ignores in no way that is known here may do it in another one.
  if (statements.length === 0) return /ignore|enable/i.test(body) ? () => 'unknown' : () => 'no';
  return (variant) =>
    statements
      .map(({ conditions, value, isNegative }) => {
        const said = reached(value, variant);
        const around = conditions.map((text) => (text === null ? 'unknown' : reached(text, variant)));
        return [isNegative ? opposite(said) : said, ...around].reduce(both);
      })
      .reduce(either);
}

function withoutComments(text: string): string {
  return text.replace(/\/\*[\s\S]*?\*\/|(^|[^:'"])\/\/[^\n]*/g, '$1');
}

/** The block with its declarations inlined, and with the ways to test flavours normalised. */
function withoutNames(text: string): string {
  let plain = text.replace(/^\s*\(?\s*(\w+)(?:\s*:\s*[\w.]+)?\s*\)?\s*->/, '');
  plain = plain
    .replace(/(?:\w+\.)?(?:flavors|productFlavors|getFlavors\(\))\s*\*\.\s*(?:name|second)/g, 'flavourNames')
    .replace(
      /(?:\w+\.)?(?:flavors|productFlavors)\.(?:collect|map)\s*\{\s*(?:it\.)(?:name|second)\s*\}/g,
      'flavourNames',
    )
    .replace(
      /(?:\w+\.)?(?:flavors|productFlavors)\.any\s*\{[^{}]*?==\s*(["'])(\w+)\1[^{}]*\}/g,
      'flavourNames.contains("$2")',
    )
    .replace(
      /(?:\w+\.)?productFlavors\.contains\(\s*(["'])\w+\1\s+to\s+(["'])(\w+)\2\s*\)/g,
      'flavourNames.contains("$3")',
    );
  const declared = [...plain.matchAll(/\b(?:def|val|var|String|boolean)\s+(\w+)\s*=\s*([^\n;]+)/g)];
  for (const [whole, name = '', value = ''] of declared.slice(0, 20))
    plain = plain
      .replace(whole, '')
      .replace(new RegExp(`(?<![\\w.])${name}\\b`, 'g'), () =>
        /\|\||&&|==|!=/.test(value) ? `(${value.trim()})` : value.trim(),
      );
  return plain;
}

interface Ignoring {
  /** The conditions around it; null for one that cannot be read, such as an `else`. */
  conditions: (string | null)[];
  /** What is assigned. */
  value: string;
  /** Whether the value enables instead of ignoring. */
  isNegative: boolean;
}

const end = String.raw`\s*(?=[\n;}]|$)`;
const assignment = new RegExp(
  [
    String.raw`setIgnore\s*\(([^\n;{}]+)\)${end}`,
    String.raw`(?:\w+\.)?(?:ignore|isIgnore)\s*=(?!=)\s*([^\n;{}]+?)${end}`,
    String.raw`(?:\w+\.)?(?:enable|enabled|isEnabled)\s*=(?!=)\s*([^\n;{}]+?)${end}`,
  ].join('|'),
  'g',
);

/** What ignores or enables in a block, with the conditions that it is under. */
function ignoring(body: string): Ignoring[] {
  return [...body.matchAll(assignment)].map(({ index, 1: set, 2: ignored, 3: enabled }) => ({
    conditions: around(body, index),
    value: set ?? ignored ?? enabled ?? '',
    isNegative: enabled !== undefined,
  }));
}

/** The conditions of the blocks, and of the statement without one, that an offset is in. */
function around(body: string, offset: number): (string | null)[] {
  const found: (string | null)[] = [];
  const open: number[] = [];
  for (let at = 0; at < offset; at++) {
    if (body[at] === '{') open.push(at);
    if (body[at] === '}') open.pop();
  }
  const last = open.at(-1) ?? -1;
  const bare = /\bif\s*\(([^{};\n]*)\)\s*$/.exec(body.slice(last + 1, offset));
  if (bare) found.push(bare[1] ?? null);
  for (const brace of open) {
    const head = /(\belse\s*)?(?:\bif\s*\(([^{};]*)\)|\belse)\s*$/.exec(body.slice(0, brace));
    if (head) found.push(head[1] !== undefined || head[2] === undefined ? null : head[2]);
    else found.push(null);
  }
  return found;
}

function reached(text: string, variant: FilteredVariant): Compiled {
  if (text.trim() === 'true') return 'yes';
  if (text.trim() === 'false') return 'no';
  // Anything but names, texts, brackets and plain operators is more than is read here.
  const isPlain =
    text.length <= 400 &&
    /^[\w\s.'"()!&|=-]*$/.test(text) &&
    !/\b(?:in|is|as|instanceof)\b|=~|==~/.test(text);
  if (!isPlain) return 'unknown';
  return reachedUnder(text, termsOf(variant));
}

/** The properties of a variant that a filter may test. Anything else is unknown: no variant is removed by a guess. */
function termsOf({ name, type, flavours }: FilteredVariant): ConditionTerms {
  const flavour = flavours
    .map((one, at) => (at === 0 ? one : one.charAt(0).toUpperCase() + one.slice(1)))
    .join('');
  const valueOf = (asked: string): string | undefined => {
    if (/(^|\.)buildType(\.name)?$/.test(asked)) return type;
    if (/(^|\.)flavorName$/.test(asked)) return flavour;
    return /^(?:\w+\.)?name$/.test(asked) ? name : undefined;
  };
  const literalOf = (text: string) => /^(['"])(.*)\1$/.exec(text)?.[2];
  return {
    equals(left, right) {
      const [value, text] = [valueOf(left), literalOf(right)];
      if (value !== undefined && text !== undefined) return decided(value === text);
      return literalOf(left) === undefined ? 'unknown' : undefined;
    },
    name(asked) {
      const found =
        /^(.*)\.(equals|contains|startsWith|endsWith|equalsIgnoreCase)\(\s*(['"])([^'"]*)\3\s*\)$/.exec(
          asked,
        );
      const [, object = '', method, , text = ''] = found ?? [];
      if (object === 'flavourNames')
        return method === 'contains' ? decided(flavours.includes(text)) : 'unknown';
      const value = valueOf(object);
      if (value === undefined) return 'unknown';
      if (method === 'equals') return decided(value === text);
      if (method === 'equalsIgnoreCase') return decided(value.toLowerCase() === text.toLowerCase());
      if (method === 'contains') return decided(value.includes(text));
      return decided(method === 'startsWith' ? value.startsWith(text) : value.endsWith(text));
    },
  };
}
