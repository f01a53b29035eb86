import { decodeText, encodeText, textDocument } from '../../core/text/document.js';
import { applyEdits } from '../../core/text/edit.js';
import { printableName } from '../../core/text/printable.js';
import type { FileEdit } from '../../core/edits/model.js';
import { mapConcurrently } from '../concurrently.js';
import { hashOf } from '../hash.js';
import { FileChangedError, WriteRefusedError } from './errors.js';
import { readSource, type FileNow, type TreeFiles } from './place-file.js';

/** One file of a write: its required content before, and its content after. */
export interface NewContent {
  path: string;
  /** The content before; null if the file does not exist. */
  old: Buffer | null;
  /** The new content; null where the file goes. */
  bytes: Buffer | null;
  mode: number;
  before: string | null;
  after: string | null;
}

/** The options of a write, and its inputs besides the edits. */
export interface ContentOptions {
  /** Files that are copied as they are: where each lies, by hash. */
  sources?: ReadonlyMap<string, string>;
  /** Whether files may be written that their owner made read-only. */
  force?: boolean;
}

/**
 * What edits make of the files of a tree.
 * @throws FileChangedError when a file is not the one that the edits were made for; WriteRefusedError
 */
export async function newContents(
  files: TreeFiles,
  edits: readonly FileEdit[],
  { sources = new Map(), force = false }: ContentOptions = {},
): Promise<NewContent[]> {
  const changed: string[] = [];
  const contents = await mapConcurrently(edits, async (edit): Promise<NewContent | undefined> => {
    const { path, before } = edit;
    const now = await files.read(path);
    if ((now.bytes && hashOf(now.bytes)) !== before) {
      refuseInvalidName(path, now);
      changed.push(path);
      return undefined;
    }
    if (!force) refuseReadOnly(path, now);
    const bytes = await editedBytes(edit, now.bytes, sources);
    return { path, old: now.bytes, bytes, mode: now.mode, before, after: bytes && hashOf(bytes) };
  });
  if (changed.length > 0) throw new FileChangedError(changed.sort());
  return contents.filter((content) => content !== undefined);
}

/** A file that its owner made read-only is not written. */
export function refuseReadOnly(path: string, { bytes, mode }: FileNow): void {
  if (bytes === null || (mode & 0o200) !== 0) return;
  throw new WriteRefusedError(
    `${printableName(path)} is read-only (mode ${mode.toString(8).padStart(3, '0')}).`,
    'Make it writable (chmod u+w), or write it all the same with --force.',
  );
}

/** A file whose name on disk differs from the name shown cannot be written. */
function refuseInvalidName(path: string, { bytes }: FileNow): void {
  if (bytes !== null || !/\\(x[0-9a-f]{2}|u[0-9a-f]{4})/.test(path)) return;
  throw new WriteRefusedError(
    `${path} is written with characters in its name that cannot be shown, and is not edited.`,
    'Rename the file, or edit it by hand.',
  );
}

async function editedBytes(
  { path, edits, content, source, remove }: FileEdit,
  current: Buffer | null,
  sources: ReadonlyMap<string, string>,
): Promise<Buffer | null> {
  if (remove) return null;
  if (source) {
    const from = sources.get(source.sha256);
    const bytes = from === undefined ? null : await readSource(from, source.sha256);
    if (!bytes) throw new FileChangedError([`${source.name}, which was to be copied to ${path}`]);
    return bytes;
  }
  const document = current ? decodeText(current) : textDocument('');
  const text = current ? applyEdits(document.text, edits) : (content ?? '');
  return Buffer.from(encodeText(text, document));
}
