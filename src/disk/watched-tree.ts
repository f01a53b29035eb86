import { existsSync, lstatSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import { setImmediate as yieldToEventLoop } from 'node:timers/promises';
import { watch, type FSWatcher } from 'chokidar';
import type { CollectPlan } from '../api/trees.js';
import { printableName } from '../core/text/printable.js';
import { collectTree, recollectTree, type Collected } from './collect.js';
import type { ReadingOptions } from './reading.js';
import { matcherOf } from './wanted-files.js';
import { KnownFiles } from './known-files.js';
import { skippedFolders } from './skipped-folders.js';

/** How long (milliseconds) to wait after a change: editors write a file in several goes. */
const settle = 80;

/** How long (milliseconds) after a request the watching of a folder starts, because that reads the whole folder too. */
const patience = 700;

/** How long (milliseconds) it may take until a new folder is watched itself. */
const unwatched = 2_000;

/** Paths that changed at once beyond which a tree is read again as a whole. */
const maxDirty = 2_000;

/**
 * A watched folder. Requesting it again reads only the paths that the system reported as changed.
 */
export class WatchedTree {
  #collected: Collected | null = null;
  #watching = false;
  readonly #dirty = new Set<string>();
  readonly #folders = new Set<string>();
  /** New folders, and when they were first seen. */
  readonly #fresh = new Map<string, number>();
  #waiting: NodeJS.Timeout | null = null;
  #watcher: FSWatcher | null = null;
  #begin: NodeJS.Timeout | null = null;
  #work: Promise<unknown> = Promise.resolve();
  #closed = false;

  /**
   * @param root real path of the folder
   * @param changed called a moment after something that may matter has changed
   * @param lists where it is kept what the files were, from one run to the next, if it is
   */
  constructor(
    readonly root: string,
    readonly plan: CollectPlan,
    private readonly changed: () => void,
    private readonly lists: string | null = null,
  ) {
    this.begin();
  }

  /** The files as they are now. Calls wait for each other. */
  current(options: ReadingOptions = {}): Promise<Collected> {
    if (this.#begin) clearTimeout(this.#begin);
    const next = this.#work.then(() => this.readFor(options));
    this.#work = next.catch(() => undefined).then(() => this.begin());
    return next;
  }

  /** Setting a watch up looks at every folder, so whoever asked first is answered first. */
  private begin(): void {
    if (this.#watcher || this.#closed) return;
    if (this.#begin) clearTimeout(this.#begin);
    this.#begin = setTimeout(() => this.watch(), patience);
  }

  private watch(): void {
    const { root, plan } = this;
    const skip = skippedFolders(plan);
    const match = matcherOf(plan);
    const watcher = watch(root, {
      followSymlinks: false,
      ignored: (path, stats) => {
        if (path === root) return false;
        if (skip.at(path)) return true;
        return stats?.isFile() === true && match(basename(path), basename(dirname(path))) === null;
      },
    });
    // The raw event comes first, before anything is looked at: from then on what was read counts as old.
    watcher.on('raw', (_, name: string, details: unknown) => {
      const around = (details as { watchedPath?: string } | undefined)?.watchedPath ?? root;
      const inside = this.#folders.has(around) && typeof name === 'string' && name !== '';
      this.touch(inside ? join(around, name) : around);
    });
    watcher.on('all', (event, path) => {
      if (event === 'addDir') this.#folders.add(path);
      if (event === 'unlinkDir') this.#folders.delete(path);
      // Files found at the start are not changes.
      if (this.#watching) this.touch(path);
    });
    watcher.on('ready', () => {
      // A change between the first reading and the watch was not reported, so it is looked for once.
      this.#collected = null;
      this.#watching = true;
      this.tell();
    });
    watcher.on('error', () => (this.#watching = false));
    this.#watcher = watcher;
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#begin) clearTimeout(this.#begin);
    if (this.#waiting) clearTimeout(this.#waiting);
    await this.#watcher?.close();
  }

  /** Reads for a caller. After a reading that failed or was ended, the next one looks at everything. */
  private async readFor(options: ReadingOptions): Promise<Collected> {
    try {
      options.signal?.throwIfAborted();
      return await this.read(options);
    } catch (error) {
      this.#collected = null;
      throw error;
    }
  }

  private async read(options: ReadingOptions): Promise<Collected> {
    // What the system has to say of changes up to now is heard before anything is answered.
    await yieldToEventLoop();
    const before = this.#collected;
    const dirty = [...this.#dirty];
    this.#dirty.clear();
    // What happens in a new folder before it is watched itself is not reported: it is looked at again for a while.
    const now = performance.now();
    for (const path of dirty) {
      const fresh = this.#fresh.get(path) ?? now;
      if (now - fresh > unwatched) this.#fresh.delete(path);
      else if (isFolder(join(this.root, path))) {
        this.#fresh.set(path, fresh);
        this.#dirty.add(path);
      }
    }
    if (before === null || before.limited || !this.#watching || dirty.length > maxDirty || dirty.includes(''))
      this.#collected = await this.collect(options);
    else if (dirty.length > 0) this.#collected = await recollectTree(this.root, this.plan, before, dirty);
    return this.#collected ?? (await this.collect(options));
  }

  private async collect(options: ReadingOptions): Promise<Collected> {
    const known = this.lists === null ? undefined : KnownFiles.open(this.lists, this.root, this.plan);
    const collected = await collectTree(this.root, this.plan, { ...options, known });
    known?.save(collected.read);
    return collected;
  }

  private touch(path: string): void {
    const inside = relative(this.root, path);
    // The folder itself is named whenever something in it changes; only what changed is looked at.
    if (inside.startsWith('..') || inside === '') return;
    // A name that is not shown as it is on disk cannot be looked up again: then the whole tree is read.
    if (inside.includes('\ufffd') || printableName(inside) !== inside) this.#dirty.add('');
    else if (!this.#folders.has(path) || !existsSync(path)) this.#dirty.add(inside);
    this.tell();
  }

  private tell(): void {
    if (this.#waiting) clearTimeout(this.#waiting);
    this.#waiting = setTimeout(() => this.changed(), settle);
  }
}

function isFolder(path: string): boolean {
  try {
    return lstatSync(path).isDirectory();
  } catch {
    return false;
  }
}
