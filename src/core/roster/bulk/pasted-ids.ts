import { CsvError, readCsv, type CsvRow } from '../../formats/csv/read.js';
import { editsApart } from '../../text/edit-distance.js';
import { entryAt, putAt, valueAt } from '../../text/own-values.js';
import { platformNames, stageNames } from '../../words/names.js';
import type { Platform, Stage } from '../../words/words.js';
import type { Title } from '../model.js';

/** A network as people name it in a table. */
export interface NamedNetwork {
  id: string;
  name: string;
}

/** An ID of a row, and where it belongs. */
export interface PastedId {
  row: number;
  network: string;
  platform: Platform;
  stage: Stage;
  /** Null for an app ID. */
  placement: string | null;
  id: string;
}

/** A row that cannot be taken, and why. */
export interface PastedFault {
  row: number;
  message: string;
}

const columns = {
  placement: ['placement', 'unit', 'spot'],
  network: ['network'],
  platform: ['platform', 'os'],
  stage: ['stage', 'build', 'environment'],
  id: ['id', 'unit id', 'app id', 'value'],
} as const;
type Column = keyof typeof columns;
const columnNames = Object.keys(columns) as Column[];

/**
 * Reads IDs copied from a spreadsheet: one per row, with columns separated by tabs, commas or semicolons. Without a
 * header the columns are placement, network, platform, stage, ID. An empty placement, or `app`, means the app ID.
 */
export function readPastedIds(
  text: string,
  { placements }: Pick<Title, 'placements'>,
  networks: readonly NamedNetwork[],
): { ids: PastedId[]; faults: PastedFault[] } {
  if (text.trim() === '') return { ids: [], faults: [] };
  const table = rowsOf(text);
  if ('faults' in table) return { ids: [], ...table };
  const [first, ...others] = table.rows;
  if (!first) return { ids: [], faults: [] };
  const header = headerOf(first);
  const ids: PastedId[] = [];
  const faults: PastedFault[] = [];
  const seen = new Map<string, number>();
  for (const { line, cells } of header ? others : table.rows) {
    if (cells.every((cell) => cell.trim() === '')) continue;
    const at = (column: Column) =>
      (cells[header ? (header.get(column) ?? -1) : columnNames.indexOf(column)] ?? '').trim();
    const read = idOf(at, placements, networks);
    if ('message' in read) {
      faults.push({ row: line, message: read.message });
      continue;
    }
    const spot = JSON.stringify([read.network, read.platform, read.stage, read.placement]);
    const twin = seen.get(spot);
    if (twin === undefined) ids.push({ row: line, ...read });
    else faults.push({ row: line, message: `Row ${twin} already has an ID for the same place.` });
    seen.set(spot, twin ?? line);
  }
  return { ids, faults };
}

function rowsOf(text: string): { rows: CsvRow[] } | { faults: PastedFault[] } {
  try {
    return { rows: readCsv(text.endsWith('\n') ? text : `${text}\n`) };
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    const { message, fix, line = 1 } = error.fault;
    return { faults: [{ row: line, message: `${message} ${fix}` }] };
  }
}

/** The columns by the names in the first row; undefined where it is no header. */
function headerOf({ cells }: CsvRow): Map<Column, number> | undefined {
  const words = cells.map((cell) => cell.trim().toLowerCase());
  const found = new Map<Column, number>();
  for (const column of columnNames) {
    const at = words.findIndex((word) => (columns[column] as readonly string[]).includes(word));
    if (at >= 0) found.set(column, at);
  }
  return found.has('id') && found.has('network') ? found : undefined;
}

function idOf(
  at: (column: Column) => string,
  placements: Title['placements'],
  networks: readonly NamedNetwork[],
): Omit<PastedId, 'row'> | { message: string } {
  const id = at('id');
  if (id === '') return { message: 'It has no ID.' };
  if (id.length > 200) return { message: 'The ID is longer than 200 characters.' };
  const named = at('network').toLowerCase();
  const network = networks.find((one) => one.id === named || one.name.toLowerCase() === named);
  if (!network)
    return {
      message: `“${at('network')}” is no network here. Write ${networks.map((one) => one.id).join(', ')}.`,
    };
  const platform = oneOf(platformNames, at('platform'));
  if (!platform) return { message: `“${at('platform')}” is no platform. Write android or ios.` };
  const stage = oneOf(stageNames, at('stage'));
  if (!stage) return { message: `“${at('stage')}” is no stage. Write test or production.` };
  const placement = at('placement');
  const slot = { network: network.id, platform, stage, id };
  if (placement === '' || placement.toLowerCase() === 'app') return { ...slot, placement: null };
  if (valueAt(placements, placement)) return { ...slot, placement };
  const near = Object.keys(placements).find((one) => editsApart(one, placement, 2) !== undefined);
  return {
    message: `The title has no placement “${placement}”.${near === undefined ? ' Add it first.' : ` Did you mean ${near}?`}`,
  };
}

function oneOf<Name extends string>(names: readonly Name[], text: string): Name | undefined {
  return names.find((name) => name === text.toLowerCase());
}

/** A title with these IDs; all others stay. */
export function withIds(title: Title, ids: readonly Omit<PastedId, 'row'>[]): Title {
  const next = structuredClone(title);
  for (const { network, platform, stage, placement, id } of ids) {
    if (placement === null) {
      const enrolment = entryAt<NonNullable<Title['networks'][string]>>(next.networks, network, () => ({}));
      const stages = (enrolment[platform] ??= {});
      stages[stage] = { ...stages[stage], app: id };
    } else {
      const units = valueAt(next.placements, placement)?.units;
      if (!units) continue;
      const platforms = entryAt<NonNullable<(typeof units)[string]>>(units, network, () => ({}));
      putAt((platforms[platform] ??= {}), stage, id);
    }
  }
  return next;
}
