import { RE2JS, RE2JSException } from 're2js';

/** A pattern that is held against whole texts. The time that it takes grows with the length of the text, whatever it is. */
export interface Pattern {
  /** The names of its groups. */
  readonly names: readonly string[];
  matches(text: string): boolean;
  /** What the named groups stand for in a text; undefined where it does not match. */
  groupsOf(text: string): ReadonlyMap<string, string> | undefined;
}

/** A pattern is not one that can be read. The message says what is wrong with it. */
export class PatternError extends Error {
  override readonly name = 'PatternError';
}

/**
 * Reads a pattern in the syntax of RE2: that of common regular expressions without looking around, references to
 * groups, and `\u` escapes. RE2 itself: github.com/google/re2/wiki/Syntax.
 * @throws PatternError
 */
export function readPattern(source: string): Pattern {
  let compiled: RE2JS;
  try {
    compiled = RE2JS.compile(source);
  } catch (error) {
    if (!(error instanceof RE2JSException)) throw error;
    throw new PatternError(error.message.replace(/^error parsing regexp: /, ''), { cause: error });
  }
  const names = Object.keys(compiled.namedGroups());
  return {
    names,
    matches: (text) => compiled.matches(text),
    groupsOf(text) {
      const matcher = compiled.matcher(text);
      if (!matcher.matches()) return undefined;
      return new Map(
        names.flatMap((name) => {
          const group = matcher.group(name);
          return group === null ? [] : [[name, group] as const];
        }),
      );
    },
  };
}
