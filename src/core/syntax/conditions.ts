import { both, either, opposite, type Compiled } from './compiled.js';

/** What the names and comparisons of a condition come to; undefined for what the build does not decide. */
export interface ConditionTerms {
  name(name: string): Compiled | undefined;
  equals(left: string, right: string): Compiled | undefined;
}

const token =
  /[A-Za-z_$][\w$]*(?:\.[A-Za-z_$][\w$]*|\([^()]*\))*|'(?:[^'\\]|\\.)*'|"(?:[^"\\]|\\.)*"|===?|!==?|&&|\|\||[!()]|\d+/g;

/** Conditions up to this length are weighed; of a longer one it cannot be told whether it holds. */
const maxLength = 2000;

/** A condition as it is kept: on one line, and cut where it is too long to be weighed. */
export function conditionOnOneLine(text: string): string {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length > maxLength ? `${line.slice(0, 200)}…` : line;
}

/**
 * Whether code under a condition goes into a build. Only what the build decides counts: what is asked at run time
 * (`loaded`) is no hindrance, so such a condition says `yes`. Knows names, calls, `!`, `&&`, `||`, brackets and
 * comparisons; `unknown` where the build decides by something that reading cannot see.
 */
export function reachedUnder(text: string, terms: ConditionTerms): Compiled {
  if (text.length > maxLength || text.endsWith('…')) return 'unknown';
  const tokens = text.replace(/\b(?:const|new)\s+/g, '').match(token) ?? [];
  let at = 0;
  let open = false;
  /** The value of a term; null for one that is asked at run time. */
  type Value = Compiled | null;
  const known = (value: Compiled | undefined): Value => {
    if (value === 'unknown') open = true;
    return value ?? null;
  };
  const or = (depth: number): Value => {
    let left = and(depth);
    while (tokens[at] === '||') {
      at++;
      left = joined(left, and(depth), either);
    }
    return left;
  };
  const and = (depth: number): Value => {
    let left = comparison(depth);
    while (tokens[at] === '&&') {
      at++;
      left = joined(left, comparison(depth), both);
    }
    return left;
  };
  const comparison = (depth: number): Value => {
    const left = tokens[at];
    const sign = tokens[at + 1];
    if (left !== undefined && sign !== undefined && /^[!=]==?$/.test(sign) && !/^[!()]$/.test(left)) {
      const right = tokens[at + 2] ?? '';
      at += 3;
      const same = known(terms.equals(left, right) ?? terms.equals(right, left));
      return same !== null && sign.startsWith('!') ? opposite(same) : same;
    }
    return unary(depth);
  };
  const unary = (depth: number): Value => {
    const next = tokens[at++];
    if (next === undefined || depth > 50) return null;
    if (next === '!') {
      const inner = unary(depth + 1);
      return inner === null ? null : opposite(inner);
    }
    if (next === '(') {
      const inner = or(depth + 1);
      if (tokens[at] === ')') at++;
      return inner;
    }
    if (next === 'true' || next === 'false') return next === 'true' ? 'yes' : 'no';
    return known(terms.name(next));
  };
  const value = or(0);
  return value === 'unknown' && !open ? 'yes' : (value ?? 'yes');
}

/** What is asked at run time may hold or not, whatever is beside it. */
function joined(
  left: Compiled | null,
  right: Compiled | null,
  join: (a: Compiled, b: Compiled) => Compiled,
): Compiled | null {
  if (left === null && right === null) return null;
  return join(left ?? 'unknown', right ?? 'unknown');
}
