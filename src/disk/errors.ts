import { getSystemErrorMap } from 'node:util';

/** Thrown when the folder of a tree cannot be read. */
export class TreeUnreadableError extends Error {}

const reasons = new Map([
  ['EACCES', 'permission denied'],
  ['EPERM', 'permission denied'],
  ['ENOENT', 'it does not exist'],
  ['EISDIR', 'it is a folder'],
  ['ENOTDIR', 'it is not a folder'],
  ['ELOOP', 'its links go round in a circle'],
  ['ENOSPC', 'the disk is full'],
  ['EDQUOT', 'no more disk space is granted to this user'],
  ['EROFS', 'the disk is read-only'],
]);

/** An error of the file system in words, such as `permission denied`. */
export function reasonOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (!('errno' in error)) return error.message;
  const [code, text] = getSystemErrorMap().get(Number(error.errno)) ?? [
    `error ${String(error.errno)}`,
    'unknown',
  ];
  return reasons.get(code) ?? `${code}: ${text}`;
}

/** The code of an error of the file system, such as `ENOENT`. */
export function codeOf(error: unknown): string | undefined {
  return error instanceof Error && 'code' in error ? String(error.code) : undefined;
}
