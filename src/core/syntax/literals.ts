import type { Span } from '../text/problem.js';

/** A string literal of a source file; its span leaves the quotes out. */
export interface StringLiteral extends Span {
  value: string;
}

/** How comments and strings are written in a language. */
export interface LiteralSyntax {
  nestedComments: boolean;
  /** Triple-quoted strings are known. */
  tripleQuotes: boolean;
  /** Strings may be in single quotes, or in grave accents over several lines. */
  singleQuotes?: true;
  graveAccents?: true;
  /** `${…}` within a string is code. */
  interpolates?: true;
}

/** The string literals of a source file. What is in comments does not count. */
export function stringLiterals(text: string, syntax: LiteralSyntax): StringLiteral[] {
  return [...passages(text, syntax)].flatMap(({ kind, start, end }) =>
    kind === 'string' ? [{ value: text.slice(start, end), start, end }] : [],
  );
}

/** A source file with comments and the insides of strings blanked: offsets stay, only code is left. */
export function codeAlone(text: string, syntax: LiteralSyntax): string {
  let code = '';
  let at = 0;
  for (const { kind, start, end } of passages(text, syntax)) {
    code += text.slice(at, start) + blanked(text.slice(start, end), kind === 'string' && syntax.interpolates);
    at = end;
  }
  return code + text.slice(at);
}

function blanked(text: string, interpolates: boolean | undefined): string {
  const blank = (part: string) => part.replace(/[^\r\n]/g, ' ');
  if (!interpolates || !text.includes('${')) return blank(text);
  return text
    .split(/(\$\{[^{}]*\})/)
    .reduce((all, part, at) => all + (at % 2 === 1 ? part : blank(part)), '');
}

/** The comments and strings of a source file, in their order; the span of a string leaves its quotes out. */
function* passages(text: string, syntax: LiteralSyntax): Iterable<Span & { kind: 'comment' | 'string' }> {
  let at = 0;
  while (at < text.length) {
    if (text.startsWith('//', at)) {
      const line = text.indexOf('\n', at);
      const end = line < 0 ? text.length : line;
      yield { kind: 'comment', start: at, end };
      at = end;
    } else if (text.startsWith('/*', at)) {
      const end = commentEnd(text, at, syntax.nestedComments);
      yield { kind: 'comment', start: at, end };
      at = end;
    } else if (syntax.tripleQuotes && isTriple(text, at, syntax)) {
      const end = text.indexOf(text.slice(at, at + 3), at + 3);
      if (end < 0) return;
      yield { kind: 'string', start: at + 3, end };
      at = end + 3;
    } else if (isQuote(text[at], syntax)) {
      const end = quoteEnd(text, at + 1, text[at] ?? '"');
      if (end !== null) yield { kind: 'string', start: at + 1, end };
      at = (end ?? at) + 1;
    } else if (text[at] === "'") {
      // A character literal: `'"'` must not open a string.
      const match = /^'(\\.|[^'\\\n])'/.exec(text.slice(at, at + 4));
      at += match ? match[0].length : 1;
    } else at++;
  }
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

function isTriple(text: string, at: number, { singleQuotes }: LiteralSyntax): boolean {
  return text.startsWith('"""', at) || (singleQuotes === true && text.startsWith("'''", at));
}

function isQuote(character: string | undefined, { singleQuotes, graveAccents }: LiteralSyntax): boolean {
  if (character === "'") return singleQuotes === true;
  return character === '"' || (character === '`' && graveAccents === true);
}

/** Where a string ends; null for one that is open at the end of its line, which only grave accents may be. */
function quoteEnd(text: string, from: number, quote: string): number | null {
  for (let i = from; i < text.length && (quote === '`' || text[i] !== '\n'); i++) {
    if (text[i] === '\\') i++;
    else if (text[i] === quote) return i;
  }
  return null;
}
