import type { CsvFault, CsvRow } from './read.js';

/** Where the columns of a table are. */
export interface Columns<Field extends string> {
  /** The position of each field that the table has. */
  at: ReadonlyMap<Field, number>;
  /** The names of the columns as they are written. */
  written: ReadonlyMap<Field, string>;
  /** Columns that stand for no field. */
  unknown: string[];
  /** Columns that a field names and the table does not have. */
  missing: string[];
}

/**
 * Finds columns by their names; where there is none such, by their names in whatever case and spacing.
 * @param names the name of the column of each field
 * @param required fields without which the table means nothing
 * @param example how a person says which column is which
 */
export function findColumns<Field extends string>(
  header: CsvRow,
  names: Partial<Record<Field, string | undefined>>,
  { required, example }: { required: readonly Field[]; example: string },
): Columns<Field> | { fault: CsvFault } {
  const { cells, line } = header;
  const at = new Map<Field, number>();
  const written = new Map<Field, string>();
  const missing: string[] = [];
  for (const [field, name] of Object.entries(names) as [Field, string | undefined][]) {
    if (name === undefined) continue;
    const exact = positionsOf(cells, (cell) => cell === name);
    const found =
      exact.length > 0 ? exact : positionsOf(cells, (cell) => plainName(cell) === plainName(name));
    const [position] = found;
    if (found.length > 1)
      return {
        fault: {
          message: `The table has several columns “${name}”.`,
          fix: `Rename all but one of them in the table, or name the right one, as in --column ${example}.`,
          line,
        },
      };
    if (position === undefined) missing.push(name);
    else {
      at.set(field, position);
      written.set(field, cells[position] ?? name);
    }
  }
  const lacking = required.filter((field) => !at.has(field)).map((field) => `“${names[field] ?? field}”`);
  if (lacking.length > 0)
    return {
      fault: {
        message: `The table has no column ${lacking.join(', ')}; it has ${cells.slice(0, 20).join(', ')}.`,
        fix: `Say which column is which, as in --column ${example}, or name the separator.`,
        line,
      },
    };
  const used = new Set(at.values());
  return { at, written, missing, unknown: cells.filter((_, position) => !used.has(position)) };
}

function positionsOf(cells: readonly string[], fits: (cell: string) => boolean): number[] {
  return cells.flatMap((cell, at) => (fits(cell) ? [at] : []));
}

function plainName(name: string): string {
  return name.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim();
}
