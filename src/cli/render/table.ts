import Table from 'cli-table3';
import stringWidth from 'string-width';
import { tableText } from '../paint.js';

/** A table, row by row. Cells may have several lines, and each line one colour. */
export interface TableContent {
  head: readonly string[];
  rows: readonly (readonly (string | number)[])[];
  /** The indexes of columns whose words are never broken: IDs to copy. */
  whole?: readonly number[];
}

const noRules = {
  mid: '',
  'left-mid': '',
  'mid-mid': '',
  'right-mid': '',
  top: '',
  'top-mid': '',
  'top-left': '',
  'top-right': '',
  bottom: '',
  'bottom-mid': '',
  'bottom-left': '',
  'bottom-right': '',
  left: '',
  right: '',
  middle: '  ',
};

/** A table without rules, its columns two blanks apart, in lines of at most `width` characters where words allow it. */
export function plainTable(content: TableContent, width: number): string {
  const { head, rows } = fitting(content, width, 2 * (content.head.length - 1));
  const style = { head: [], border: [], 'padding-left': 0, 'padding-right': 0 };
  const text = textOf(new Table({ head, chars: noRules, style }), rows);
  // The last column is filled up with blanks like the others.
  return text.replace(/ +$/gm, '');
}

/** A table with rules around its cells, in lines of at most `width` characters where words allow it. */
export function ruledTable(content: TableContent, width: number): string {
  const { head, rows } = fitting(content, width, 3 * content.head.length + 1);
  const chars = { mid: '', 'left-mid': '', 'mid-mid': '', 'right-mid': '' };
  return textOf(new Table({ head, chars, style: { head: [], border: [], compact: false } }), rows);
}

function textOf(table: Table.Table, rows: string[][]): string {
  table.push(...rows);
  return tableText(table);
}

/** The cells of a table, folded so that its lines are short enough. */
function fitting(
  { head, rows, whole = [] }: TableContent,
  width: number,
  between: number,
): { head: string[]; rows: string[][] } {
  const cells = [head, ...rows].map((row) => row.map(String));
  const columns = head.map((_, column) => cells.map((row) => row[column] ?? ''));
  const most = columns.map((column) => longest(column.flatMap((cell) => cell.split('\n'))));
  const least = columns.map((column, at) =>
    longest(column.flatMap((cell) => parts(cell, whole.includes(at)))),
  );
  const widths = shrunk(most, least, width - between);
  const folded = cells.map((row) => row.map((cell, at) => fold(cell, widths[at] ?? 0, whole.includes(at))));
  return { head: folded[0] ?? [], rows: folded.slice(1) };
}

/** Widths that come to `room` or less, if the narrowest do: the columns that can give most give first. */
function shrunk(most: readonly number[], least: readonly number[], room: number): number[] {
  const widths = [...most];
  const sum = () => widths.reduce((total, one) => total + one, 0);
  while (sum() > room) {
    const spare = widths.map((one, at) => one - (least[at] ?? 0));
    const widest = spare.indexOf(Math.max(...spare));
    if ((spare[widest] ?? 0) <= 0) break;
    widths[widest] = (widths[widest] ?? 0) - 1;
  }
  return widths;
}

function longest(texts: readonly string[]): number {
  return Math.max(0, ...texts.map((text) => stringWidth(text.trimEnd())));
}

/** What stays together when a text is folded; a name may be parted after a dash, a dot or a slash. */
function parts(text: string, isWhole: boolean): string[] {
  return text.split(isWhole ? /(?<=\s)/ : /(?<=[\s\-./])/);
}

/** Folds each line of a cell; the colour of a line is that of all that it is folded into. */
function fold(cell: string, width: number, isWhole: boolean): string {
  return cell
    .split('\n')
    .map((line) => {
      const [, open = '', inner = '', close = ''] =
        /^((?:\u001b\[[\d;]*m)*)(.*?)((?:\u001b\[[\d;]*m)*)$/.exec(line) ?? [];
      const lines = [''];
      for (const part of parts(inner, isWhole)) {
        const now = lines.at(-1) ?? '';
        if (now !== '' && stringWidth((now + part).trimEnd()) > width) lines.push(part);
        else lines[lines.length - 1] = now + part;
      }
      return lines.map((each) => open + each.trimEnd() + close).join('\n');
    })
    .join('\n');
}
