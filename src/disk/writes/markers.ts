import { lstatSync, readdirSync } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { printableName } from '../../core/text/printable.js';

/** The beginning of every name that a write uses in a tree. */
const prefix = '.syndexa-';

/** The name of the marker that is in a tree's root while it is written to. It holds its random name alone. */
export function markerName(marker: string): string {
  return `${prefix}write-${marker}`;
}

/** The name of a file that a write makes beside one of the tree's. */
export function temporaryName(marker: string, index: number): string {
  return `${prefix}write-${marker}-${index}`;
}

/** Marks a tree, so that other data folders learn of a write; a root that cannot be written to goes unmarked. */
export async function mark(base: string, marker: string): Promise<void> {
  await writeFile(join(base, markerName(marker)), `${marker}\n`, { flag: 'wx', mode: 0o600 }).catch(
    () => undefined,
  );
}

export async function unmark(base: string, marker: string): Promise<void> {
  await rm(join(base, markerName(marker)), { force: true }).catch(() => undefined);
}

/** An entry in a tree's root that has one of our names but was not created by a write this data folder knows. */
export interface StrangeMarker {
  name: string;
  kind: 'file' | 'folder' | 'link' | 'something else';
}

/** Only names and kinds are looked at: what a stranger's marker holds is of no interest. */
export function strangeMarkers(base: string, known: string | undefined): StrangeMarker[] {
  const own = known === undefined ? undefined : markerName(known);
  const isOurs = (name: string) =>
    ['write', 'draft', 'done'].some((word) => name.startsWith(`${prefix}${word}`)) &&
    !(own !== undefined && name.startsWith(own));
  try {
    return readdirSync(base)
      .filter(isOurs)
      .sort()
      .map((name) => ({ name: printableName(name), kind: kindOf(join(base, name)) }));
  } catch {
    return [];
  }
}

function kindOf(path: string): StrangeMarker['kind'] {
  try {
    const stats = lstatSync(path);
    if (stats.isFile()) return 'file';
    if (stats.isDirectory()) return 'folder';
    if (stats.isSymbolicLink()) return 'link';
  } catch {
    // It went away.
  }
  return 'something else';
}
