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
  informationUri: string;
  rules: readonly Record<string, unknown>[];
}

/** The name of the folder that all paths are relative to. */
const rootId = '%SRCROOT%';

/** A log with one run. */
export function sarifDocument(driver: SarifDriver, results: readonly unknown[]): Record<string, unknown> {
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: { driver: { name: 'Syndexa', ...driver } },
        // The caller adds the URI of that folder if it knows it.
        originalUriBaseIds: { [rootId]: { description: { text: 'The folder that was checked.' } } },
        columnKind: 'utf16CodeUnits',
        results,
      },
    ],
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
  return { physicalLocation: { artifactLocation: artifact(path), region } };
}

/** A part of a file that is replaced: UTF-16 units from its beginning, byte order mark left out. */
export interface SarifReplacement {
  start: number;
  end: number;
  text: string;
}

/** The changes of one file. */
export function sarifChange(
  path: string,
  replacements: readonly SarifReplacement[],
): Record<string, unknown> {
  return {
    artifactLocation: artifact(path),
    replacements: [...replacements]
      .sort((a, b) => a.start - b.start)
      .map(({ start, end, text }) => ({
        deletedRegion: { charOffset: start, charLength: end - start },
        ...(text === '' ? {} : { insertedContent: { text } }),
      })),
  };
}

function artifact(path: string): Record<string, unknown> {
  return { uri: path.split('/').map(encodeURIComponent).join('/'), uriBaseId: rootId };
}
