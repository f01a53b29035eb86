import Papa from 'papaparse';

/** A row of a table, and the line of the text on which it begins. */
export interface CsvRow {
  line: number;
  cells: string[];
}

/** What is wrong with a table as a whole, and what to do. */
export interface CsvFault {
  message: string;
  fix: string;
  line?: number;
}

/** Thrown for a table that cannot be read at all. */
export class CsvError extends Error {
  constructor(readonly fault: CsvFault) {
    super(fault.message);
    this.name = 'CsvError';
  }
}

/** A row longer than this (characters) counts as a quote that is never closed. */
const maxRow = 1_000_000;
const separators = [',', ';', '\t', '|'];

/**
 * Reads a table block by block, in RFC 4180 with the usual variations: other separators, a byte order mark, any line
 * ends, a first line `sep=;`, blanks around values. Holds one block and one row in memory. Blank lines are skipped.
 * @throws CsvError from `push` and `end`
 */
export class CsvReader {
  #rest = '';
  #line = 1;
  #format: { separator: string; parser: Papa.ParseConfig } | undefined;

  /** @param separator replaces the one that the table shows */
  constructor(private readonly separator?: string) {}

  /** Takes the next block of the text, and returns the rows that are complete. */
  push(block: string): CsvRow[] {
    this.#rest += block;
    if (!this.#format) {
      if (this.#rest.length < maxRow && !hasTwoLines(this.#rest)) return [];
      this.begin();
    }
    return this.rows(true);
  }

  /** Returns the last rows. */
  end(): CsvRow[] {
    if (!this.#format) this.begin();
    return this.rows(false);
  }

  /** Finds the separator and the line ends, and skips what comes before the header. */
  private begin(): void {
    const text = this.#rest.replace(/^\uFEFF/, '');
    const blank = /^(?:[ \t]*(?:\r\n|\n|\r))*/.exec(text)?.[0] ?? '';
    const [lead = '', named] = /^"?sep=(.)"?[ \t]*(?:\r\n|\n|\r|$)/i.exec(text.slice(blank.length)) ?? [];
    const body = text.slice(blank.length + lead.length);
    if (body.trim() === '') throw new CsvError({ message: 'The table is empty.', fix: 'Export it again.' });
    if (/^\s*</.test(body))
      throw new CsvError({
        message: 'This is a web page, not a table.',
        fix: 'Export the table as CSV.',
      });
    const newline = (/\r\n|\n|\r/.exec(body)?.[0] ?? '\n').replace('\r\n', '\n') as '\n' | '\r';
    this.#line = (blank + lead).split(newline).length;
    this.#rest = body;
    const separator = this.separator ?? named ?? separatorOf(body);
    this.#format = { separator, parser: { delimiter: separator, newline, quoteChar: '"', header: false } };
  }

  private rows(isMore: boolean): CsvRow[] {
    const text = this.#rest;
    if (!this.#format || text === '') return [];
    const parser = new Papa.Parser(this.#format.parser);
    const { data, errors, meta } = parser.parse(text, 0, isMore) as Papa.ParseResult<string[]>;
    this.#rest = isMore ? text.slice(meta.cursor) : '';
    const bad = errors.find(({ type }) => type === 'Quotes');
    const hasQuotes = text.includes('"');
    const rows: CsvRow[] = [];
    for (const [at, written] of data.entries()) {
      const line = this.#line;
      if (at === bad?.row) throw this.malformed(bad.code === 'MissingQuotes', line);
      this.#line += 1 + (hasQuotes ? lineEndsIn(written) : 0);
      const cells = hasBlanks(written) ? written.map((cell) => cell.trim()) : written;
      if (cells.length > 1 || cells[0] !== '') rows.push({ line, cells });
    }
    if (this.#rest.length > maxRow) throw this.malformed(true, this.#line);
    return rows;
  }

  private malformed(isOpen: boolean, line: number): CsvError {
    const what = isOpen ? 'a quote is opened and never closed' : 'there is text after a closing quote';
    return new CsvError({
      message: `The table cannot be read: in line ${line}, ${what}.`,
      fix: 'Check the quotes of that line, or name the separator.',
      line,
    });
  }
}

/** Reads a table that is in memory, whole. @throws CsvError */
export function readCsv(text: string, separator?: string): CsvRow[] {
  const reader = new CsvReader(separator);
  const first = reader.push(text);
  return [...first, ...reader.end()];
}

/** Whether the header and another line are complete, which is enough to detect the separator and the line ends. */
function hasTwoLines(text: string): boolean {
  const start = text.search(/[^\s\uFEFF]/);
  if (start < 0) return false;
  const ends = /[\r\n]+/g;
  ends.lastIndex = start;
  return ends.test(text) && /[\r\n]/.test(text.slice(ends.lastIndex));
}

/** Whether there are blanks around any value. */
function hasBlanks(cells: readonly string[]): boolean {
  return cells.some(
    (cell) => cell !== '' && (isBlank(cell.charCodeAt(0)) || isBlank(cell.charCodeAt(cell.length - 1))),
  );
}

/** Everything that `trim` takes away is below the exclamation mark, or no ASCII. */
function isBlank(code: number): boolean {
  return code < 33 || code > 126;
}

function lineEndsIn(cells: readonly string[]): number {
  let count = 0;
  for (const cell of cells)
    for (let at = cell.indexOf('\n'); at >= 0; at = cell.indexOf('\n', at + 1)) count++;
  return count;
}

/** The separator that is most often in the first line, outside of quotes. */
function separatorOf(text: string): string {
  const line = (/^[^\r\n]*/.exec(text.slice(0, 10_000))?.[0] ?? '').replace(/"[^"]*"/g, '');
  const counts = separators.map((separator) => ({ separator, count: line.split(separator).length - 1 }));
  return counts.sort((a, b) => b.count - a.count)[0]?.separator ?? ',';
}
