import type { Edit } from './edit.js';

/** Where something is in a text. */
type Range = Pick<Edit, 'start' | 'end'>;

/**
 * Takes the lines of a statement out, with their line end. Where something else is on them only the
 * statement itself goes.
 */
export function removeStatement(text: string, { start, end }: Range): Edit {
  const lineStart = Math.max(text.lastIndexOf('\n', start - 1), text.lastIndexOf('\r', start - 1)) + 1;
  const rest = /^[ \t]*(\r\n|\n|\r|$)/.exec(text.slice(end, end + 200));
  const alone = /^[ \t]*$/.test(text.slice(lineStart, start)) && rest;
  return alone ? { start: lineStart, end: end + rest[0].length, text: '' } : { start, end, text: '' };
}

/** Takes a line out with its line end; the last line of a text that ends without one goes with the end before it. */
export function removeLine(text: string, span: Range): Edit {
  const after = /^[ \t]*(\r\n|\n|\r)/.exec(text.slice(span.end, span.end + 200));
  if (after) return { start: span.start, end: span.end + after[0].length, text: '' };
  const before = /(\r\n|\n|\r)$/.exec(text.slice(Math.max(0, span.start - 2), span.start));
  return { start: span.start - (before?.[0].length ?? 0), end: text.length, text: '' };
}
