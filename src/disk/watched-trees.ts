import type { CollectPlan } from '../api/trees.js';
import type { Collected } from './collect.js';
import type { ReadingOptions } from './reading.js';
import { WatchedTree } from './watched-tree.js';

/** No folder is read or followed any more, because the service is stopping. */
export class FollowingEndedError extends Error {
  override readonly name = 'FollowingEndedError';

  constructor() {
    super('The service is stopping; no folder is read any more.');
  }
}

/** Folders that are followed at once, beyond those that are linked. */
const maxOpen = 8;

/** The folders that the service watches: the linked ones, and the most recently requested ones. */
export class WatchedTrees {
  /** @param lists where it is kept what the files were, from one run to the next; nothing is when it is left out */
  constructor(private readonly lists: string | null = null) {}

  readonly #running = new Set<Promise<void>>();
  /** Readings that are under way, each with what ends it. */
  readonly #readings = new Set<AbortController>();
  #closed = false;
  readonly #open = new Map<string, { tree: WatchedTree; plan: string; changed: Set<() => void> }>();

  /** Whether nothing is followed any more. */
  get closed(): boolean {
    return this.#closed;
  }

  /**
   * The files of a folder as they are now; from then on the folder is followed.
   * @throws Error once it is closed: a folder that were opened then would be followed for ever
   */
  async current(root: string, plan: CollectPlan, options: ReadingOptions = {}): Promise<Collected> {
    const { signal, progress } = options;
    const reading = new AbortController();
    const end = () => reading.abort(signal?.reason);
    if (signal?.aborted) end();
    signal?.addEventListener('abort', end, { once: true });
    this.#readings.add(reading);
    try {
      return await this.entry(root, plan).tree.current({ signal: reading.signal, progress });
    } finally {
      this.#readings.delete(reading);
      signal?.removeEventListener('abort', end);
    }
  }

  /** Calls back whenever something in a folder changed that may matter. */
  follow(root: string, plan: CollectPlan, changed: () => void | Promise<void>): () => void {
    // What is under way when the service stops still needs the record.
    const notify = () => {
      const run = Promise.resolve(changed()).catch(() => undefined);
      this.#running.add(run);
      void run.finally(() => this.#running.delete(run));
    };
    this.entry(root, plan).changed.add(notify);
    return () => this.#open.get(root)?.changed.delete(notify);
  }

  async close(): Promise<void> {
    this.#closed = true;
    for (const reading of this.#readings) reading.abort(new FollowingEndedError());
    const all = [...this.#open.values()];
    this.#open.clear();
    await Promise.all(all.map(({ tree }) => tree.close()));
    await Promise.allSettled(this.#running);
  }

  private entry(root: string, plan: CollectPlan) {
    if (this.#closed) throw new FollowingEndedError();
    const text = JSON.stringify(plan);
    const known = this.#open.get(root);
    if (known?.plan === text) return known;
    const changed = known?.changed ?? new Set<() => void>();
    if (known) void known.tree.close();
    const notify = () => {
      for (const tell of changed) tell();
    };
    const tree = new WatchedTree(root, plan, notify, this.lists);
    const made = { tree, plan: text, changed };
    this.#open.delete(root);
    this.#open.set(root, made);
    const idle = [...this.#open].filter(([, { changed: followers }]) => followers.size === 0);
    for (const [path, { tree: old }] of idle.slice(0, Math.max(0, idle.length - maxOpen))) {
      this.#open.delete(path);
      void old.close();
    }
    return made;
  }
}
