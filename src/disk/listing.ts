import { readdirSync, type Dirent } from 'node:fs';
import { printableName } from '../core/text/printable.js';

/** Where something is on disk. Bytes where a name in it is not valid UTF-8, which no text can stand for. */
export type DiskPath = string | Buffer;

/** One name in a folder. */
export interface Entry {
  /** The name as it is shown and kept: control characters and bytes that are no UTF-8 are escaped. */
  name: string;
  /** Where it lies. */
  at: DiskPath;
  kind: 'file' | 'folder' | 'link' | 'other';
  /** Whether a neighbour has the name that this one is shown by; then only that one can be told apart. */
  hidden: boolean;
}

/**
 * The entries of a folder.
 * @throws the errors of the file system
 */
export function listFolder(at: DiskPath): Entry[] {
  // Names are read as bytes only where a text cannot hold them: that is rare, and several times slower.
  if (typeof at === 'string') {
    const entries = readdirSync(at, { withFileTypes: true });
    if (!entries.some(({ name }) => name.includes('\ufffd'))) return textEntries(at, entries);
  }
  const folder = typeof at === 'string' ? Buffer.from(at) : at;
  const entries = readdirSync(folder, { withFileTypes: true, encoding: 'buffer' });
  const shown = entries.map((entry) => ({ entry, name: shownName(entry.name) }));
  const plain = new Set(
    shown.filter(({ name, entry }) => name === entry.name.toString()).map(({ name }) => name),
  );
  return shown.map(({ entry, name }) => {
    const isPlain = name === entry.name.toString();
    return { name, at: below(folder, entry.name), kind: kindOf(entry), hidden: !isPlain && plain.has(name) };
  });
}

function textEntries(folder: string, entries: readonly Dirent[]): Entry[] {
  const list = entries.map((entry): Entry => {
    const { name } = entry;
    return { name: printableName(name), at: `${folder}/${name}`, kind: kindOf(entry), hidden: false };
  });
  for (const [index, entry] of list.entries()) {
    if (entry.name === entries[index]?.name) continue;
    entry.hidden = entries.some(({ name }) => name === entry.name);
  }
  return list;
}

function kindOf(entry: {
  isFile(): boolean;
  isDirectory(): boolean;
  isSymbolicLink(): boolean;
}): Entry['kind'] {
  if (entry.isFile()) return 'file';
  if (entry.isDirectory()) return 'folder';
  return entry.isSymbolicLink() ? 'link' : 'other';
}

function below(folder: Buffer, name: Buffer): Buffer {
  return Buffer.concat([folder, Buffer.from('/'), name]);
}

/** A name of any bytes as it is shown: those that are no UTF-8 as `\xff`. */
export function shownName(name: Buffer): string {
  const text = name.toString('utf8');
  if (!text.includes('\ufffd')) return printableName(text);
  let shown = '';
  for (let at = 0; at < name.length;) {
    const length = sequenceLength(name, at);
    if (length === 0) {
      shown += `\\x${name.subarray(at, at + 1).toString('hex')}`;
      at += 1;
    } else {
      shown += printableName(name.subarray(at, at + length).toString('utf8'));
      at += length;
    }
  }
  return shown;
}

const strict = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });

/** How many bytes the character takes that begins here; 0 where none does. */
function sequenceLength(bytes: Buffer, at: number): number {
  const first = bytes[at] ?? 0;
  const length = first < 0x80 ? 1 : first >= 0xf0 ? 4 : first >= 0xe0 ? 3 : 2;
  try {
    strict.decode(bytes.subarray(at, at + length));
    return at + length <= bytes.length ? length : 0;
  } catch {
    return 0;
  }
}
