/** A position in a text as people count: both numbers start at 1. */
export interface Position {
  line: number;
  column: number;
}

/** Turns offsets (UTF-16 units, from 0) into lines and columns, and back. */
export interface LineMap {
  readonly lineCount: number;
  at(offset: number): Position;
  /** Offset of the first character of a line (1-based). */
  lineStart(line: number): number;
  /** Offset just after the last character of a line, its line break left out. */
  lineEnd(line: number): number;
}

/** Lines end at LF, CRLF or a lone CR. */
export function lineMap(text: string): LineMap {
  const starts = [0];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 10 || (code === 13 && text.charCodeAt(i + 1) !== 10)) starts.push(i + 1);
  }
  const lineOf = (offset: number) => {
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >> 1;
      if ((starts[mid] ?? 0) <= offset) low = mid;
      else high = mid - 1;
    }
    return low;
  };
  const lineStart = (line: number) => starts[line - 1] ?? text.length;
  return {
    lineCount: starts.length,
    at(offset) {
      const line = lineOf(Math.max(0, Math.min(offset, text.length)));
      return { line: line + 1, column: offset - (starts[line] ?? 0) + 1 };
    },
    lineStart,
    lineEnd(line) {
      let end = line < starts.length ? lineStart(line + 1) : text.length;
      while (end > lineStart(line) && /[\r\n]/.test(text[end - 1] ?? '')) end--;
      return end;
    },
  };
}
