import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { Stats } from 'node:fs';
import { join } from 'node:path';
import type { CollectPlan } from '../../api/trees.js';

/** Lists that are kept at once; those that were used least lately go first. */
const maxLists = 40;

/**
 * A file that was changed so shortly (milliseconds) before it was looked at may change again without its times
 * telling: it is not taken for known.
 */
const tooFresh = 2_000;

/** Size, time of change, time of any change to the entry, number of the file, and its hash; null when it does not matter. */
type Entry = [size: number, changed: number, entered: number, file: number, hash: string | null];
interface List {
  plan: string;
  files: Record<string, Entry>;
}

/**
 * What the files of one folder were when they were last looked at, kept between two runs, so that what has not
 * changed is not read again. A list that cannot be read, or was made for another plan, counts as none.
 */
export class KnownFiles {
  readonly #before: ReadonlyMap<string, Entry>;
  readonly #now: Record<string, Entry> = {};
  readonly #started = Date.now();
  #news = false;

  private constructor(
    private readonly path: string,
    private readonly plan: string,
    before: Record<string, Entry>,
  ) {
    this.#before = new Map(Object.entries(before));
  }

  /**
   * The list of a folder.
   * @param lists the folder in which lists are kept
   * @param root real path of the tree
   */
  static open(lists: string, root: string, plan: CollectPlan): KnownFiles {
    const planHash = digest(JSON.stringify(plan));
    const path = join(lists, `${digest(`${planHash} ${root}`).slice(0, 40)}.json`);
    try {
      const list: unknown = JSON.parse(readFileSync(path, 'utf8'));
      return new KnownFiles(path, planHash, isList(list) && list.plan === planHash ? list.files : {});
    } catch {
      return new KnownFiles(path, planHash, {});
    }
  }

  /** The hash of a file that is as it was; a null hash when it did not matter. Nothing when it has to be read. */
  recall(path: string, stats: Stats): { hash: string | null } | undefined {
    const entry = this.#before.get(path);
    if (!entry) return undefined;
    const [size, changed, entered, number, hash] = entry;
    const same =
      size === stats.size && changed === stats.mtimeMs && entered === stats.ctimeMs && number === stats.ino;
    if (!same) return undefined;
    this.#now[path] = entry;
    return { hash };
  }

  /** Takes down what a file was found to be. */
  remember(path: string, stats: Stats, hash: string | null): void {
    this.#news = true;
    if (this.#started - Math.max(stats.mtimeMs, stats.ctimeMs) < tooFresh) return;
    this.#now[path] = [stats.size, stats.mtimeMs, stats.ctimeMs, stats.ino, hash];
  }

  /** Keeps the list for the next time; a folder that cannot be written to costs time, and nothing else. */
  save(): void {
    if (!this.#news && Object.keys(this.#now).length === this.#before.size) return;
    const lists = join(this.path, '..');
    const draft = `${this.path}.${process.pid}`;
    try {
      mkdirSync(lists, { recursive: true });
      writeFileSync(draft, JSON.stringify({ plan: this.plan, files: this.#now }), { mode: 0o600 });
      renameSync(draft, this.path);
      dropOldest(lists);
    } catch {
      rmSync(draft, { force: true });
    }
  }
}

/** Checked by hand, for the client reads it at each start, and a schema would take longer than the list. */
function isList(value: unknown): value is List {
  if (typeof value !== 'object' || value === null || !('plan' in value) || !('files' in value)) return false;
  if (typeof value.files !== 'object' || value.files === null) return false;
  return Object.values(value.files).every((entry: unknown) => Array.isArray(entry) && isEntry(entry));
}

function isEntry(entry: readonly unknown[]): entry is Entry {
  const hash = entry[4];
  const numbers = entry.slice(0, 4).every((part) => typeof part === 'number');
  return (
    entry.length === 5 &&
    numbers &&
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
