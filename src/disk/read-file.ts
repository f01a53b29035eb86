import { closeSync, constants, fstatSync, openSync, readSync } from 'node:fs';
import type { DiskPath } from './listing.js';

/** Room to read files into; most source files fit, and larger ones get room of their own. */
let room = Buffer.allocUnsafe(256 * 1024);

/**
 * Reads a file whole. A link is not followed, and a pipe that took the file's place does not block.
 * @param limit the most bytes to take
 * @returns the bytes, good only until the next call unless they are copied
 * @throws the errors of the file system; Error if it is not a regular file, or exceeds the limit
 */
export function readFile(at: DiskPath, limit: number): Buffer {
  const file = openSync(at, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK);
  try {
    let length = readSync(file, room, 0, room.length, 0);
    if (length === room.length) {
      const { size } = fstatSync(file);
      if (size > limit) throw new Error('it grew while it was read');
      room = Buffer.allocUnsafe(size + 64 * 1024);
      length = 0;
      for (let got = 1; got > 0 && length < room.length; length += got)
        got = readSync(file, room, length, room.length - length, length);
    }
    if (length > limit) throw new Error('it grew while it was read');
    return room.subarray(0, length);
  } finally {
    closeSync(file);
  }
}
