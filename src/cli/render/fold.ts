import stringWidth from 'string-width';

/** Where words of a line may be parted; blanks at its beginning stay. */
const words = /(?<=\S)\s+/;

/**
 * Wraps text at `width` characters between words, with continuation lines indented. Colours have no width.
 */
export function foldLines(text: string, width: number): string {
  return text
    .split('\n')
    .flatMap((line) => (stringWidth(line) <= width ? [line] : foldLine(line, width)))
    .join('\n');
}

function foldLine(line: string, width: number): string[] {
  const indent = /^\s*/.exec(line)?.[0] ?? '';
  const lines: string[] = [];
  let now = '';
  let from = 0;
  for (const word of line.split(words)) {
    const blanks = /^\s*/.exec(line.slice(from))?.[0] ?? '';
    from += blanks.length + word.trimStart().length;
    const longer = now === '' ? `${indent}${word.trimStart()}` : `${now}${blanks}${word}`;
    if (now === '' || stringWidth(longer) <= width) now = longer;
    else {
      lines.push(now);
      now = `${indent}    ${word}`;
    }
  }
  return [...lines, now];
}
