import type { ReadProblem, Span } from '../../text/problem.js';
import { quotes, slashyEnd, stringEnd, type FailedTemplate } from './lex-strings.js';

export type TokenKind = 'name' | 'string' | 'number' | 'symbol' | 'newline' | 'end';

export interface Token extends Span {
  kind: TokenKind;
  /** The name, symbol or number as written; for a string its contents as written, without the quotes. */
  text: string;
  /** For strings: the opening quote mark as written. Single quotes do not interpolate. */
  quote?: string;
}

/** The symbols of more than one character, the longest first. */
const symbols = [
  ['==~', '===', '!==', '<=>', '...', '..<', '**='],
  ['?:', '?.', '*.', '.&', '!!', '+=', '-=', '*=', '/=', '%=', '==', '!=', '=~', '&&', '||', '->', '<='],
  ['>=', '..', '::', '++', '--', '**', '<<'],
].flat();

/**
 * Splits a Gradle script, Groovy or Kotlin, into tokens. Comments and blanks are skipped; a `${…}` inside a string may
 * hold strings, braces and lines of its own. Groovy's `/…/` and `$/…/$` are strings where a value is expected; anywhere
 * else `/` divides.
 *
 * Source: the lexical structure of the Groovy and the Kotlin language documentation.
 */
export function lexGradle(text: string): { tokens: Token[]; problems: ReadProblem[] } {
  const lexer = new GradleLexer(text);
  return { tokens: lexer.run(), problems: lexer.problems };
}

class GradleLexer {
  readonly problems: ReadProblem[] = [];
  private readonly tokens: Token[] = [];
  private readonly failed: FailedTemplate = { until: -1 };
  /** Behind this offset no slashy string is closed any more. */
  private unclosedSlashy = Infinity;
  private at = 0;

  constructor(private readonly text: string) {}

  run(): Token[] {
    const { text, tokens } = this;
    if (text.startsWith('#!')) this.at = this.endOfLine(0);
    while (this.at < text.length) this.next(text[this.at] ?? '');
    tokens.push({ kind: 'end', text: '', start: text.length, end: text.length });
    return tokens;
  }

  private next(char: string): void {
    const { text, at } = this;
    if (char === '\n' || char === '\r') this.push('newline', at + 1);
    else if (/\s/.test(char) || char === '\ufeff') this.at++;
    else if (char === '\\' && /^\\\r?\n/.test(text.slice(at, at + 3))) this.at = this.endOfLine(at) + 1;
    else if (text.startsWith('//', at)) this.at = this.endOfLine(at);
    else if (text.startsWith('/*', at)) this.comment();
    else if (char === '/' && this.slashy('/')) return;
    else if (text.startsWith('$/', at) && this.slashy('$/')) return;
    else if (/[\p{L}_$`]/u.test(char)) this.name();
    else if (/[0-9]/.test(char)) this.number();
    else if (char === '"' || char === "'") this.string(char);
    else this.push('symbol', at + (symbols.find((mark) => text.startsWith(mark, at))?.length ?? 1));
  }

  private push(kind: TokenKind, end: number, quote = '', close = quote): void {
    const token = { kind, text: this.text.slice(this.at + quote.length, end - close.length) };
    this.tokens.push({ ...token, ...(quote ? { quote } : {}), start: this.at, end });
    this.at = end;
  }

  private comment(): void {
    const close = this.text.indexOf('*/', this.at + 2);
    if (close < 0) this.problem('This comment is never closed.', 2);
    this.at = close < 0 ? this.text.length : close + 2;
  }

  private number(): void {
    const { text, at } = this;
    const written = /^(?:0[xX][\da-fA-F_]+|[0-9][0-9_]*(?:\.[0-9][0-9_]*)?)[A-Za-z]*/.exec(
      text.slice(at, at + 64),
    );
    this.push('number', at + (written?.[0].length ?? 1));
  }

  private name(): void {
    const { text, at } = this;
    let end = at + 1;
    if (text[at] === '`') {
      const close = text.indexOf('`', at + 1);
      const isClosed = close >= 0 && !/[\r\n]/.test(text.slice(at, close));
      end = isClosed ? close + 1 : this.endOfLine(at);
    } else while (end < text.length && /[\p{L}\p{N}_$]/u.test(text[end] ?? '')) end++;
    this.tokens.push({ kind: 'name', text: text.slice(at, end).replace(/`/g, ''), start: at, end });
    this.at = end;
  }

  private string(char: string): void {
    const { text, at } = this;
    const quote = quotes.find((mark) => text.startsWith(mark, at)) ?? char;
    const end = stringEnd(text, at + quote.length, quote, this.failed);
    if (end !== null) {
      this.push('string', end + quote.length, quote);
      return;
    }
    this.problem('This string is never closed.', quote.length);
    this.at = quote.length === 3 ? text.length : this.endOfLine(at);
  }

  /** Reads `/…/` or `$/…/$` where a value is expected; false when there is none here. */
  private slashy(open: '/' | '$/'): boolean {
    const { text, at } = this;
    if (at >= this.unclosedSlashy || !this.valueExpected()) return false;
    const close = open === '/' ? '/' : '/$';
    const end = slashyEnd(text, at + open.length, close);
    if (end === null) {
      this.unclosedSlashy = at;
      return false;
    }
    this.push('string', end + close.length, open, close);
    return true;
  }

  /** Whether an operand comes next: at the beginning, and behind an operator, a comma or an opening bracket. */
  private valueExpected(): boolean {
    const before = this.tokens.at(-1);
    if (!before || before.kind === 'newline') return true;
    if (before.kind === 'name') return ['return', 'in', 'case', 'assert', 'else'].includes(before.text);
    return before.kind === 'symbol' && ![')', ']', '}', '++', '--', '!!', '.', '?.'].includes(before.text);
  }

  private problem(message: string, length: number): void {
    this.problems.push({ message, start: this.at, end: this.at + length });
  }

  private endOfLine(from: number): number {
    const end = this.text.indexOf('\n', from);
    return end < 0 ? this.text.length : end;
  }
}
