import { findColumns } from '../formats/csv/columns.js';
import { CsvError, readCsv, type CsvFault } from '../formats/csv/read.js';
import type { UnitFields } from '../network/exchange.js';
import type { Profile } from '../network/model.js';
import { unitDecoder } from './dialect.js';
import type { InventoryUnit, InvalidRow } from './model.js';

/** How to read a table, as far as the profile does not say or a person knows better. */
export interface CsvOptions {
  /** Column names that replace those of the profile. */
  columns?: Partial<UnitFields>;
  separator?: string;
}

/** Tables with more rows than this are refused. */
export const maxRows = 500_000;

const ownColumns: UnitFields = {
  id: 'id',
  name: 'name',
  format: 'format',
  platform: 'platform',
  app: 'app',
  status: 'status',
};

/**
 * Reads a table of units that a network's pages gave out: any of the usual separators, quotes and a byte order
 * mark. Rows that make no sense come back with their line and the reason; without its columns nothing is read.
 */
export function readUnitTable(
  text: string,
  profile: Profile,
  { columns, separator }: CsvOptions = {},
): { units: InventoryUnit[]; odd: InvalidRow[]; fault: null } | { fault: CsvFault } {
  const names = { ...(profile.inventory?.csv?.columns ?? ownColumns), ...columns };
  try {
    const [header, ...rows] = readCsv(text, separator);
    if (!header) return { fault: { message: 'The table is empty.', fix: 'Export it again.' } };
    if (rows.length > maxRows)
      return {
        fault: { message: `The table has more than ${maxRows} rows.`, fix: 'Export one app at a time.' },
      };
    const found = findColumns<keyof UnitFields>(header, names, {
      required: ['id', 'name', 'format'],
      example: 'id="Ad unit" name=Title',
    });
    if ('fault' in found) return found;
    const fields = { ...names, ...Object.fromEntries(found.written) };
    const decode = unitDecoder(profile, fields);
    const units: InventoryUnit[] = [];
    const odd: InvalidRow[] = [];
    const seen = new Set<string>();
    for (const { line: row, cells } of rows) {
      const record = Object.fromEntries(
        [...found.at.values()].map((position) => [header.cells[position] ?? '', cells[position] ?? '']),
      );
      const { value, message } = decode(record);
      if (value === null) odd.push({ row, id: cells[found.at.get('id') ?? 0] || null, message });
      else if (seen.has(value.id)) odd.push({ row, id: value.id, message: 'it was in an earlier row' });
      else {
        seen.add(value.id);
        units.push(value);
      }
    }
    return { units, odd, fault: null };
  } catch (error) {
    if (error instanceof CsvError) return { fault: error.fault };
    throw error;
  }
}
