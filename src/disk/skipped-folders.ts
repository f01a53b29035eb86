import { readdirSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import type { CollectPlan } from '../api/trees.js';
import { groupBy } from '../core/text/group-by.js';

/** Whether a folder is skipped. */
export interface SkippedFolders {
  /** A folder whose siblings are already known by name. */
  among(name: string, neighbours: () => readonly string[]): boolean;
  /** One that is named by its path on disk. */
  at(path: string): boolean;
}

/** Folders that tools generate: some are recognised anywhere, some only beside a certain file. */
export function skippedFolders(plan: Pick<CollectPlan, 'skipFolders' | 'skipBeside'>): SkippedFolders {
  const always = new Set(plan.skipFolders);
  const ends = groupBy(plan.skipBeside, ({ folder }) => folder);
  const among: SkippedFolders['among'] = (name, neighbours) => {
    const wanted = ends.get(name);
    return (
      always.has(name) ||
      (wanted !== undefined &&
        neighbours().some((other) => wanted.some(({ beside }) => other.endsWith(beside))))
    );
  };
  return { among, at: (path) => among(basename(path), () => namesIn(dirname(path))) };
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}
