import type { TextDocument } from '../../text/document.js';
import type { Edit } from '../../text/edit.js';
import type { BookPlace } from '../language.js';

/** The import of the placebook's class in Kotlin and Java, after the last one of the file. */
export function importOfClass(
  { text, lineEnd }: TextDocument,
  { packageName }: BookPlace,
  end: '' | ';',
): Edit[] {
  const own = /^[ \t]*package\s+([\w.]+)/m.exec(text);
  if (packageName === undefined || own?.[1] === packageName) return [];
  const line = `import ${packageName}.Placebook${end}`;
  if (text.includes(`import ${packageName}.Placebook`) || text.includes(`import ${packageName}.*`)) return [];
  const imports = [...text.matchAll(/^[ \t]*import[^\r\n]*(?:\r\n|\n|\r)/gm)];
  const last = imports.at(-1);
  if (last) {
    const at = last.index + last[0].length;
    return [{ start: at, end: at, text: `${line}${lineEnd}` }];
  }
  const header = /^[ \t]*package[^\r\n]*(?:\r\n|\n|\r)/m.exec(text);
  const at = header ? header.index + header[0].length : 0;
  return [{ start: at, end: at, text: `${header ? lineEnd : ''}${line}${lineEnd}${header ? '' : lineEnd}` }];
}
