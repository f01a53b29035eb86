import { chmodSync, closeSync, existsSync, lstatSync, mkdirSync, openSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { replaceFile } from '../replace-file.js';

/** Files of the data folder that only its owner may read, by the beginning of their names. */
const privateFiles = ['syndexa.sqlite', 'secrets', 'secret-hosts', 'service.json', 'partner'];

/**
 * Makes the data folder, for its owner alone, and narrows what others could read in it.
 * @returns what was narrowed, in sentences
 * @throws the errors of the file system
 */
export function openHome(home: string): string[] {
  if (!existsSync(home)) {
    makeFolder(home);
    return [];
  }
  // Read first: if it is not a folder, its mode must not be changed.
  const names = readdirSync(home);
  const says = narrow(home, 0o700);
  for (const name of names)
    if (privateFiles.some((start) => name.startsWith(start))) says.push(...narrow(join(home, name), 0o600));
  return says;
}

/**
 * Makes a folder for its owner alone, and those that it is in. Node.js’s own way tries for ever where a system
 * folder says that what would be in it does not exist.
 */
export function makeFolder(path: string): void {
  if (existsSync(path)) return;
  makeFolder(dirname(path));
  try {
    mkdirSync(path, { mode: 0o700 });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'ENOENT')
      throw Object.assign(new Error(`${path} cannot be made.`), { code: 'EACCES', path });
    // Another process may have made it meanwhile.
    if (code !== 'EEXIST') throw error;
  }
}

/** Takes from a file or folder of ours what others may do with it. */
function narrow(path: string, mode: number): string[] {
  const stats = lstatSync(path);
  const now = stats.mode & 0o7777;
  if (stats.isSymbolicLink() || (now & 0o077) === 0) return [];
  // A folder that several people share (it has the sticky bit), or that is somebody else's, is not ours to close.
  if ((now & 0o1000) !== 0 || (process.getuid && stats.uid !== process.getuid()))
    return [`${path} can be read by others (mode ${octal(now)}). Choose a data folder of your own.`];
  const own = stats.isDirectory() ? 0o700 : mode;
  chmodSync(path, own);
  return [`${path} could be read by others (mode ${octal(now)}); its mode is ${octal(own)} now.`];
}

function octal(mode: number): string {
  return mode.toString(8).padStart(3, '0');
}

/** Makes a file that only its owner may read, if there is none yet. */
export function makePrivate(file: string): void {
  makeFolder(dirname(file));
  closeSync(openSync(file, 'a', 0o600));
}

/** Writes a file that only its owner may read, in one step: nobody ever sees half of it. */
export function writePrivate(file: string, text: string): void {
  makeFolder(dirname(file));
  replaceFile(file, text, 0o600);
}
