import { listFolder } from './listing.js';

/** More folders than this are counted only. */
const mostListed = 500;
/** What build tools make; nobody keeps a title there. */
const made = new Set(['node_modules', 'build', 'Pods', 'DerivedData', 'Library', 'bin', 'obj']);

/**
 * The folders in a folder by their names, without hidden ones and links; and how many more there are. Folders whose
 * names are not valid text are omitted, because they cannot be requested.
 * @throws the errors of the file system
 */
export function subfolders(path: string): { folders: { name: string; path: string }[]; more: number } {
  const folders = listFolder(path).flatMap(({ name, at, kind }) =>
    kind !== 'folder' || typeof at !== 'string' || name.startsWith('.') || made.has(name)
      ? []
      : [{ name, path: at }],
  );
  folders.sort((one, other) => (one.name < other.name ? -1 : 1));
  return { folders: folders.slice(0, mostListed), more: Math.max(0, folders.length - mostListed) };
}
