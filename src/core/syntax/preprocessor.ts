import type { Span } from '../text/problem.js';
import { both, either, opposite, type Compiled } from './compiled.js';

/** Whether a build defines a name that code asks for with `#if`. */
export type IsDefined = (name: string) => Compiled;

/** Where all names are known that a build defines. */
export function definedIn(names: ReadonlySet<string>): IsDefined {
  return (name) => (names.has(name) ? 'yes' : 'no');
}

interface Frame {
  parent: Compiled;
  /** Whether a branch before this one was taken. */
  taken: Compiled;
  now: Compiled;
}

const branching = /^[ \t]*#[ \t]*(ifdef|ifndef|if|elseif|elif|else|endif)\b([^\n]*)$/gm;

/**
 * Tells for each offset of a file whether a build compiles it: Swift (`SWIFT_ACTIVE_COMPILATION_CONDITIONS`),
 * Objective-C (what `GCC_PREPROCESSOR_DEFINITIONS` defines) and C# (`DefineConstants`, scripting symbols). Knows
 * names, `!`, `&&`, `||` and brackets; what else may be after `#if` (`canImport(…)`, `swift(…)`) is unknown;
 * `os(…)` and `targetEnvironment(…)` are asked of a device.
 */
export function compiledAt(text: string, isDefined: IsDefined): (offset: number) => Compiled {
  const changes: { at: number; state: Compiled }[] = [{ at: 0, state: 'yes' }];
  const frames: Frame[] = [];
  for (const match of text.matchAll(branching)) {
    const [, word = '', named = ''] = match;
    // Objective-C asks `#ifdef NAME` and `#elif`, and `#if defined(NAME)`.
    const keyword = word === 'elif' ? 'elseif' : word.startsWith('if') ? 'if' : word;
    const rest = `${word === 'ifndef' ? '!' : ''}${named.replace(/\bdefined\s*\(?\s*(\w+)\s*\)?/g, '$1')}`;
    const frame = frames.at(-1);
    if (keyword === 'if') {
      const parent = changes.at(-1)?.state ?? 'yes';
      const holds = evaluateCondition(rest, isDefined);
      frames.push({ parent, taken: holds, now: both(parent, holds) });
    } else if (!frame) continue;
    else if (keyword === 'endif') frames.pop();
    else {
      const holds = keyword === 'else' ? 'yes' : evaluateCondition(rest, isDefined);
      frame.now = both(frame.parent, both(opposite(frame.taken), holds));
      frame.taken = either(frame.taken, holds);
    }
    const state = keyword === 'endif' ? (frame?.parent ?? 'yes') : (frames.at(-1)?.now ?? 'yes');
    changes.push({ at: match.index + match[0].length, state });
  }
  return (offset) => {
    // The last change at or before the offset, by halves.
    let [low, high] = [0, changes.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if ((changes[middle]?.at ?? Infinity) <= offset) low = middle;
      else high = middle - 1;
    }
    return changes[low]?.state ?? 'yes';
  };
}

/** What is nested deeper in a condition is not computed. */
const maxConditionDepth = 100;

/** Evaluates the text after `#if`. */
export function evaluateCondition(text: string, isDefined: IsDefined): Compiled {
  const tokens =
    text.replace(/\/\/.*$/, '').match(/[A-Za-z_]\w*\s*\([^()]*\)|[A-Za-z_]\w*|&&|\|\||[!()]|\b[01]\b/g) ?? [];
  let at = 0;
  let depth = 0;
  const or = (): Compiled => {
    let left = and();
    while (tokens[at] === '||') {
      at++;
      left = either(left, and());
    }
    return left;
  };
  const and = (): Compiled => {
    let left = unary();
    while (tokens[at] === '&&') {
      at++;
      left = both(left, unary());
    }
    return left;
  };
  const unary = (): Compiled => {
    const token = tokens[at++];
    if (token === '!' || token === '(') {
      if (depth > maxConditionDepth) return 'unknown';
      depth++;
      const inner = token === '!' ? opposite(unary()) : or();
      if (token === '(' && tokens[at] === ')') at++;
      depth--;
      return inner;
    }
    if (token === undefined) return 'unknown';
    const asked = /^(os|targetEnvironment)\s*\(\s*(\w+)\s*\)$/.exec(token);
    // What goes to the store is built for devices.
    if (asked)
      return asked[1] === 'os' && asked[2] === 'iOS' ? 'yes' : asked[2] === 'macCatalyst' ? 'unknown' : 'no';
    if (token.includes('(')) return 'unknown';
    if (token === 'true' || token === 'false' || /^[01]$/.test(token))
      return token === 'true' || token === '1' ? 'yes' : 'no';
    return isDefined(token);
  };
  return or();
}

interface Branch extends Span {
  chains: Branch[][];
  seen: boolean;
}

/** Files with more ways through their conditions than this are not followed in every one. */
const maxViews = 12;
/** Files with deeper nested conditions are read with every branch included. */
const maxIfs = 100;

const directive =
  /^[ \t]*#[ \t]*(if|elif|else|endif|define|undef|region|endregion|pragma|nullable|line|error|warning)\b[^\r\n]*/gm;

/**
 * A C# file as the compiler may see it, once for each way through its `#if`s until every branch was seen: the other
 * branches and all directives are blanked, so offsets stay.
 */
export function preprocessed(text: string): string[] {
  const blanks: Span[] = [];
  const root: Branch = { start: 0, end: text.length, chains: [], seen: true };
  const open: { chain: Branch[]; outer: Branch }[] = [];
  let inside = root;
  let deepest = 0;
  for (const match of text.matchAll(directive)) {
    const [whole, word] = match;
    const { index: start } = match;
    const end = start + whole.length;
    blanks.push({ start, end });
    const innermost = open.at(-1);
    deepest = Math.max(deepest, open.length);
    if (word === 'if') {
      const chain: Branch[] = [];
      inside.chains.push(chain);
      open.push({ chain, outer: inside });
      chain.push((inside = { start: end, end: text.length, chains: [], seen: false }));
    } else if (innermost && (word === 'elif' || word === 'else' || word === 'endif')) {
      inside.end = start;
      if (word === 'endif') {
        open.pop();
        inside = innermost.outer;
      } else innermost.chain.push((inside = { start: end, end: text.length, chains: [], seen: false }));
    }
  }
  if (blanks.length === 0) return [text];
  if (deepest > maxIfs) return [blanked(text, blanks)];
  const views: string[] = [];
  do views.push(blanked(text, [...blanks, ...passedOver(root)]));
  while (views.length < maxViews && isOpen(root));
  return views;
}

function isOpen({ seen, chains }: Branch): boolean {
  return !seen || chains.some((chain) => chain.some(isOpen));
}

/** Takes a way through the conditions below a branch, and says what is not on it. */
function passedOver({ chains }: Branch): Span[] {
  return chains.flatMap((chain) => {
    const taken = chain.find(isOpen) ?? chain[0];
    if (!taken) return [];
    taken.seen = true;
    return [...chain.filter((branch) => branch !== taken), ...passedOver(taken)];
  });
}

function blanked(text: string, spans: readonly Span[]): string {
  let made = '';
  let at = 0;
  for (const { start, end } of [...spans].sort((a, b) => a.start - b.start || b.end - a.end)) {
    if (end <= at) continue;
    const from = Math.max(start, at);
    made += text.slice(at, from) + text.slice(from, end).replace(/[^\r\n]/g, ' ');
    at = end;
  }
  return made + text.slice(at);
}
