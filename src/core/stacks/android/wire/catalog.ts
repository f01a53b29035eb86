import type { Edit } from '../../../text/edit.js';
import type { Tree } from '../../../tree/tree.js';
import type { NamedCatalog } from '../../common/gradle/catalogs.js';

/** Adds an entry after the last one of a table of a version catalogue; null where the table has none. */
export function catalogEntry(
  tree: Tree,
  { path, catalog }: NamedCatalog,
  table: 'libraries' | 'plugins',
  line: string,
): Edit | null {
  const document = tree.text(path);
  const last = catalog[table].reduce((latest, { start }) => Math.max(latest, start), -1);
  if (!document || last < 0) return null;
  const { text, lineEnd } = document;
  const end = text.indexOf('\n', last);
  if (end < 0) return { start: text.length, end: text.length, text: `${lineEnd}${line}` };
  return { start: end + 1, end: end + 1, text: `${line}${lineEnd}` };
}
