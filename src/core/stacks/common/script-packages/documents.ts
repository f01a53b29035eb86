import { baseOf, folderOf, isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { isDocument, type SharedDocument } from '../documents.js';
import { folderBundled } from './sources.js';
import type { ReactNativeProject } from './project.js';

const imported = /(?:\bfrom\s*|\brequire\s*\(\s*|\bimport\s*(?:\(\s*)?)["']([^"'\n]{1,300}\.json)["']/g;

/** The documents that the code of a project may read: JSON that it imports, and files of environment variables. */
export function readDocuments(
  tree: Tree,
  project: ReactNativeProject,
  sources: readonly string[],
): SharedDocument[] {
  const taken = new Set(
    sources.flatMap((path) =>
      [...(tree.text(path)?.text ?? '').matchAll(imported)].flatMap(([, name = '']) =>
        name.startsWith('.') ? (joinPath(folderOf(path), name) ?? []) : baseOf(name),
      ),
    ),
  );
  return tree.paths
    .filter((path) => folderBundled(tree, project, path))
    .flatMap((path): SharedDocument[] => {
      if (/^\.env(\.|$)/.test(baseOf(path)) && isWithin(path, project.root))
        return [{ path, open: 'it is not known how the build reads this file' }];
      if (!path.endsWith('.json') || !isDocument(path)) return [];
      if (taken.has(path) || taken.has(baseOf(path))) return [{ path }];
      return [{ path, open: 'no file that was read imports this document' }];
    });
}
