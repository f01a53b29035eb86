/** The folder part of a path; empty for a file at the root. */
export function folderOf(path: string): string {
  const slash = path.lastIndexOf('/');
  return slash < 0 ? '' : path.slice(0, slash);
}

export function baseOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}

/** Joins path parts, resolving `.` and `..`; null when the result would leave the root. */
export function joinPath(...parts: string[]): string | null {
  const result: string[] = [];
  for (const part of parts.join('/').split('/')) {
    if (part === '' || part === '.') continue;
    if (part === '..') {
      if (result.length === 0) return null;
      result.pop();
    } else result.push(part);
  }
  return result.join('/');
}

/** Whether a path is in a folder (or is it); every path is in the root folder ''. */
export function isWithin(path: string, folder: string): boolean {
  return folder === '' || path === folder || path.startsWith(`${folder}/`);
}

/** A path as it is written from a folder: `./ads/placebook`, `../ads/placebook`. */
export function relativePath(folder: string, path: string): string {
  const [from, to] = [folder === '' ? [] : folder.split('/'), path.split('/')];
  let same = 0;
  while (same < from.length && same < to.length - 1 && from[same] === to[same]) same++;
  const up = from.slice(same).map(() => '..');
  return [...(up.length === 0 ? ['.'] : up), ...to.slice(same)].join('/');
}
