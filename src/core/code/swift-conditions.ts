import { both, either, opposite, type Compiled } from './compiled.js';

interface Frame {
  parent: Compiled;
  /** Whether a branch before this one was taken. */
  taken: Compiled;
  now: Compiled;
}

/**
 * Tells for each offset of a Swift or Objective-C file whether it is compiled under the given conditions
 * (`SWIFT_ACTIVE_COMPILATION_CONDITIONS`, or the names that `GCC_PREPROCESSOR_DEFINITIONS` defines). Knows names, `!`, `&&`, `||` and brackets; what else may stand
 * after `#if` (`canImport(…)`, `swift(…)`) is unknown; `os(…)` and `targetEnvironment(…)` are asked of a device.
 */
export function swiftConditions(text: string, conditions: ReadonlySet<string>): (offset: number) => Compiled {
  const changes: { at: number; state: Compiled }[] = [{ at: 0, state: 'yes' }];
  const frames: Frame[] = [];
  for (const match of text.matchAll(/^[ \t]*#[ \t]*(ifdef|ifndef|if|elseif|elif|else|endif)\b([^\n]*)$/gm)) {
    const [, word = '', named = ''] = match;
    // Objective-C asks `#ifdef NAME` and `#elif`, and `#if defined(NAME)`.
    const keyword = word === 'elif' ? 'elseif' : word.startsWith('if') ? 'if' : word;
    const rest = `${word === 'ifndef' ? '!' : ''}${named.replace(/\bdefined\s*\(?\s*(\w+)\s*\)?/g, '$1')}`;
    const frame = frames.at(-1);
    if (keyword === 'if') {
      const parent = changes.at(-1)?.state ?? 'yes';
      const holds = evaluateCondition(rest, conditions);
      frames.push({ parent, taken: holds, now: both(parent, holds) });
    } else if (!frame) continue;
    else if (keyword === 'endif') frames.pop();
    else {
      const holds = keyword === 'else' ? 'yes' : evaluateCondition(rest, conditions);
      frame.now = both(frame.parent, both(opposite(frame.taken), holds));
      frame.taken = either(frame.taken, holds);
    }
    const state = keyword === 'endif' ? (frame?.parent ?? 'yes') : (frames.at(-1)?.now ?? 'yes');
    changes.push({ at: match.index + match[0].length, state });
  }
  return (offset) => changes.findLast(({ at }) => at <= offset)?.state ?? 'yes';
}

/** Evaluates the text after `#if`. */
export function evaluateCondition(text: string, conditions: ReadonlySet<string>): Compiled {
  const tokens =
    text.replace(/\/\/.*$/, '').match(/[A-Za-z_]\w*\s*\([^()]*\)|[A-Za-z_]\w*|&&|\|\||[!()]|\b[01]\b/g) ?? [];
  let at = 0;
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
    if (token === '!') return opposite(unary());
    if (token === '(') {
      const inner = or();
      if (tokens[at] === ')') at++;
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
    return conditions.has(token) ? 'yes' : 'no';
  };
  return or();
}
