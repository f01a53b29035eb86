import { valueAt } from '../text/own-values.js';
import { parse } from 'csv-parse/browser/esm/sync';
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

/** Why a table could not be read at all. */
export interface CsvFault {
  message: string;
  fix: string;
  line?: number;
}

/** Tables with more rows than this are refused. */
export const maxRows = 500_000;

type Row = { record: Record<string, string>; info: { lines: number } };

/**
 * Reads a table of units that a network's pages gave out: any of the usual separators, quotes and a byte order
 * mark. Rows that make no sense come back with their line and the reason; without its columns nothing is read.
 */
export function readUnitTable(
  text: string,
  profile: Profile,
  { columns, separator }: CsvOptions = {},
): { units: InventoryUnit[]; odd: InvalidRow[]; fault: null } | { fault: CsvFault } {
  const fields = { ...(profile.inventory?.csv?.columns ?? ownColumns), ...columns };
  const whole = text.replace(/^\uFEFF/, '');
  const blank = /^(?:[ \t]*\r?\n)*/.exec(whole)?.[0] ?? '';
  const named = namedSeparator(whole.slice(blank.length));
  const lead = blank + (named?.line ?? '');
  const body = whole.slice(lead.length);
  const before = lead.split('\n').length - 1;
  if (body.trim() === '') return { fault: { message: 'The table is empty.', fix: 'Export it again.' } };
  if (/^\s*</.test(body))
    return { fault: { message: 'This is a web page, not a table.', fix: 'Export the table as CSV.' } };
  const delimiter = separator ?? named?.separator ?? separatorOf(body);
  const { rows, fault } = rowsOf(body, delimiter, before);
  if (fault) return { fault };
  const header = headerOf(fields, firstLine(body, delimiter), before);
  if ('fault' in header) return header;
  const decode = unitDecoder(profile, header.fields);
  const units: InventoryUnit[] = [];
  const odd: InvalidRow[] = [];
  const seen = new Set<string>();
  for (const { record, info } of rows) {
    const { value, message } = decode(record);
    const row = info.lines + before;
    if (value === null) odd.push({ row, id: valueAt(record, header.fields.id) ?? null, message });
    else if (seen.has(value.id)) odd.push({ row, id: value.id, message: 'it stood in an earlier row' });
    else {
      seen.add(value.id);
      units.push(value);
    }
  }
  return { units, odd, fault: null };
}

function rowsOf(
  body: string,
  delimiter: string,
  before: number,
): { rows: Row[]; fault?: undefined } | { rows?: undefined; fault: CsvFault } {
  try {
    const rows: Row[] = parse(body, {
      columns: (names: string[]) => names.map((name) => name.trim()),
      delimiter,
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
      to: maxRows + 1,
      max_record_size: 100_000,
    });
    if (rows.length <= maxRows) return { rows };
    return {
      fault: { message: `The table has more than ${maxRows} rows.`, fix: 'Export one app at a time.' },
    };
  } catch (error) {
    const line = error instanceof Error && 'lines' in error ? Number(error.lines) : undefined;
    return {
      fault: {
        message: `The table cannot be read: ${error instanceof Error ? error.message : String(error)}.`,
        fix: 'Look at the quotes of that line, or name the separator.',
        ...(line === undefined ? {} : { line: line + before }),
      },
    };
  }
}

/** The optional first line `sep=;`, quoted or not, that tells spreadsheet programs the separator. */
function namedSeparator(text: string): { line: string; separator: string } | undefined {
  const [line = '', separator] = /^"?sep=(.)"?[ \t]*(?:\r?\n|$)/i.exec(text) ?? [];
  return separator === undefined ? undefined : { line, separator };
}

/** The columns as this table writes them: by their names, and when there is none such in whatever case. */
function headerOf(
  fields: UnitFields,
  found: readonly string[],
  before: number,
): { fields: UnitFields } | { fault: CsvFault } {
  const line = 1 + before;
  const written = new Map<string, string>();
  for (const [field, name] of Object.entries<string | undefined>(fields)) {
    if (name === undefined) continue;
    const alike = found.includes(name) ? [name] : found.filter((each) => plainName(each) === plainName(name));
    if (new Set(alike).size > 1 || found.filter((each) => each === alike[0]).length > 1)
      return {
        fault: {
          message: `The table has several columns “${name}”.`,
          fix: 'Rename all but one of them in the table, or say which is meant, as in --column id="Ad unit".',
          line,
        },
      };
    written.set(field, alike[0] ?? name);
  }
  const actual = { ...fields, ...Object.fromEntries(written) };
  const missing = [actual.id, actual.name, actual.format].filter((name) => !found.includes(name));
  if (missing.length === 0) return { fields: actual };
  return {
    fault: {
      message: `The table has no column ${missing.map((name) => `“${name}”`).join(', ')}; it has ${found.slice(0, 20).join(', ')}.`,
      fix: 'Say which column is which, as in --column id="Ad unit" name=Title, or name the separator.',
      line,
    },
  };
}

function plainName(name: string): string {
  return name.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim();
}

const ownColumns: UnitFields = {
  id: 'id',
  name: 'name',
  format: 'format',
  platform: 'platform',
  app: 'app',
  status: 'status',
};

const separators = [',', ';', '\t', '|'];

/** The separator that is most often in the first line, outside of quotes. */
function separatorOf(text: string): string {
  const line =
    text
      .slice(0, 10_000)
      .split(/\r?\n/, 1)[0]
      ?.replace(/"[^"]*"/g, '') ?? '';
  const counts = separators.map((separator) => ({ separator, count: line.split(separator).length - 1 }));
  return counts.sort((a, b) => b.count - a.count)[0]?.separator ?? ',';
}

function firstLine(text: string, delimiter: string): string[] {
  const [names] = parse(text, { delimiter, to_line: 1, trim: true, relax_column_count: true });
  return names ?? [];
}
