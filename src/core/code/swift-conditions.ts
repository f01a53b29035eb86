/** Whether a stretch of Swift is compiled: yes, no, or it depends on what reading cannot tell. */
export type Compiled = 'yes' | 'no' | 'unknown';

interface Frame {
  parent: Compiled;
  /** Whether a branch before this one was taken. */
  taken: Compiled;
  now: Compiled;
}

/**
 * Tells for each offset of a Swift file whether it is compiled under the given conditions
 * (`SWIFT_ACTIVE_COMPILATION_CONDITIONS`). Knows names, `!`, `&&`, `||` and brackets; what else may stand
 * after `#if` (`os(…)`, `targetEnvironment(…)`, `swift(…)`) is unknown, but for `os(iOS)`, which holds.
 */
export function swiftConditions(text: string, conditions: ReadonlySet<string>): (offset: number) => Compiled {
  const changes: { at: number; state: Compiled }[] = [{ at: 0, state: 'yes' }];
  const frames: Frame[] = [];
  for (const match of text.matchAll(/^[ \t]*#(if|elseif|else|endif)\b([^\n]*)$/gm)) {
    const [, keyword, rest = ''] = match;
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
    text.replace(/\/\/.*$/, '').match(/[A-Za-z_]\w*\s*\([^()]*\)|[A-Za-z_]\w*|&&|\|\||[!()]/g) ?? [];
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
    if (token.includes('(')) return /^os\s*\(\s*iOS\s*\)$/.test(token) ? 'yes' : 'unknown';
    if (token === 'true' || token === 'false') return token === 'true' ? 'yes' : 'no';
    return conditions.has(token) ? 'yes' : 'no';
  };
  return or();
}

function both(a: Compiled, b: Compiled): Compiled {
  if (a === 'no' || b === 'no') return 'no';
  return a === 'yes' && b === 'yes' ? 'yes' : 'unknown';
}

function either(a: Compiled, b: Compiled): Compiled {
  if (a === 'yes' || b === 'yes') return 'yes';
  return a === 'no' && b === 'no' ? 'no' : 'unknown';
}

function opposite(a: Compiled): Compiled {
  return a === 'unknown' ? a : a === 'yes' ? 'no' : 'yes';
}
