import { conditionOnOneLine, reachedUnder, type ConditionTerms } from '../syntax/conditions.js';
import type { Compiled } from '../syntax/compiled.js';
import type { Tree } from '../tree/tree.js';
import { codeOf, readingOf } from './source-files.js';
import type { Condition } from './source-reading.js';

const maxDepth = 6;
/** The longest value of a constant that is read (characters). */
const maxValue = 2500;

/** The value of a name in the code, as written; undefined for a variable, or a name that the file does not define. */
export type Flags = (name: string) => string | undefined;

export function flagsOf(tree: Tree, path: string): Flags {
  const flags = new Map<string, string | undefined>();
  return (name) => {
    if (!flags.has(name)) flags.set(name, fixedValue(tree, path, name));
    return flags.get(name);
  };
}

/** Whether code under a condition goes into a build, the flags of the code's own followed. */
export function weigh({ text, holds }: Condition, terms: ConditionTerms, flags: Flags): Compiled {
  const known = reachedUnder(text, followed(terms, flags));
  return holds || known === 'unknown' ? known : reachedUnder(`!(${text})`, followed(terms, flags));
}

/** Terms that know the constants of the code's own, too. */
function followed(terms: ConditionTerms, flag: Flags, depth = 0): ConditionTerms {
  const inner = () => followed(terms, flag, depth + 1);
  return {
    name(name) {
      const known = terms.name(name);
      if (known !== undefined || depth > maxDepth) return known;
      const value = flag(name);
      return value === undefined ? undefined : flagState(value, inner());
    },
    equals(left, right) {
      const known = terms.equals(left, right);
      if (known !== undefined || depth > maxDepth) return known;
      const value = flag(left);
      return value === undefined ? undefined : inner().equals(value, right);
    },
  };
}

/** What a constant comes to; undefined where run time decides it. */
function flagState(value: string, terms: ConditionTerms): Compiled | undefined {
  const holds = reachedUnder(value, terms);
  const fails = reachedUnder(`!(${value})`, terms);
  if (holds === 'unknown' || fails === 'unknown') return 'unknown';
  return holds === fails ? undefined : holds;
}

/** The text of a constant's value; undefined for a variable, or for a name that the file does not give. */
function fixedValue(tree: Tree, path: string, name: string): string | undefined {
  const text = tree.text(path)?.text;
  const plain = name.replace(/\(\)$/, '');
  const [value, ...more] = readingOf(tree, path).constants.get(plain) ?? [];
  if (text === undefined || more.length > 0) return undefined;
  const before = value ? text.slice(Math.max(0, value.start - 200), value.start) : '';
  if (!value || !/\b(const|final|readonly|val)\b[^;{}]*$/.test(before)) return returned(tree, path, plain);
  // The reading of a value may begin within it (`!kReleaseMode`), so it is taken from the sign before it.
  const from = value.start - (/=\s*([^=;]*)$/.exec(before)?.[1]?.length ?? 0);
  // Without semicolons a value ends with its line, unless an operator says that it goes on.
  const written = /^(?:(?:&&|\|\||[!=]==?|[(?:])[ \t]*\r?\n|\r?\n(?=\s*(?:&&|\|\||[!=]==?|[)?:]))|[^;\n])*/;
  return conditionOnOneLine(written.exec(text.slice(from, from + maxValue))?.[0] ?? '');
}

/** What a computed flag gives back: `bool get isTest => kDebugMode`, `static bool IsApple => …`. */
function returned(tree: Tree, path: string, name: string): string | undefined {
  if (!/^\w+$/.test(name)) return undefined;
  const code = codeOf(tree, path);
  const arrow = new RegExp(
    `(?<![\\w$.])${name}\\s*(?:=\\s*)?(?:\\(\\s*\\))?\\s*(?::\\s*\\w+\\s*)?=>\\s*([^;{}]{1,${maxValue}});`,
    'gd',
  );
  const [found, ...more] = code.matchAll(arrow);
  const [start, end] = found?.indices?.[1] ?? [];
  if (more.length > 0 || start === undefined || end === undefined) return undefined;
  return conditionOnOneLine(tree.text(path)?.text.slice(start, end) ?? '');
}
