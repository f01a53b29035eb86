import { closeSync, fstatSync, openSync, readSync } from 'node:fs';

/** One pattern for all needles, so that a file is looked through once. */
export function needlePattern(needles: readonly string[]): RegExp {
  return new RegExp(needles.map((text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|') || '(?!)');
}

/** Room to read files into; most source files fit, and larger ones get room of their own. */
let room = Buffer.allocUnsafe(256 * 1024);

/**
 * Reads a file whole; the bytes are good only until the next call, unless they are copied.
 * @throws the errors of the file system
 */
export function readWhole(path: string, limit: number): { bytes: Buffer } | { tooLarge: number } {
  const file = openSync(path, 'r');
  try {
    let length = readSync(file, room, 0, room.length, 0);
    if (length === room.length) {
      const { size } = fstatSync(file);
      if (size > limit) return { tooLarge: size };
      room = Buffer.allocUnsafe(size + 64 * 1024);
      length = 0;
      for (let got = 1; got > 0 && length < room.length; length += got)
        got = readSync(file, room, length, room.length - length, length);
    }
    return { bytes: room.subarray(0, length) };
  } finally {
    closeSync(file);
  }
}

/** Whether a file holds a needle. Source files are searched as Latin-1, which keeps plain text as it is. */
export function holdsNeedle(bytes: Buffer, pattern: RegExp): boolean {
  return pattern.test(bytes.toString('latin1'));
}
