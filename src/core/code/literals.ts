import type { Span } from '../formats/problem.js';

/** A string literal of a source file; its span leaves the quotes out. */
export interface StringLiteral extends Span {
  value: string;
}

/** How comments and strings are written in a language. */
export interface LiteralSyntax {
  nestedComments: boolean;
  /** Triple-quoted strings are known. */
  tripleQuotes: boolean;
}

export const kotlinSyntax: LiteralSyntax = { nestedComments: true, tripleQuotes: true };
export const javaSyntax: LiteralSyntax = { nestedComments: false, tripleQuotes: true };
export const swiftSyntax: LiteralSyntax = { nestedComments: true, tripleQuotes: true };

/** The string literals of a source file. What stands in comments does not count. */
export function stringLiterals(text: string, syntax: LiteralSyntax): StringLiteral[] {
  const found: StringLiteral[] = [];
  let at = 0;
  while (at < text.length) {
    if (text.startsWith('//', at)) {
      const end = text.indexOf('\n', at);
      at = end < 0 ? text.length : end;
    } else if (text.startsWith('/*', at)) at = commentEnd(text, at, syntax.nestedComments);
    else if (syntax.tripleQuotes && text.startsWith('"""', at)) {
      const end = text.indexOf('"""', at + 3);
      if (end < 0) break;
      found.push({ value: text.slice(at + 3, end), start: at + 3, end });
      at = end + 3;
    } else if (text[at] === '"') {
      const end = quoteEnd(text, at + 1);
      if (end !== null) found.push({ value: text.slice(at + 1, end), start: at + 1, end });
      at = (end ?? at) + 1;
    } else if (text[at] === "'") {
      // A character literal: `'"'` must not open a string.
      const match = /^'(\\.|[^'\\\n])'/.exec(text.slice(at, at + 4));
      at += match ? match[0].length : 1;
    } else at++;
  }
  return found;
}

function commentEnd(text: string, from: number, nested: boolean): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text.startsWith('/*', i) && (nested || depth === 0)) {
      depth++;
      i++;
    } else if (text.startsWith('*/', i)) {
      i++;
      if (--depth === 0) return i + 1;
    }
  }
  return text.length;
}

function quoteEnd(text: string, from: number): number | null {
  for (let i = from; i < text.length && text[i] !== '\n'; i++) {
    if (text[i] === '\\') i++;
    else if (text[i] === '"') return i;
  }
  return null;
}
