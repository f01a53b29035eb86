import type { ReadProblem, Span } from '../../text/problem.js';
import type { Token } from './lex.js';

/** The place of a parser among the tokens of a script, and how it moves on. */
export class GradleCursor {
  at = 0;

  constructor(
    readonly text: string,
    readonly tokens: Token[],
    private readonly problems: ReadProblem[],
  ) {}

  get token(): Token {
    return this.tokens[this.at] ?? (this.tokens.at(-1) as Token);
  }

  is(text: string, ahead = 0): boolean {
    const token = this.tokens[this.at + ahead];
    return token?.kind === 'symbol' && token.text === text;
  }

  isName(text: string): boolean {
    return this.token.kind === 'name' && this.token.text === text;
  }

  lastEnd(): number {
    return this.tokens[this.at - 1]?.end ?? 0;
  }

  skipNewlines(): void {
    while (this.token.kind === 'newline' || this.is(';')) this.at++;
  }

  lineEnds(): boolean {
    return this.token.kind === 'newline' || this.token.kind === 'end' || this.is(';') || this.is('}');
  }

  /** Passes over what is left of a statement that was not understood to its end. */
  toLineEnd(): void {
    while (!this.lineEnds()) {
      if (this.is('{') || this.is('(') || this.is('[')) this.skipBrackets();
      else this.at++;
    }
  }

  skipBrackets(): void {
    const open = this.token;
    const pairs = new Map([
      ['(', ')'],
      ['[', ']'],
      ['{', '}'],
    ]);
    const waiting: string[] = [];
    do {
      const { kind, text } = this.token;
      if (kind === 'end') {
        this.problem(`This "${open.text}" is never closed.`, open);
        return;
      }
      const close = kind === 'symbol' ? pairs.get(text) : undefined;
      if (close !== undefined) waiting.push(close);
      else if (kind === 'symbol' && text === waiting.at(-1)) waiting.pop();
      this.at++;
    } while (waiting.length > 0);
  }

  problem(message: string, { start, end }: Span): void {
    if (this.problems.length < 50) this.problems.push({ message, start, end });
  }

  dotAhead(): boolean {
    let ahead = this.at;
    while (this.tokens[ahead]?.kind === 'newline') ahead++;
    const next = this.tokens[ahead];
    return next?.kind === 'symbol' && (next.text === '.' || next.text === '?.');
  }

  /** `extra<String>(…)`: skips the type arguments when a call follows them. */
  typeArguments(): boolean {
    const match = /^<[\w\s.,?*<>]{0,120}>\s*[({]/.exec(
      this.text.slice(this.token.start, this.token.start + 130),
    );
    if (!match) return false;
    while (!this.is('(') && !this.is('{')) this.at++;
    return true;
  }
}
