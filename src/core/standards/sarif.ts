// SARIF 2.1.0 (OASIS standard, "Static Analysis Results Interchange Format"), as far as a check needs it.

/** A region of a file; lines and columns begin at one, columns count UTF-16 units. */
export interface SarifPlace {
  path: string;
  line: number;
  column: number;
  endLine?: number | undefined;
  endColumn?: number | undefined;
}

export interface SarifDriver {
  version: string;
  rules: readonly Record<string, unknown>[];
}

/** A log with one run. */
export function sarifDocument(driver: SarifDriver, results: readonly unknown[]): Record<string, unknown> {
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [{ tool: { driver: { name: 'Syndexa', ...driver } }, columnKind: 'utf16CodeUnits', results }],
  };
}

/** A place as a location; its path is relative to the root of the sources. */
export function sarifLocation({
  path,
  line,
  column,
  endLine,
  endColumn,
}: SarifPlace): Record<string, unknown> {
  const region = {
    startLine: line,
    startColumn: column,
    ...(endLine ? { endLine } : {}),
    ...(endColumn ? { endColumn } : {}),
  };
  const uri = path.split('/').map(encodeURIComponent).join('/');
  return { physicalLocation: { artifactLocation: { uri, uriBaseId: '%SRCROOT%' }, region } };
}
