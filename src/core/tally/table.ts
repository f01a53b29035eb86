import { findColumns, type Columns } from '../formats/csv/columns.js';
import { CsvError, CsvReader, type CsvRow } from '../formats/csv/read.js';
import type { InvalidRow } from '../inventory/model.js';
import type { Profile } from '../network/model.js';
import type { ReportField, ReportFields } from '../network/report.js';
import { ownText } from '../text/own-text.js';
import { rowDecoder } from './dialect.js';
import type { TallyRow } from './model.js';

/** How to read a table, as far as the profile does not say or a person knows better. */
export interface TableOptions {
  /** Column names that replace those of the profile. */
  columns?: Partial<ReportFields>;
  separator?: string;
  now: Date;
}

/** A row that was read, with the line on which it is. */
export interface LinedRow {
  line: number;
  row: TallyRow;
}

/** Rows of a block: those that make sense, and the others with the reason. */
export interface ReadBlock {
  rows: LinedRow[];
  odd: InvalidRow[];
}

const ownColumns: ReportFields = {
  day: 'day',
  unit: 'unit',
  app: 'app',
  country: 'country',
  requests: 'requests',
  matched: 'matched',
  impressions: 'impressions',
  clicks: 'clicks',
  rewards: 'rewards',
  revenue: 'revenue',
  currency: 'currency',
};
const noSplits: readonly string[] = [];
const required = ['day', 'unit', 'impressions', 'revenue'] as const;

function oddId(unit: string | undefined): string | null {
  return unit ? ownText(unit.slice(0, 200)) : null;
}

/**
 * The positions of the columns that divide the day of a unit: all of them, or none. With some of them, rows could not be
 * told from those of a table that divides otherwise.
 */
function splitColumns({ cells, line }: CsvRow, splits: readonly string[]): number[] {
  const missing = splits.filter((split) => !cells.includes(split));
  if (missing.length === splits.length) return [];
  if (missing.length > 0)
    throw new CsvError({
      message: `The table has no column ${missing.map((name) => `“${name}”`).join(', ')}, but others that divide the day of a unit.`,
      fix: `Export it with all of them (${splits.join(', ')}), or with none.`,
      line,
    });
  return splits.map((split) => cells.indexOf(split));
}

/** Reads an exported table of daily numbers block by block. */
export class ReportTable {
  readonly #reader: CsvReader;
  #columns: Columns<ReportField> | undefined;
  #splits: number[] = [];
  #decode: ReturnType<typeof rowDecoder> | undefined;

  /** @throws CsvError where the profile describes no report */
  constructor(
    private readonly profile: Profile,
    private readonly options: TableOptions,
  ) {
    this.#reader = new CsvReader(options.separator);
  }

  /** Columns of the table that nothing describes. They are not read. */
  get unknown(): readonly string[] {
    return this.#columns?.unknown ?? [];
  }

  /** Columns that the profile names and the table does not have. */
  get missing(): readonly string[] {
    return this.#columns?.missing ?? [];
  }

  /** Takes the next block of the text. @throws CsvError for a table that cannot be read on, or lacks its columns */
  push(block: string): ReadBlock {
    return this.read(this.#reader.push(block));
  }

  /** Reads the rest. @throws CsvError */
  end(): ReadBlock {
    const block = this.read(this.#reader.end());
    if (!this.#columns) throw new CsvError({ message: 'The table is empty.', fix: 'Export it again.' });
    return block;
  }

  private read(found: readonly CsvRow[]): ReadBlock {
    const [header] = found;
    if (!header) return { rows: [], odd: [] };
    const rows: LinedRow[] = [];
    const odd: InvalidRow[] = [];
    const isFirst = !this.#columns;
    const columns = (this.#columns ??= this.begin(header));
    const decode = this.#decode;
    if (!decode) return { rows, odd };
    let cells: string[] = [];
    const cell = (field: ReportField) => {
      const at = columns.at.get(field);
      return at === undefined ? undefined : (cells[at] ?? '');
    };
    const positions = this.#splits;
    for (const one of isFirst ? found.slice(1) : found) {
      ({ cells } = one);
      const { value, message } = decode(
        cell,
        positions.length === 0 ? noSplits : positions.map((at) => cells[at] ?? ''),
      );
      if (value) rows.push({ line: one.line, row: value });
      else odd.push({ row: one.line, id: oddId(cell('unit')), message: ownText(message) });
    }
    return { rows, odd };
  }

  private begin(header: CsvRow): Columns<ReportField> {
    const { report, name, id } = this.profile;
    if (!report)
      throw new CsvError({
        message: `The profile of ${name} describes no report.`,
        fix: `Add the part report to the profile: syndexa network show ${id} prints it.`,
      });
    const names = { ...(report.csv?.columns ?? ownColumns), ...this.options.columns };
    const found = findColumns<ReportField>(header, names, {
      required: [...required],
      example: 'unit="Ad unit" revenue=Earned',
    });
    if ('fault' in found) throw new CsvError(found.fault);
    this.#splits = splitColumns(header, report.splits);
    this.#decode = rowDecoder(this.profile, report, this.options.now);
    return { ...found, unknown: found.unknown.filter((column) => !report.splits.includes(column)) };
  }
}
