import { GradleExpressions, maxGradleDepth } from './expressions.js';
import { lexGradle, type Token } from './lex.js';
import type { GradleScript, Statement } from './model.js';

/**
 * Reads a Gradle build script, in Groovy or Kotlin form, as far as it declares things: calls, blocks,
 * assignments, declarations, with the place of each. What it does not know becomes `unknown`; what is
 * broken is reported, and reading goes on at the next statement.
 */
export function readGradle(text: string): GradleScript {
  const { tokens, problems } = lexGradle(text);
  const parser = new GradleParser(text, tokens, problems);
  return { statements: parser.statements(null), problems };
}

class GradleParser extends GradleExpressions {
  /** Statements up to the closing brace of the block, or to the end of the file. */
  statements(open: Token | null): Statement[] {
    const found: Statement[] = [];
    for (;;) {
      this.skipNewlines();
      if (this.token.kind === 'end') {
        if (open) this.problem('This "{" is never closed.', open);
        return found;
      }
      if (this.is('}')) {
        if (open) return found;
        this.problem('This "}" closes nothing.', this.token);
        this.at++;
        continue;
      }
      const before = this.at;
      found.push(this.statement());
      if (this.at === before) this.at++;
    }
  }

  private statement(): Statement {
    const { start } = this.token;
    this.skipLabels();
    const conditional = this.conditional(start);
    if (conditional) return conditional;
    const declared = this.definition(start) ?? this.declaration(start);
    if (declared) return declared;
    const target = this.expression(true);
    if (this.is('->')) {
      this.at++;
      return this.branch(start);
    }
    for (const operator of ['=', '+=', '-='] as const) {
      if (!this.is(operator)) continue;
      this.at++;
      this.skipNewlines();
      const value = this.expression(false);
      this.toLineEnd();
      return { type: 'assign', target, operator, value, start, end: value.end };
    }
    this.toLineEnd();
    return { type: 'expression', value: target, start, end: target.end };
  }

  /** `if (…) {…} else {…}`, `try`, `for`: the bodies are kept, marked as depending on what cannot be known. */
  private conditional(start: number): Statement | null {
    if (
      !['if', 'else', 'try', 'catch', 'finally', 'for', 'while', 'switch', 'when'].some((word) =>
        this.isName(word),
      )
    )
      return null;
    if (!['(', '{', ';'].some((mark) => this.is(mark, 1)) && !(this.isName('else') || this.isName('try')))
      return null;
    this.at++;
    if (this.is('(')) this.skipBrackets();
    if (this.is('->')) this.at++;
    return this.branch(start);
  }

  /** What runs only under a condition: a block, or one statement. */
  private branch(start: number): Statement {
    this.skipNewlines();
    if (this.is('{')) {
      const body = this.block(false);
      return { type: 'conditional', body, start, end: this.lastEnd() };
    }
    if (++this.depth > maxGradleDepth) {
      this.problem(`Conditions are nested more than ${maxGradleDepth} deep.`, { start, end: this.lastEnd() });
      this.toLineEnd();
      this.depth--;
      return { type: 'conditional', body: [], start, end: this.lastEnd() };
    }
    const only = this.statement();
    this.depth--;
    return { type: 'conditional', body: [only], start, end: only.end };
  }

  /** Skips annotations, labels (`outer: for`, `outer@ for`) and Groovy's `case x:`; they declare nothing. */
  private skipLabels(): void {
    for (;;) {
      const { kind, text } = this.token;
      if (this.is('@') && this.tokens[this.at + 1]?.kind === 'name') this.skipAnnotation();
      else if (modifiers.has(text) && this.tokens[this.at + 1]?.kind === 'name') this.at++;
      else if (kind === 'name' && this.is(':', 1) && !this.is(':', 2)) this.at += 2;
      else if (kind === 'name' && this.is('@', 1) && this.token.end === this.tokens[this.at + 1]?.start)
        this.at += 2;
      else if (kind === 'name' && text === 'case') {
        while (!this.is(':') && !this.lineEnds()) this.at++;
        if (this.is(':')) this.at++;
      } else return;
      this.skipNewlines();
      if (this.is('}') || this.token.kind === 'end') return;
    }
  }

  private skipAnnotation(): void {
    this.at += 2;
    while ((this.is('.') || this.is(':')) && this.tokens[this.at + 1]?.kind === 'name') this.at += 2;
    if (this.is('(')) this.skipBrackets();
  }

  /** A function: its body runs only when it is called, so it only declares its name. */
  private definition(start: number): Statement | null {
    const ahead = this.isName('fun') ? this.functionName() : this.isName('def') && this.is('(', 2) ? 1 : 0;
    const named = this.tokens[this.at + ahead];
    if (ahead === 0 || named?.kind !== 'name') return null;
    this.at += ahead + 1;
    this.skipBrackets();
    if (this.is(':')) while (!this.is('=') && !this.is('{') && !this.lineEnds()) this.at++;
    if (this.is('{')) this.skipBrackets();
    else this.toLineEnd();
    return { type: 'declare', name: named.text, value: null, delegated: false, start, end: this.lastEnd() };
  }

  /** How many tokens ahead the name of Kotlin's `fun <T> Some.name(` is; 0 when there is none on this line. */
  private functionName(): number {
    for (let ahead = 1; ahead < 40; ahead++) {
      if (this.is('(', ahead + 1)) return ahead;
      if (['newline', 'end'].includes(this.tokens[this.at + ahead]?.kind ?? 'end')) return 0;
    }
    return 0;
  }

  /** How many tokens ahead the name of `Map<String, String> name = …` is; 0 when this is no such declaration. */
  private typedName(): number {
    if (this.token.kind !== 'name' || ['val', 'var', 'def'].includes(this.token.text)) return 0;
    for (let ahead = 1; ahead < 40; ahead++) {
      const { kind, text } = this.tokens[this.at + ahead] ?? { kind: 'end', text: '' };
      if (kind === 'name' && this.is('=', ahead + 1))
        return [',', '.', '<'].some((mark) => this.is(mark, ahead - 1)) ? 0 : ahead;
      if (kind !== 'name' && !(kind === 'symbol' && typeSymbols.has(text))) return 0;
      if (kind === 'name' && ahead === 1) return 0;
    }
    return 0;
  }

  private declaration(start: number): Statement | null {
    const typed = this.typedName();
    if (typed > 0) this.at += typed;
    else {
      if (!['def', 'val', 'var'].some((word) => this.isName(word))) return null;
      if (this.tokens[this.at + 1]?.kind !== 'name') return null;
      this.at++;
      while (
        this.tokens[this.at + 1]?.kind === 'name' &&
        !['by'].includes(this.tokens[this.at + 1]?.text ?? '')
      )
        this.at++;
    }
    const name = this.token.text;
    this.at++;
    if (this.is(':')) while (!this.is('=') && !this.isName('by') && !this.lineEnds()) this.at++;
    const delegated = this.isName('by');
    if (!delegated && !this.is('='))
      return { type: 'declare', name, value: null, delegated, start, end: this.lastEnd() };
    this.at++;
    this.skipNewlines();
    const value = this.expression(false);
    this.toLineEnd();
    return { type: 'declare', name, value, delegated, start, end: value.end };
  }

  protected block(parameters = true): Statement[] {
    const open = this.token;
    if (++this.depth > maxGradleDepth) {
      this.problem(`Blocks are nested more than ${maxGradleDepth} deep.`, open);
      this.skipBrackets();
      this.depth--;
      return [];
    }
    this.at++;
    if (parameters) this.skipParameters();
    const body = this.statements(open);
    if (this.is('}')) this.at++;
    this.depth--;
    return body;
  }

  /** Skips the parameters of a closure or a lambda, with their types and default values: `{ a, b = { 1 } -> …`. */
  private skipParameters(): void {
    const from = this.at;
    this.skipNewlines();
    let depth = 0;
    for (let ahead = this.at; ahead < from + maxParameterTokens; ahead++) {
      const { kind, text } = this.tokens[ahead] ?? { kind: 'end', text: '' };
      if (depth === 0 && kind === 'symbol' && text === '->') {
        this.at = ahead + 1;
        return;
      }
      const before = this.tokens[ahead - 1];
      const continued = depth > 0 || (before?.kind === 'symbol' && before.text === ',');
      if (kind === 'end' || (kind === 'newline' && !continued)) break;
      if (kind !== 'symbol') continue;
      if ('([{'.includes(text)) depth++;
      else if (')]}'.includes(text)) depth--;
      else if (depth === 0 && !parameterSymbols.has(text)) break;
      if (depth < 0) break;
    }
    this.at = from;
  }
}

const maxParameterTokens = 200;
const parameterSymbols = new Set([',', ':', '=', '.', '<', '>', '?', '*', '-', '@']);
const typeSymbols = new Set(['<', '>', ',', '.', '?', '[', ']']);
const modifiers = new Set(
  'const private public internal protected static final override lateinit open abstract'.split(' '),
);
