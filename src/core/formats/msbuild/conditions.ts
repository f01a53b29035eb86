import { both, either, opposite, type Compiled } from '../../syntax/compiled.js';

/** A text with its references put in; null, with the reason, where that takes more than reading. */
export type Expanded = { value: string } | { value: null; reason: string };

/** What a property is worth on request. */
export type PropertyLookup = (name: string) => Expanded | undefined;

const reference = /\$\(((?:[^()']|'[^']*'|\((?:[^()']|'[^']*'|\([^()]*\))*\))*)\)/g;
const maxLength = 4000;

/**
 * Puts properties into a text: `$(Name)`, and the functions by which projects ask what they are built for
 * (learn.microsoft.com, "Property functions"). A property that nothing sets is empty.
 */
export function expand(text: string, lookup: PropertyLookup): Expanded {
  if (text.length > maxLength) return { value: null, reason: 'it is too long to evaluate' };
  let failed: string | undefined;
  const value = text.replace(reference, (whole, inner: string) => {
    const found = expandOne(inner.trim(), lookup);
    if (found.value !== null) return found.value;
    failed ??= found.reason;
    return whole;
  });
  return failed === undefined ? { value } : { value: null, reason: failed };
}

function expandOne(inner: string, lookup: PropertyLookup): Expanded {
  if (/^[A-Za-z_][\w.-]*$/.test(inner) && !inner.includes('.')) return lookup(inner) ?? { value: '' };
  const method = /^([A-Za-z_]\w*)\.(\w+)\((.*)\)$/s.exec(inner);
  if (method) {
    const [, name = '', called = '', given = ''] = method;
    const subject = lookup(name) ?? { value: '' };
    const argument = expand(unquoted(given), lookup);
    if (subject.value === null) return subject;
    if (argument.value === null) return argument;
    return calledOn(subject.value, called, argument.value) ?? notKnown(inner);
  }
  const asked = /^\[MSBuild\]::(\w+)\((.*)\)$/s.exec(inner);
  if (asked) {
    const [, called = '', given = ''] = asked;
    const argument = expand(unquoted(given), lookup);
    if (argument.value === null) return argument;
    if (called === 'GetTargetPlatformIdentifier') return { value: platformIn(argument.value) };
    if (called === 'GetTargetFrameworkIdentifier')
      return { value: /^net\d/.test(argument.value) ? '.NETCoreApp' : '' };
    if (called === 'GetTargetFrameworkVersion')
      return { value: /^net(\d+\.\d+)/.exec(argument.value)?.[1] ?? '' };
    if (called === 'IsOSPlatform') return { value: null, reason: 'it depends on the machine that builds' };
  }
  return notKnown(inner);
}

function notKnown(inner: string): Expanded {
  return { value: null, reason: `$(${inner.slice(0, 80)}) is computed only by the build` };
}

/** `android` of `net8.0-android34.0`. */
export function platformIn(framework: string): string {
  return /^net\d+\.\d+-([a-z]+)/.exec(framework)?.[1] ?? '';
}

function unquoted(text: string): string {
  return /^\s*(['"`])([\s\S]*)\1\s*$/.exec(text)?.[2] ?? text.trim();
}

function calledOn(subject: string, name: string, argument: string): Expanded | undefined {
  const truth = (holds: boolean) => ({ value: holds ? 'True' : 'False' });
  switch (name) {
    case 'Contains':
      return truth(subject.includes(argument));
    case 'StartsWith':
      return truth(subject.startsWith(argument));
    case 'EndsWith':
      return truth(subject.endsWith(argument));
    case 'ToLower':
    case 'ToLowerInvariant':
      return { value: subject.toLowerCase() };
    case 'ToUpper':
    case 'ToUpperInvariant':
      return { value: subject.toUpperCase() };
    default:
      return undefined;
  }
}

const token =
  /'[^']*'|\$\((?:[^()']|'[^']*'|\((?:[^()']|'[^']*'|\([^()]*\))*\))*\)|==|!=|<=|>=|[<>!()]|[^\s'()<>=!]+/g;

/** Whether a condition holds (learn.microsoft.com, "MSBuild conditions"); words are compared without regard to case. */
export function conditionHolds(text: string, lookup: PropertyLookup): Compiled {
  if (text.trim() === '') return 'yes';
  const tokens = text.length > maxLength ? [] : (text.match(token) ?? []);
  if (tokens.length === 0) return 'unknown';
  let at = 0;
  const or = (depth: number): Compiled => {
    let left = and(depth);
    while (/^or$/i.test(tokens[at] ?? '')) {
      at++;
      left = either(left, and(depth));
    }
    return left;
  };
  const and = (depth: number): Compiled => {
    let left = unary(depth);
    while (/^and$/i.test(tokens[at] ?? '')) {
      at++;
      left = both(left, unary(depth));
    }
    return left;
  };
  const unary = (depth: number): Compiled => {
    if (depth > 50) return 'unknown';
    if (tokens[at] === '!') {
      at++;
      return opposite(unary(depth + 1));
    }
    if (tokens[at] === '(') {
      at++;
      const inside = or(depth + 1);
      if (tokens[at] === ')') at++;
      return inside;
    }
    const left = tokens[at++] ?? '';
    if (tokens[at] === '(') {
      // Exists('…') and the like ask the disk of whoever builds.
      while (at < tokens.length && tokens[at++] !== ')');
      return 'unknown';
    }
    const sign = tokens[at];
    if (sign === undefined || !/^(==|!=|<=|>=|<|>)$/.test(sign))
      return truthOf(expand(unquoted(left), lookup));
    const right = tokens[at + 1] ?? '';
    at += 2;
    return compared(expand(unquoted(left), lookup), sign, expand(unquoted(right), lookup));
  };
  return or(0);
}

function truthOf(found: Expanded): Compiled {
  if (found.value === null) return 'unknown';
  if (/^(true|on|yes|!false|!off|!no)$/i.test(found.value)) return 'yes';
  return /^(false|off|no|!true|!on|!yes)$/i.test(found.value) ? 'no' : 'unknown';
}

function compared(left: Expanded, sign: string, right: Expanded): Compiled {
  if (left.value === null || right.value === null) return 'unknown';
  if (sign === '==' || sign === '!=') {
    const same = left.value.toLowerCase() === right.value.toLowerCase();
    return same === (sign === '==') ? 'yes' : 'no';
  }
  const [a, b] = [Number(left.value), Number(right.value)];
  if (Number.isNaN(a) || Number.isNaN(b)) return 'unknown';
  const holds = sign === '<' ? a < b : sign === '>' ? a > b : sign === '<=' ? a <= b : a >= b;
  return holds ? 'yes' : 'no';
}
