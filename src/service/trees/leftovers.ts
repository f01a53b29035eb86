import { readdirSync } from 'node:fs';

/** The folder of a write that passed its point of no return; it stands in the tree's root until the write is done. */
export const stagingName = '.syndexa-write';
/** The beginning of the names of folders in which writes are prepared. */
export const draftPrefix = '.syndexa-draft-';
/** The beginning of the names of folders whose writes are done; they only wait to be removed. */
export const donePrefix = '.syndexa-done-';

/** The names that writes left in a tree's root, if any. Quick, for every command that reads a tree asks it. */
export function leftovers(root: string): string[] {
  try {
    return readdirSync(root).filter(
      (name) => name === stagingName || [draftPrefix, donePrefix].some((prefix) => name.startsWith(prefix)),
    );
  } catch {
    return [];
  }
}
