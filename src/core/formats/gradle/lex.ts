import type { ReadProblem, Span } from '../../text/problem.js';

export type TokenKind = 'name' | 'string' | 'number' | 'symbol' | 'newline' | 'end';

export interface Token extends Span {
  kind: TokenKind;
  /** The name, symbol or number as written; for a string its contents as written, without the quotes. */
  text: string;
  /** For strings: the quote mark as written. Single quotes do not interpolate. */
  quote?: string;
}

const symbols = [
  '?:',
  '?.',
  '!!',
  '+=',
  '-=',
  '==',
  '!=',
  '&&',
  '||',
  '->',
  '<=',
  '>=',
  '..',
  '::',
  '++',
  '--',
];
const quotes = ['"""', "'''", '"', "'"];

/**
 * Splits a Gradle script, Groovy or Kotlin, into tokens. Comments and blanks are skipped; a `${…}`
 * inside a string may hold quotes and braces of its own.
 */
export function lexGradle(text: string): { tokens: Token[]; problems: ReadProblem[] } {
  const tokens: Token[] = [];
  const problems: ReadProblem[] = [];
  let at = text.startsWith('#!') ? endOfLine(text, 0) : 0;
  const lone: LonePlaceholder = { until: -1 };
  const push = (kind: TokenKind, end: number) => {
    tokens.push({ kind, text: text.slice(at, end), start: at, end });
    at = end;
  };
  while (at < text.length) {
    const char = text[at] ?? '';
    if (char === '\n' || char === '\r') push('newline', at + 1);
    else if (/\s/.test(char) || char === '\ufeff') at++;
    else if (char === '\\' && /^\\\r?\n/.test(text.slice(at, at + 3))) at = endOfLine(text, at) + 1;
    else if (text.startsWith('//', at)) at = endOfLine(text, at);
    else if (text.startsWith('/*', at)) {
      const close = text.indexOf('*/', at + 2);
      if (close < 0) problems.push({ message: 'This comment is never closed.', start: at, end: at + 2 });
      at = close < 0 ? text.length : close + 2;
    } else if (/[A-Za-z_$`]/.test(char)) {
      const end = nameEnd(text, at);
      tokens.push({ kind: 'name', text: text.slice(at, end).replace(/`/g, ''), start: at, end });
      at = end;
    } else if (/[0-9]/.test(char))
      push(
        'number',
        at + (/^[0-9][0-9_]*(\.[0-9][0-9_]*)?[A-Za-z]*/.exec(text.slice(at, at + 64))?.[0].length ?? 1),
      );
    else if (char === '"' || char === "'") {
      const quote = quotes.find((mark) => text.startsWith(mark, at)) ?? char;
      const end = stringEnd(text, at + quote.length, quote, lone);
      if (end === null) {
        problems.push({ message: 'This string is never closed.', start: at, end: at + quote.length });
        at = quote.length === 3 ? text.length : endOfLine(text, at);
      } else {
        tokens.push({
          kind: 'string',
          text: text.slice(at + quote.length, end),
          quote,
          start: at,
          end: end + quote.length,
        });
        at = end + quote.length;
      }
    } else push('symbol', at + (symbols.find((mark) => text.startsWith(mark, at))?.length ?? 1));
  }
  tokens.push({ kind: 'end', text: '', start: text.length, end: text.length });
  return { tokens, problems };
}

function endOfLine(text: string, from: number): number {
  const end = text.indexOf('\n', from);
  return end < 0 ? text.length : end;
}

function nameEnd(text: string, from: number): number {
  if (text[from] === '`') {
    const close = text.indexOf('`', from + 1);
    return close < 0 ? text.length : close + 1;
  }
  let end = from + 1;
  while (end < text.length && /[\w$]/.test(text[end] ?? '')) end++;
  return end;
}

/** The end of the line on which a `${` was never closed: those behind it on the line are plain text too. */
interface LonePlaceholder {
  until: number;
}

/** Offset of the closing quote; null when the string runs off its line (or the file, for triple quotes). */
function stringEnd(text: string, from: number, quote: string, lone: LonePlaceholder): number | null {
  for (let i = from; i < text.length; i++) {
    if (text.startsWith(quote, i)) return i;
    if (text[i] === '\\') i++;
    else if (quote.length === 1 && text[i] === '\n') return null;
    else if (quote[0] === '"' && i > lone.until && text.startsWith('${', i)) {
      const close = skipBraces(text, i + 2);
      if (close === i + 2 && text[close] !== '}') lone.until = endOfLine(text, i);
      i = close;
    }
  }
  return null;
}

/** Offset of the brace that closes a `${`; bounded by the line, so that a lone `${` costs one line at most. */
function skipBraces(text: string, from: number): number {
  let depth = 1;
  for (let i = from; i < text.length && text[i] !== '\n'; i++) {
    if (text[i] === '"') {
      const close = text.indexOf('"', i + 1);
      if (close < 0) return from;
      i = close;
    } else if (text[i] === '{') depth++;
    else if (text[i] === '}' && --depth === 0) return i;
  }
  return from;
}
