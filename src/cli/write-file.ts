import { chmodSync, realpathSync, statSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { codeOf, reasonOf } from '../disk/errors.js';
import { replaceFile } from '../disk/replace-file.js';
import { CommandError, exit, type Io } from './io.js';

/**
 * Writes a file that a person named. What it had before is replaced in one step, so nothing is lost when the disk is full;
 * links are followed, and the mode stays.
 * @param fresh refuses to replace a file
 * @throws CommandError
 */
export function writeNamed(io: Io, file: string, text: string, { fresh = false } = {}): void {
  const path = resolve(io.cwd, file);
  try {
    const before = statSync(path, { throwIfNoEntry: false });
    if (fresh || (before && !before.isFile())) writeFileSync(path, text, fresh ? { flag: 'wx' } : {});
    else if (before) {
      const real = realpathSync(path);
      // Nobody may read the new text meanwhile who may not read the file.
      replaceFile(real, text, before.mode & 0o777);
      chmodSync(real, before.mode & 0o777);
    } else replaceFile(path, text);
  } catch (error) {
    throw unwritable(file, error);
  }
}

/** The failure of a command whose file cannot be written. */
function unwritable(file: string, error: unknown): CommandError {
  const code = codeOf(error);
  if (code === 'EEXIST')
    return new CommandError(
      `${file} already exists and was not changed.`,
      exit.refused,
      'Name another file.',
    );
  if (code === undefined) throw error;
  return new CommandError(
    `${file} cannot be written: ${code === 'ENOENT' ? 'its folder does not exist' : reasonOf(error)}.`,
    exit.wrongUse,
    code === 'ENOSPC' ? 'Free some disk space and run it again.' : 'Check the path, or name another file.',
  );
}
