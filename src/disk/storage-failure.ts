/** What keeps files from being written or read, in words for people. */
export interface StorageFailure {
  message: string;
  fix: string;
  /** Whether it is temporary: another process is writing. */
  passes: boolean;
}

/** By the codes of Node.js and of SQLite, the latter up to their second part; `{where}` is the place. */
const failures: readonly (StorageFailure & { codes: readonly string[] })[] = [
  {
    codes: ['ENOSPC', 'EDQUOT', 'SQLITE_FULL'],
    message: 'The disk is full: {where} cannot be written.',
    fix: 'Make room, and run it again. What was written before is whole.',
    passes: false,
  },
  {
    codes: ['EROFS', 'EACCES', 'EPERM', 'SQLITE_READONLY', 'SQLITE_CANTOPEN', 'SQLITE_PERM', 'SQLITE_IOERR'],
    message: '{where} cannot be used: this user may not read and write there, or the disk is read-only.',
    fix: 'Choose another place, or get permission to write there. SYNDEXA_HOME names the data folder.',
    passes: false,
  },
  {
    codes: ['ENOTDIR', 'EEXIST', 'EISDIR', 'ELOOP', 'ENAMETOOLONG'],
    message:
      '{where} cannot be used: there is a file where a folder should be, or a folder where a file should be.',
    fix: 'Name another place. SYNDEXA_HOME names the data folder, which is made when it is not there.',
    passes: false,
  },
  {
    codes: ['SQLITE_BUSY', 'SQLITE_LOCKED'],
    message: 'Another process is writing into {where}.',
    fix: 'Run it again. If it stays so, end other commands and services that use this data folder.',
    passes: true,
  },
  {
    codes: ['SQLITE_CORRUPT', 'SQLITE_NOTADB'],
    message: 'The record in {where} is damaged, or is not a database of Syndexa.',
    fix: 'Put a copy of syndexa.sqlite from a backup in its place, or import an exported roster into a new data folder.',
    passes: false,
  },
];

/**
 * What an error says about the storage of the service; null if it is about something else.
 * @param folder the data folder, used if the error does not name a path
 */
export function storageFailure(error: unknown, folder: string): StorageFailure | null {
  const { code, path, cause } = (error ?? {}) as { code?: unknown; path?: unknown; cause?: unknown };
  const key = typeof code === 'string' ? (/^SQLITE_[A-Z]+/.exec(code)?.[0] ?? code) : '';
  const found = failures.find(({ codes }) => codes.includes(key));
  if (!found) return cause === undefined ? null : storageFailure(cause, folder);
  const where = typeof path === 'string' ? path : `the data folder ${folder}`;
  const message = found.message.replace('{where}', where).replace(/^t/, 'T');
  return { message, fix: found.fix, passes: found.passes };
}
