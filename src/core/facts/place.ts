import type { Span } from '../text/problem.js';
import type { TextDocument } from '../text/document.js';
import type { Place } from './evidence.js';

/** The place of a span in a file. */
export function placeAt(path: string, document: TextDocument | undefined, span: Span): Place {
  if (!document) return { path, line: 1, column: 1 };
  const { line: endLine, column: endColumn } = document.lines.at(span.end);
  return { path, ...document.lines.at(span.start), endLine, endColumn };
}
