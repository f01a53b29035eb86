import type { TextDocument } from '../../text/document.js';
import type { Edit } from '../../text/edit.js';
import type { BookPlace } from '../language.js';

/** Adds the import among those of packages, in alphabetical order, before those of files. */
export function libraryImport({ text, lineEnd }: TextDocument, { packageName: uri }: BookPlace): Edit[] {
  if (uri === undefined || text.includes(`'${uri}'`) || text.includes(`"${uri}"`)) return [];
  const all = [...text.matchAll(/^import\s+(['"])([^'"]*)\1[^;]*;[^\r\n]*(?:\r\n|\n|\r|$)/gm)].map(
    (found) => ({
      uri: found[2] ?? '',
      start: found.index,
      end: found.index + found[0].length,
    }),
  );
  const packages = all.filter((one) => one.uri.startsWith('package:'));
  const before = packages.findLast((one) => one.uri < uri);
  const line = `import '${uri}';${lineEnd}`;
  const insert = (at: number, put: string): Edit[] => [{ start: at, end: at, text: put }];
  if (before) return insert(before.end, line);
  const [next] = packages;
  if (next) return insert(next.start, line);
  const sdk = all.findLast((one) => one.uri.startsWith('dart:'));
  if (sdk) return insert(sdk.end, `${lineEnd}${line}`);
  const [file] = all;
  if (file) return insert(file.start, `${line}${lineEnd}`);
  const library = /^library\b[^;]*;[^\r\n]*(?:\r\n|\n|\r|$)/m.exec(text);
  const at = library ? library.index + library[0].length : 0;
  return insert(at, `${library ? lineEnd : ''}${line}${lineEnd}`);
}
