import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import type { Stats } from 'node:fs';
import { join } from 'node:path';
import type { CollectPlan } from '../api/trees.js';
import { replaceFile } from './replace-file.js';

/** Size (bytes), times of change (milliseconds) and inode of a file. */
export type FileTimes = Pick<Stats, 'size' | 'mtimeMs' | 'ctimeMs' | 'ino'>;

export function timesOf({ size, mtimeMs, ctimeMs, ino }: Stats): FileTimes {
  return { size, mtimeMs, ctimeMs, ino };
}

/** Lists that are kept at once; the least recently used go first. */
const maxLists = 40;

/**
 * A file that was changed less than this (milliseconds) before it was read may change again without a new timestamp, so
 * it is not cached.
 */
const tooFresh = 2_000;

/** A file of a list: path, size, mtimeMs, ctimeMs, ino, and its hash; a null hash when it does not matter. */
type Row = [string, number, number, number, number, string | null];

/**
 * What the files of one folder were when they were last looked at, kept between two runs, so that what has not
 * changed is not read again. A list that cannot be read, or was made for another plan, counts as none.
 */
export class KnownFiles {
  readonly #before: ReadonlyMap<string, Row>;
  readonly #now: Row[] = [];
  readonly #started = Date.now();

  private constructor(
    private readonly path: string,
    private readonly plan: string,
  ) {
    this.#before = new Map(readList(path, plan).map((row) => [row[0], row]));
  }

  /**
   * The list of a folder.
   * @param lists the folder in which lists are kept
   * @param root real path of the tree
   */
  static open(lists: string, root: string, plan: CollectPlan): KnownFiles {
    const planHash = digest(JSON.stringify(plan));
    return new KnownFiles(join(lists, `${digest(`${planHash} ${root}`).slice(0, 40)}.json`), planHash);
  }

  /** The hash of a file that is as it was; null when it did not matter, undefined when it has to be read. */
  recall(path: string, times: FileTimes): string | null | undefined {
    const row = this.#before.get(path);
    if (!row) return undefined;
    const [, size, mtimeMs, ctimeMs, ino, hash] = row;
    const same =
      size === times.size && mtimeMs === times.mtimeMs && ctimeMs === times.ctimeMs && ino === times.ino;
    return same ? hash : undefined;
  }

  /** Notes what a file was found to be; with a null hash, that it does not matter. */
  remember(path: string, { size, mtimeMs, ctimeMs, ino }: FileTimes, hash: string | null): void {
    if (Math.max(mtimeMs, ctimeMs) <= this.#started - tooFresh)
      this.#now.push([path, size, mtimeMs, ctimeMs, ino, hash]);
  }

  /**
   * Saves the list for the next run. If the folder cannot be written to, the next run is only slower.
   * @param read how many files had to be read; with none the list is as it was
   */
  save(read: number): void {
    if (read === 0 && this.#now.length === this.#before.size) return;
    const lists = join(this.path, '..');
    try {
      mkdirSync(lists, { recursive: true, mode: 0o700 });
      replaceFile(this.path, JSON.stringify({ plan: this.plan, files: this.#now }), 0o600);
      dropOldest(lists);
    } catch {
      // The next run reads every file again.
    }
  }
}

function readList(path: string, plan: string): Row[] {
  try {
    const list = JSON.parse(readFileSync(path, 'utf8')) as { plan?: unknown; files?: unknown };
    if (list.plan === plan && Array.isArray(list.files) && list.files.every(isRow)) return list.files;
  } catch {
    // There is none yet, or it cannot be read.
  }
  return [];
}

function isRow(row: unknown): row is Row {
  if (!Array.isArray(row) || row.length !== 6) return false;
  const [path, size, mtimeMs, ctimeMs, ino, hash] = row as unknown[];
  return (
    typeof path === 'string' &&
    [size, mtimeMs, ctimeMs, ino].every((each) => typeof each === 'number') &&
    (hash === null || (typeof hash === 'string' && /^[0-9a-f]{64}$/.test(hash)))
  );
}

function dropOldest(lists: string): void {
  const all = readdirSync(lists).map((name) => join(lists, name));
  if (all.length <= maxLists) return;
  const byAge = all.map((path) => ({ path, time: statSync(path).mtimeMs })).sort((a, b) => b.time - a.time);
  for (const { path } of byAge.slice(maxLists)) rmSync(path, { force: true });
}

function digest(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}
