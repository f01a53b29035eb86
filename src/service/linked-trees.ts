import { realpath, stat } from 'node:fs/promises';
import { collectTree } from '../disk/collect.js';
import type { ReadingOptions } from '../disk/reading.js';
import type { LinkedTree, StoredTree } from '../api/trees.js';
import { entryOf } from '../disk/writes/journal.js';
import type { ServiceContext } from './context.js';
import { collectPlanOf } from './collect-plan.js';
import { ServiceError } from './errors.js';
import type { TreeWork } from './tree-work.js';

/** Linked trees: folders below a root that was named when the service was started. They are read again when saved. */
export class LinkedTrees {
  /** Stops following a tree, by its ID. */
  readonly #followed = new Map<string, () => void>();

  constructor(
    private readonly context: ServiceContext,
    private readonly work: TreeWork,
  ) {}

  list(): Promise<LinkedTree[]> {
    return Promise.all(this.context.trees.linkedTrees().map((tree) => this.withState(tree)));
  }

  async link(title: string, folder: string): Promise<LinkedTree> {
    const path = await this.insideRoots(folder);
    const linked = await this.read(this.context.trees.link(title, path));
    await this.follow(linked);
    return linked;
  }

  unlink(id: string): void {
    this.context.trees.unlink(id);
    this.#followed.get(id)?.();
    this.#followed.delete(id);
  }

  /** Reads a tree as it is now, and checks it. */
  async read(tree: StoredTree, options: ReadingOptions = {}): Promise<LinkedTree> {
    const { trees } = this.context;
    const { snapshot } = await this.snapshotOf(await this.insideRoots(tree.path), tree.path, options);
    trees.setSnapshot(tree.id, snapshot);
    await this.work.check({ ...options, snapshot, title: tree.title });
    return this.withState(trees.linkedTree(tree.id));
  }

  /** Keeps the files of a folder below a root as a snapshot; with `needles`, those too that hold one of these texts. */
  async snapshotOf(
    path: string,
    name: string,
    { needles = [], ...options }: ReadingOptions & { needles?: readonly string[] } = {},
  ): Promise<{ snapshot: string; seen: number; files: number }> {
    const { watched, profiles, roster, trees, settings } = this.context;
    const plan = collectPlanOf(profiles, roster, settings);
    const collected =
      needles.length === 0
        ? await watched.current(path, plan, options)
        : await collectTree(path, { ...plan, needles: [...plan.needles, ...needles] }, options);
    const { seen, files } = collected;
    return { snapshot: trees.addCollected(name, collected), seen, files: files.length };
  }

  /** Follows all linked trees. One that cannot be followed is reported in the log. */
  async followAll(): Promise<void> {
    const { trees, log } = this.context;
    for (const tree of trees.linkedTrees())
      await this.follow(tree).catch((error: unknown) =>
        log.warn({ err: error, path: tree.path }, 'A linked tree cannot be watched.'),
      );
  }

  /**
   * The real path of a folder.
   * @throws ServiceError if it is not a folder below one of the roots
   */
  async insideRoots(path: string): Promise<string> {
    const { roots } = this.context;
    if (roots.length === 0)
      throw new ServiceError('forbidden', 'This service is not allowed to read folders.', {
        fix: 'Start it with syndexa serve --root FOLDER to link trees below that folder.',
      });
    const real = await realpath(path).catch(() => null);
    if (real === null || !(await stat(real)).isDirectory())
      throw new ServiceError('not-found', `There is no folder ${path}.`, { fix: 'Check the path.' });
    if (roots.some((root) => real === root || real.startsWith(`${root}/`))) return real;
    throw new ServiceError('forbidden', `${path} is not below any of the service’s roots.`, {
      fix: `The roots are ${roots.join(', ')}.`,
    });
  }

  /** A linked tree, and a write into it that was interrupted, if any. */
  async withState(tree: StoredTree): Promise<LinkedTree> {
    const state = await this.context.writes.state(tree.path).catch(() => undefined);
    return { ...tree, interrupted: state?.interrupted ? entryOf(state.interrupted) : null };
  }

  /** From now on a linked tree is read again whenever one of its files is saved. */
  private async follow(tree: StoredTree): Promise<void> {
    if (this.#followed.has(tree.id)) return;
    const { watched, profiles, roster, settings } = this.context;
    const path = await this.insideRoots(tree.path);
    const plan = collectPlanOf(profiles, roster, settings);
    const changed = oneAtATime(() => this.readIfChanged(tree, path));
    this.#followed.set(tree.id, watched.follow(path, plan, changed));
    await watched.current(path, plan);
  }

  private async readIfChanged(tree: StoredTree, path: string): Promise<void> {
    const { trees, watched, log } = this.context;
    try {
      const before = trees.linkedTree(tree.id).snapshot;
      const { snapshot } = await this.snapshotOf(path, tree.path);
      if (snapshot !== before) await this.read(tree);
    } catch (error) {
      if (!watched.closed) log.warn({ err: error, path }, 'A linked tree cannot be read.');
    }
  }
}

/** Runs work one call at a time. Calls that come meanwhile are answered by one more run. */
function oneAtATime(work: () => Promise<void>): () => Promise<void> {
  let isBusy = false;
  let isWanted = false;
  return async () => {
    isWanted = true;
    if (isBusy) return;
    isBusy = true;
    try {
      while (isWanted) {
        isWanted = false;
        await work();
      }
    } finally {
      isBusy = false;
    }
  };
}
