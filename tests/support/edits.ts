import { hashOf } from '../../src/disk/hash.js';
import type { FileEdit } from '../../src/core/edits/model.js';

/** An edit that puts a text at the beginning of a file, or makes the file. */
export function editOf(path: string, before: string | null, text: string): FileEdit {
  return {
    path,
    rules: [],
    networks: [],
    platforms: ['android'],
    before: before === null ? null : hashOf(Buffer.from(before)),
    edits: before === null ? [] : [{ start: 0, end: 0, text }],
    content: before === null ? text : null,
    source: null,
    remove: false,
    adds: [],
  };
}

/** An edit that takes a file away. */
export function removalOf(path: string, before: string): FileEdit {
  return { ...editOf(path, before, ''), edits: [], remove: true };
}
