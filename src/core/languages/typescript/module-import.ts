import type { TextDocument } from '../../text/document.js';
import type { Edit } from '../../text/edit.js';
import { folderOf, relativePath } from '../../text/paths.js';
import type { BookPlace } from '../language.js';

/**
 * An import by path, or by the name of another package, after the last one of the file, in the file's own quotes; or names
 * added to one that is.
 */
export function moduleImport(
  { text, lineEnd }: TextDocument,
  { path, bookPath, packageName, names: namesOf }: BookPlace,
): Edit[] {
  const names = bookPath === undefined ? [] : namesOf();
  if (bookPath === undefined || names.length === 0) return [];
  const from = packageName ?? relativePath(folderOf(path), bookPath).replace(/\.ts$/, '');
  const all = [...text.matchAll(/^import\b[^;'"]*(['"])([^'"\r\n]+)\1[^\r\n]*(?:\r\n|\n|\r|$)/gm)];
  const standing = all.find((one) => one[2]?.replace(/\.[jt]s$/, '') === from);
  const named = standing && /\{([^}]*)\}/.exec(standing[0]);
  if (standing && named) {
    const known = (named[1] ?? '').split(',').map((name) => name.trim());
    const missing = names.filter((name) => !known.includes(name));
    if (missing.length === 0) return [];
    const last = standing.index + named.index + 1 + (named[1] ?? '').trimEnd().replace(/,$/, '').length;
    return [{ start: last, end: last, text: `, ${missing.join(', ')}` }];
  }
  const last = all.at(-1);
  const quote = last?.[1] ?? "'";
  const end = last && !/;\s*$/.test(last[0]) ? '' : ';';
  const line = `import { ${names.join(', ')} } from ${quote}${from}${quote}${end}${lineEnd}`;
  const header = /^(?:(?:#!|\/\/)[^\r\n]*(?:\r\n|\n|\r)|\/\*[\s\S]*?\*\/\s*|['"]use \w+['"];?\s*)*/.exec(
    text,
  );
  const at = last ? last.index + last[0].length : (header?.[0].length ?? 0);
  return [{ start: at, end: at, text: last ? line : `${line}${lineEnd}` }];
}
