import { GradleCursor } from './cursor.js';
import type { Argument, Expression, Statement } from './model.js';

/** Blocks and brackets nested deeper than this are reported and skipped. */
export const maxGradleDepth = 120;

const infixes = new Set(['to', 'as', 'in', 'is', 'instanceof']);
const operators = new Set(
  '+ - * / % ** ?: ? : == != === !== =~ ==~ <=> && || < > <= >= << .. ..<'.split(' '),
);
const prefixes = new Set(['!', '-', '+', '++', '--', '*', '~']);

/** Reads expressions; the blocks inside them are read by the parser of statements. */
export abstract class GradleExpressions extends GradleCursor {
  protected depth = 0;

  protected abstract block(): Statement[];

  protected expression(command: boolean): Expression {
    let left = this.postfix(command);
    for (;;) {
      const { kind, text } = this.token;
      const infix = kind === 'name' && infixes.has(text);
      const operator = kind === 'symbol' && operators.has(text);
      if (!infix && !operator) return left;
      if (text === ':' && command) return left;
      this.at++;
      this.skipNewlines();
      const right = this.postfix(false);
      left = { type: 'binary', operator: text, left, right, start: left.start, end: right.end };
    }
  }

  private postfix(command: boolean): Expression {
    let value = this.primary();
    for (;;) {
      const { start } = value;
      if (
        this.is('.') ||
        this.is('?.') ||
        this.is('*.') ||
        this.is('!!') ||
        (this.token.kind === 'newline' && this.dotAhead())
      ) {
        if (this.is('!!')) {
          this.at++;
          continue;
        }
        this.skipNewlines();
        this.at++;
        this.skipNewlines();
        const { text, end, kind } = this.token;
        if (kind !== 'name' && kind !== 'string') return value;
        this.at++;
        value = { type: 'member', object: value, name: text, start, end };
      } else if (this.is('<') && this.typeArguments()) {
        continue;
      } else if (this.is('(')) {
        const args = this.list('(', ')');
        const body = this.is('{') ? this.block() : null;
        value = { type: 'call', callee: value, args, body, start, end: this.lastEnd() };
      } else if (this.is('[')) {
        const items = this.list('[', ']');
        const index = items[0]?.value ?? unknown(this.text, start, this.lastEnd());
        value = { type: 'index', object: value, index, start, end: this.lastEnd() };
      } else if (this.is('{') && (value.type === 'name' || value.type === 'member')) {
        const body = this.block();
        value = { type: 'call', callee: value, args: [], body, start, end: this.lastEnd() };
      } else if (command && this.beginsCommandArgument(value)) {
        value = this.commandCall(value);
      } else return value;
    }
  }

  /** Groovy's `minSdk 24`, `id 'x' version 'y'` and Kotlin's `id("x") version "y"`. */
  private beginsCommandArgument(callee: Expression): boolean {
    const { kind, text } = this.token;
    if (callee.type === 'call') {
      const next = this.tokens[this.at + 1];
      return (
        kind === 'name' &&
        !['to', 'as', 'in', 'is', 'by'].includes(text) &&
        (next?.kind === 'string' || next?.kind === 'name' || (next?.kind === 'symbol' && next.text === '('))
      );
    }
    if (callee.type !== 'name' && callee.type !== 'member') return false;
    if (kind === 'string' || kind === 'number') return true;
    return kind === 'name' && !['to', 'as', 'in', 'is', 'by'].includes(text);
  }

  private commandCall(callee: Expression): Expression {
    const { start } = callee;
    if (callee.type === 'call') {
      const { text, end } = this.token;
      this.at++;
      const member: Expression = { type: 'member', object: callee, name: text, start, end };
      return this.is('(') ? member : this.commandCall(member);
    }
    const args: Argument[] = [];
    do {
      if (args.length > 0) this.at++;
      this.skipNewlinesAfterComma(args.length);
      args.push(this.argument());
    } while (this.is(','));
    const body = this.is('{') ? this.block() : null;
    return { type: 'call', callee, args, body, start, end: this.lastEnd() };
  }

  private skipNewlinesAfterComma(count: number): void {
    if (count > 0) this.skipNewlines();
  }

  private argument(): Argument {
    const { kind, text } = this.token;
    const named =
      (kind === 'name' || kind === 'string') && (this.is(':', 1) || (kind === 'name' && this.is('=', 1)));
    if (named) {
      this.at += 2;
      this.skipNewlines();
      return { name: text, value: this.expression(false) };
    }
    return { value: this.expression(false) };
  }

  private list(open: string, close: string): Argument[] {
    const opening = this.token;
    const items: Argument[] = [];
    if (++this.depth > maxGradleDepth) {
      this.problem(`Brackets are nested more than ${maxGradleDepth} deep.`, opening);
      this.skipBrackets();
      this.depth--;
      return items;
    }
    this.at++;
    for (;;) {
      this.skipNewlines();
      if (this.is(close)) {
        this.at++;
        break;
      }
      if (this.token.kind === 'end' || this.is('}')) {
        this.problem(`This "${open}" is never closed.`, opening);
        break;
      }
      const before = this.at;
      if (this.is(':') && this.is(close, 1)) this.at++;
      else if (this.is(',')) this.at++;
      else items.push(this.argument());
      if (this.at === before) this.at++;
    }
    this.depth--;
    return items;
  }

  private primary(): Expression {
    const { kind, text, start, end, quote } = this.token;
    if (kind === 'string') {
      this.at++;
      return { type: 'string', raw: text, quote: quote ?? '"', start, end };
    }
    if (kind === 'number') {
      this.at++;
      return { type: 'number', text, start, end };
    }
    if (kind === 'name') {
      while (this.isName('new') && this.tokens[this.at + 1]?.kind === 'name') this.at++;
      const named = this.token;
      this.at++;
      return { type: 'name', name: named.text, start: named.start, end: named.end };
    }
    if (this.is('[')) {
      const items = this.list('[', ']');
      return { type: 'list', items, start, end: this.lastEnd() };
    }
    if (this.is('(')) {
      const items = this.list('(', ')');
      return items[0]?.value ?? unknown(this.text, start, this.lastEnd());
    }
    if (this.is('{')) {
      const body = this.block();
      return { type: 'block', body, start, end: this.lastEnd() };
    }
    if (!this.lineEnds()) this.at++;
    if (kind === 'symbol' && prefixes.has(text) && !this.lineEnds() && !this.is(',') && !this.is(')')) {
      if (++this.depth <= maxGradleDepth) this.postfix(false);
      this.depth--;
    }
    return unknown(this.text, start, Math.max(start, this.lastEnd()));
  }
}

function unknown(text: string, start: number, end: number): Expression {
  return { type: 'unknown', text: text.slice(start, end), start, end };
}
