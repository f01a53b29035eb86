/** The quote marks of Groovy and Kotlin strings, the longest first. */
export const quotes = ['"""', "'''", '"', "'"];

/** How far the last `${` reached that was never closed: those before its end are plain text too. */
export interface FailedTemplate {
  until: number;
}

const maxTemplate = 20_000;
const maxNesting = 60;

/** Offset of the closing quote; null when the string runs off its line (or the file, for triple quotes). */
export function stringEnd(text: string, from: number, quote: string, failed: FailedTemplate): number | null {
  for (let i = from; i < text.length; i++) {
    if (text.startsWith(quote, i)) return i + (quote.length === 3 ? extraQuotes(text, i + 3, quote) : 0);
    if (text[i] === '\\') i++;
    else if (quote.length === 1 && text[i] === '\n') return null;
    else if (quote[0] === '"' && i > failed.until && text.startsWith('${', i))
      i = templateEnd(text, i + 2, failed) ?? i + 1;
  }
  return null;
}

/** Quotes beyond the three that close a string belong to its text: `""""a""""`. */
function extraQuotes(text: string, from: number, quote: string): number {
  let extra = 0;
  while (extra < 2 && text[from + extra] === quote[0]) extra++;
  return extra;
}

/**
 * Offset of the closing mark of `/…/` or `$/…/$`; null when there is none. A slashy string escapes only its own mark;
 * a dollar-slashy one escapes `$` and `/` by a dollar.
 */
export function slashyEnd(text: string, from: number, close: '/' | '/$'): number | null {
  for (let i = from; i < text.length; i++) {
    if (close === '/' ? text.startsWith('\\/', i) : /^\$[$/]/.test(text.slice(i, i + 2))) i++;
    else if (text.startsWith(close, i)) return i;
  }
  return null;
}

/**
 * Offset of the brace that closes a `${`; null when none does. What is inside is code: its strings may hold braces, and
 * templates of their own. Each failure is remembered, so that a text full of lone `${` costs one pass.
 */
function templateEnd(text: string, from: number, failed: FailedTemplate): number | null {
  /** What is open, from the outside: the braces of a template (their number), or a string (its quote). */
  const open: (string | number)[] = [1];
  const limit = Math.min(text.length, from + maxTemplate);
  let i = from;
  for (; i < limit && open.length < maxNesting; i++) {
    const inner = open[open.length - 1] ?? 1;
    if (typeof inner === 'string') {
      if (text.startsWith(inner, i)) {
        open.pop();
        i += inner.length - 1;
      } else if (text[i] === '\\') i++;
      else if (inner.length === 1 && text[i] === '\n') break;
      else if (inner[0] === '"' && text.startsWith('${', i)) {
        open.push(1);
        i++;
      }
      continue;
    }
    const quote = quotes.find((mark) => text.startsWith(mark, i));
    if (quote !== undefined) {
      open.push(quote);
      i += quote.length - 1;
    } else if (text[i] === '{') open[open.length - 1] = inner + 1;
    else if (text[i] === '}') {
      if (inner > 1) open[open.length - 1] = inner - 1;
      else open.pop();
      if (open.length === 0) return i;
    }
  }
  failed.until = i;
  return null;
}
