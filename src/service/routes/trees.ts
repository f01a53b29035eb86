import { realpath, stat } from 'node:fs/promises';
import type { Router } from 'express';
import type { LinkedTree } from '../../api/trees.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import { bind } from '../route.js';
import { applyToTree, FileChangedError } from '../trees/apply.js';
import { collectTree } from '../trees/collect.js';
import type { TreeWork } from '../tree-work.js';
import { collectPlanOf } from './networks.js';

/** Trees that are linked: folders below a root that was named when the service was started. */
export function treeRoutes(router: Router, context: ServiceContext, work: TreeWork): void {
  const { trees, roots, roster } = context;

  const read = async (tree: LinkedTree): Promise<LinkedTree> => {
    const path = await insideRoots(tree.path, roots);
    const { files, folders, skipped } = await collectTree(path, collectPlanOf(context.profiles));
    const manifest = {
      name: tree.path,
      files: files.map((file) => ({ path: file.path, hash: file.hash, size: file.bytes.length })),
      folders,
      skipped,
    };
    const { id, missing } = trees.addSnapshot(manifest);
    const wanted = new Set(missing);
    trees.addBlobs(files.filter(({ hash }) => wanted.has(hash)));
    trees.setSnapshot(tree.id, id);
    await work.check(id, tree.title);
    return trees.linkedTree(tree.id);
  };

  bind(router, 'listTrees', () => trees.linkedTrees());
  bind(router, 'linkTree', async ({ body, response }) => {
    const { id } = roster.get(body.title);
    const path = await insideRoots(body.path, roots);
    const linked = await read(trees.link(id, path));
    response.status(201);
    return linked;
  });
  bind(router, 'unlinkTree', ({ params }) => {
    trees.unlink(params.tree ?? '');
    return {};
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
    try {
      const written = await applyToTree(path, wiring.edits);
      const after = await read(tree);
      return { written, snapshot: after.snapshot ?? '' };
    } catch (error) {
      if (!(error instanceof FileChangedError)) throw error;
      throw new ServiceError('file-changed', error.message, {
        fix: 'Read the tree again, look at the new diff, and apply that.',
        cause: error,
      });
    }
  });
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
