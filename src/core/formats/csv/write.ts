import Papa from 'papaparse';

/**
 * Writes a table as CSV (RFC 4180, lines ended by CRLF). Text that a spreadsheet program would take for a formula, because
 * it begins with `=`, `+`, `-`, `@` or a control character, is kept from being one by an apostrophe in front of it.
 */
export function writeCsv(rows: readonly (readonly (string | number | null)[])[]): string {
  const text = Papa.unparse(
    rows.map((row) => [...row]),
    { escapeFormulae: /^[=+\-@\t\r]/, newline: '\r\n' },
  );
  return `${text}\r\n`;
}
