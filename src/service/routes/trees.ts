import { basename, dirname } from 'node:path';
import { subfolders } from '../../disk/subfolders.js';
import { FileChangedError, WriteRefusedError } from '../../disk/writes/errors.js';
import { entryOf } from '../../disk/writes/journal.js';
import { noteOf } from '../../disk/writes/tree-writes.js';
import { ServiceError } from '../errors.js';
import { created, type Handlers } from '../route.js';
import { withProgress } from '../server-events.js';

/** Linked trees, and what is written into them. */
export const treeHandlers = {
  listTrees: (_call, { linkedTrees }) => linkedTrees.list(),
  showTree: ({ params }, { trees, linkedTrees }) => linkedTrees.withState(trees.linkedTree(params.tree)),
  linkTree: async ({ body, response }, { roster, linkedTrees }) => {
    const linked = await linkedTrees.link(roster.get(body.title).id, body.path);
    created(response, `/trees/${linked.id}`);
    return linked;
  },
  unlinkTree: ({ params }, { linkedTrees }) => {
    linkedTrees.unlink(params.tree);
    return {};
  },
  listFolders: async ({ query }, { linkedTrees, roots }) => {
    if (query.path === undefined)
      return { path: null, parent: null, folders: roots.map((path) => ({ name: path, path })), more: 0 };
    const path = await linkedTrees.insideRoots(query.path);
    return { path, parent: roots.includes(path) ? null : dirname(path), ...subfolders(path) };
  },
  openFolder: ({ body, signal, form, response }, service) =>
    withProgress(service, { form, response, name: 'folder' }, async (progress) => {
      const { linkedTrees } = service;
      const path = await linkedTrees.insideRoots(body.path);
      return linkedTrees.snapshotOf(path, basename(path), { signal, progress, needles: body.needles });
    }),
  readTree: ({ params, signal, form, response }, service) =>
    withProgress(service, { form, response, name: 'tree' }, (progress) =>
      service.linkedTrees.read(service.trees.linkedTree(params.tree), { signal, progress }),
    ),
  applyWiring: async ({ params, body }, { trees, linkedTrees, writes, ...service }) => {
    const tree = trees.linkedTree(params.tree);
    const wiring = trees.wiring(body.wiring);
    if (wiring.title !== tree.title)
      throw new ServiceError('invalid', `The wiring is for ${wiring.title}, the tree for ${tree.title}.`, {
        fix: 'Plan a wiring for this tree.',
      });
    const path = await linkedTrees.insideRoots(tree.path);
    const note = noteOf(wiring, service.now().toISOString());
    const written = await asServiceRefusal(
      () => writes.apply(path, wiring.edits, note, { force: body.force }),
      'Read the tree again, look at the new diff, and apply that.',
    );
    const after = await linkedTrees.read(tree);
    return { written, snapshot: after.snapshot ?? '' };
  },
  listWrites: async ({ params }, { trees, linkedTrees, writes }) => {
    const path = await linkedTrees.insideRoots(trees.linkedTree(params.tree).path);
    return (await writes.list(path)).map(entryOf);
  },
  undoWrite: async ({ params }, { trees, linkedTrees, writes }) => {
    const tree = trees.linkedTree(params.tree);
    const path = await linkedTrees.insideRoots(tree.path);
    const undone = await asServiceRefusal(
      () => writes.undo(path),
      'Revert those changes first, or keep the write: only untouched files can be restored.',
    );
    if (!undone)
      throw new ServiceError('not-found', 'Nothing was written into this tree that could be undone.', {
        fix: 'Only writes by syndexa wire and unwire can be undone.',
      });
    const after = await linkedTrees.read(tree);
    return { undone: entryOf(undone), snapshot: after.snapshot ?? '' };
  },
} satisfies Partial<Handlers>;

/** Runs a write; what keeps it from being done becomes a problem with what to do next. */
async function asServiceRefusal<Result>(write: () => Promise<Result>, fix: string): Promise<Result> {
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
