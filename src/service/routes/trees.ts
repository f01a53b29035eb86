import { realpath, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Router } from 'express';
import type { LinkedTree, StoredTree } from '../../api/trees.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import { bind } from '../route.js';
import { FileChangedError, WriteRefusedError } from '../../disk/writes/errors.js';
import { entryOf } from '../../disk/writes/journal.js';
import type { TreeWork } from '../tree-work.js';
import { collectPlanOf } from './networks.js';

/** Trees that are linked: folders below a root that was named when the service was started. */
export function treeRoutes(router: Router, context: ServiceContext, work: TreeWork): () => Promise<void> {
  const { trees, roots, roster, watched, writes, log } = context;
  const followed = new Map<string, () => void>();

  /** Keeps the files of a folder below a root as a snapshot. */
  const snapshotOf = async (path: string, name: string) => {
    const collected = await watched.current(path, collectPlanOf(context.profiles));
    const { seen, files } = collected;
    return { snapshot: trees.addCollected(name, collected), seen, files: files.length };
  };

  /** A linked tree with what is odd about it. Only looks. */
  const withState = async (tree: StoredTree): Promise<LinkedTree> => {
    const state = await writes.state(tree.path).catch(() => undefined);
    return { ...tree, interrupted: state?.interrupted ? entryOf(state.interrupted) : null };
  };

  const read = async (tree: StoredTree): Promise<LinkedTree> => {
    const { snapshot } = await snapshotOf(await insideRoots(tree.path, roots), tree.path);
    trees.setSnapshot(tree.id, snapshot);
    await work.check(snapshot, tree.title);
    return withState(trees.linkedTree(tree.id));
  };

  /** From now on a linked tree is read again whenever one of its files is saved. */
  const follow = async (tree: StoredTree): Promise<void> => {
    if (followed.has(tree.id)) return;
    const path = await insideRoots(tree.path, roots);
    let busy = false;
    let again = false;
    const changed = async (): Promise<void> => {
      again = true;
      if (busy) return;
      busy = true;
      try {
        while (again) {
          again = false;
          const before = trees.linkedTree(tree.id).snapshot;
          const { snapshot } = await snapshotOf(path, tree.path);
          if (snapshot !== before) await read(tree);
        }
      } catch (error) {
        if (!watched.closed) log.warn({ err: error, path }, 'A linked tree cannot be read.');
      } finally {
        busy = false;
      }
    };
    followed.set(tree.id, watched.follow(path, collectPlanOf(context.profiles), changed));
    await watched.current(path, collectPlanOf(context.profiles));
  };

  bind(router, 'listTrees', () => Promise.all(trees.linkedTrees().map(withState)));
  bind(router, 'linkTree', async ({ body, response }) => {
    const { id } = roster.get(body.title);
    const path = await insideRoots(body.path, roots);
    const linked = await read(trees.link(id, path));
    await follow(linked);
    response.status(201);
    return linked;
  });
  bind(router, 'unlinkTree', ({ params }) => {
    trees.unlink(params.tree ?? '');
    followed.get(params.tree ?? '')?.();
    followed.delete(params.tree ?? '');
    return {};
  });
  bind(router, 'openFolder', async ({ body }) => {
    const path = await insideRoots(body.path, roots);
    return snapshotOf(path, basename(path));
  });
  bind(router, 'readTree', ({ params }) => read(trees.linkedTree(params.tree ?? '')));
  bind(router, 'applyWiring', async ({ params, body }) => {
    const tree = trees.linkedTree(params.tree ?? '');
    const wiring = trees.wiring(body.wiring);
    if (wiring.title !== tree.title)
      throw new ServiceError('invalid', `The wiring is for ${wiring.title}, the tree for ${tree.title}.`, {
        fix: 'Work out a wiring for this tree.',
      });
    const path = await insideRoots(tree.path, roots);
    const what = wiring.network === null ? 'wire' : `unwire ${wiring.network}`;
    const note = { title: wiring.title, what, at: context.now().toISOString() };
    const written = await unlessRefused(
      () => context.writes.apply(path, wiring.edits, note, { force: body.force }),
      'Read the tree again, look at the new diff, and apply that.',
    );
    const after = await read(tree);
    return { written, snapshot: after.snapshot ?? '' };
  });
  bind(router, 'listWrites', async ({ params }) => {
    const path = await insideRoots(trees.linkedTree(params.tree ?? '').path, roots);
    return (await context.writes.list(path)).map(entryOf);
  });
  bind(router, 'undoWrite', async ({ params }) => {
    const tree = trees.linkedTree(params.tree ?? '');
    const path = await insideRoots(tree.path, roots);
    const undone = await unlessRefused(
      () => context.writes.undo(path),
      'Take those changes back first, or keep the write: only untouched files are restored.',
    );
    if (!undone)
      throw new ServiceError('not-found', 'Nothing was written into this tree that could be taken back.', {
        fix: 'Only writes by syndexa wire and unwire can be.',
      });
    const after = await read(tree);
    return { undone: entryOf(undone), snapshot: after.snapshot ?? '' };
  });
  return async () => {
    for (const tree of trees.linkedTrees())
      await follow(tree).catch((error: unknown) =>
        log.warn({ err: error, path: tree.path }, 'A linked tree cannot be followed.'),
      );
  };
}

/** The real path of a folder, if it lies below a root. */
async function insideRoots(path: string, roots: readonly string[]): Promise<string> {
  if (roots.length === 0)
    throw new ServiceError('forbidden', 'This service may not read folders.', {
      fix: 'Start it with syndexa serve --root FOLDER to link trees below that folder.',
    });
  const real = await realpath(path).catch(() => null);
  if (real === null || !(await stat(real)).isDirectory())
    throw new ServiceError('not-found', `There is no folder ${path}.`, { fix: 'Check the path.' });
  if (roots.some((root) => real === root || real.startsWith(`${root}/`))) return real;
  throw new ServiceError('forbidden', `${path} lies below none of the service’s roots.`, {
    fix: `The roots are ${roots.join(', ')}.`,
  });
}

/** Runs a write; what keeps it from being done becomes a problem with what to do next. */
async function unlessRefused<Result>(write: () => Promise<Result>, fix: string): Promise<Result> {
  try {
    return await write();
  } catch (error) {
    if (error instanceof FileChangedError)
      throw new ServiceError('file-changed', error.message, { fix, cause: error });
    if (error instanceof WriteRefusedError)
      throw new ServiceError('file-changed', error.message, { fix: error.fix, cause: error });
    throw error;
  }
}
