import { createHash } from 'node:crypto';

/** The SHA-256 of a file's bytes, in hexadecimal: the hash by which files are known. */
export function hashOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}
