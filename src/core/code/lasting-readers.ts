import { readPodfile } from '../formats/podfile/read.js';
import { dialectOf, dialects } from '../languages/index.js';
import { sourceReaders } from './source-files.js';

/** Readers that go by a syntax tree: their readings are plain data, dear to make, and kept under these names. */
export const lastingReaders: ReadonlyMap<unknown, string> = new Map<unknown, string>([
  [readPodfile, 'podfile'],
  ...dialects.map(({ dialect }) => [sourceReaders.get(dialect), `code ${dialect.syntax.grammar}`] as const),
]);

/** The reader of a file that goes by its syntax tree; undefined when there is none, or its readings do not last. */
export function lastingReaderOf(path: string): unknown {
  if (path === 'Podfile' || path.endsWith('/Podfile')) return readPodfile;
  const found = dialectOf(path);
  return found && sourceReaders.get(found.dialect);
}
