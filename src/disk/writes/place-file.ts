import { constants } from 'node:fs';
import {
  chown,
  lstat,
  mkdir,
  open,
  readFile,
  readlink,
  realpath,
  rename,
  rm,
  rmdir,
  stat,
  type FileHandle,
} from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { codeOf } from '../errors.js';
import { hashOf } from '../hash.js';
import { FileChangedError, OutsideTreeError } from './errors.js';

/** A file of a tree as it is now. */
export interface FileNow {
  /** Null if the file does not exist. */
  bytes: Buffer | null;
  /** Permission bits; those of a new file when there is none. */
  mode: number;
}

/** The places of a tree, as paths relative to its real path. */
export class TreeFiles {
  /** @param base real path of the tree */
  constructor(private readonly base: string) {}

  /**
   * A file as it is now.
   * @throws OutsideTreeError when the path leads out of the tree, or is a link
   */
  async read(path: string): Promise<FileNow> {
    const none = { bytes: null, mode: 0o644 };
    return (await this.beside(path, (file) => readNow(file, path))) ?? none;
  }

  /** The hash of a file as it is now; null when there is none. */
  async hash(path: string): Promise<string | null> {
    const { bytes } = await this.read(path);
    return bytes && hashOf(bytes);
  }

  /** Which of the folders of some paths do not exist, the outermost first. */
  async missingFolders(paths: readonly string[]): Promise<string[]> {
    const missing = new Set<string>();
    for (const path of paths) {
      const parts = path.split('/').slice(0, -1);
      for (let length = 1; length <= parts.length; length++) {
        const folder = parts.slice(0, length).join('/');
        if (!missing.has(folder) && !(await lstat(this.at(folder)).catch(() => null))) missing.add(folder);
      }
    }
    return [...missing];
  }

  /** Makes a folder, owned as the folder that it is in. */
  async makeFolder(folder: string): Promise<void> {
    await this.beside(folder, async (made, around) => {
      await mkdir(made).catch((error: unknown) => {
        if (codeOf(error) !== 'EEXIST') throw error;
      });
      const { uid, gid } = await stat(around);
      await lchownIfOther(made, uid, gid);
    });
    await this.refuseLinks(`${folder}/-`);
  }

  /** Removes a folder that is empty; anything else is left as it is. */
  async dropFolder(folder: string): Promise<boolean> {
    try {
      await this.refuseLinks(`${folder}/-`);
      return (await this.beside(folder, (empty) => rmdir(empty).then(() => true))) ?? false;
    } catch {
      return false;
    }
  }

  /**
   * Replaces a file atomically: no reader ever sees half of it.
   * @param before hash of the content that must be there now; null when there must be no file
   * @param temporary name of a file of this write's own, beside the file
   * @throws FileChangedError when something else is there; OutsideTreeError when a folder was replaced
   */
  async put(
    path: string,
    before: string | null,
    bytes: Buffer,
    mode: number,
    temporary: string,
  ): Promise<void> {
    const placed = await this.beside(path, async (file, around) => {
      const draft = join(around, temporary);
      const flags = constants.O_WRONLY | constants.O_CREAT | constants.O_EXCL | constants.O_NOFOLLOW;
      const handle = await open(draft, flags, 0o600);
      try {
        const inode = await fill(handle, { file, around }, bytes, mode);
        await expectHash(file, path, before);
        await rename(draft, file);
        return inode;
      } catch (error) {
        await rm(draft, { force: true });
        throw error;
      } finally {
        await handle.close();
      }
    });
    await this.refuseLinks(path);
    const there = await lstat(this.at(path));
    if (there.ino !== placed) throw new OutsideTreeError(path, 'moved');
  }

  /** Takes a file away. */
  async remove(path: string, before: string, temporary: string): Promise<void> {
    await this.beside(path, async (file, around) => {
      const aside = join(around, temporary);
      await expectHash(file, path, before);
      const { ino } = await lstat(file);
      // Moved first and looked at again, so that a file that was replaced meanwhile is not lost.
      await rename(file, aside);
      try {
        await this.refuseLinks(path);
        if ((await lstat(aside)).ino !== ino) throw new OutsideTreeError(path, 'moved');
      } catch (error) {
        await rename(aside, file);
        throw error;
      }
      await rm(aside);
    });
  }

  /** Removes what a write that stopped left beside a file. */
  async dropTemporary(path: string, temporary: string): Promise<void> {
    await this.beside(path, (_, around) => rm(join(around, temporary), { force: true })).catch(
      () => undefined,
    );
  }

  /**
   * Does something with a place, the folder around it being held open: what is done happens in that folder, whatever
   * the path leads to by then. Where the system has no such paths, the folder is looked at again before the work.
   * @returns undefined when the folder does not exist
   * @throws OutsideTreeError when the folder is not the one of the tree
   */
  private async beside<Result>(
    path: string,
    work: (place: string, around: string) => Promise<Result>,
  ): Promise<Result | undefined> {
    await this.refuseLinks(path);
    const folder = dirname(this.at(path));
    const flags = constants.O_RDONLY | constants.O_DIRECTORY | constants.O_NOFOLLOW;
    const handle = await open(folder, flags).catch((error: unknown) => {
      if (codeOf(error) === 'ENOENT') return null;
      if (['ELOOP', 'ENOTDIR'].includes(codeOf(error) ?? '')) throw new OutsideTreeError(path, 'outside');
      throw error;
    });
    if (!handle) return undefined;
    try {
      const held = `${openFolders}/${handle.fd}`;
      const real = await readlink(held).catch(() => null);
      if (real === null) await this.refuseLinks(path);
      else if (real !== folder) throw new OutsideTreeError(path, 'outside');
      const around = real === null ? folder : held;
      return await work(join(around, basename(path)), around);
    } finally {
      await handle.close();
    }
  }

  private at(path: string): string {
    return join(this.base, path);
  }

  /** Every folder on the way to a path has to be the tree's own, and none of them a link. */
  private async refuseLinks(path: string): Promise<void> {
    const parts = path.split('/');
    if (path.startsWith('/') || parts.some((part) => part === '' || part === '.' || part === '..'))
      throw new OutsideTreeError(path, 'outside');
    let folder = dirname(this.at(path));
    for (;;) {
      const real = await realpath(folder).catch(() => null);
      if (real === folder) return;
      if (real !== null) throw new OutsideTreeError(path, 'outside');
      if (folder === this.base) throw new OutsideTreeError(path, 'moved');
      // Not there yet, or a link that leads nowhere.
      if (await lstat(folder).catch(() => null)) throw new OutsideTreeError(path, 'outside');
      folder = dirname(folder);
    }
  }
}

/** Where the system has a path for each folder that is held open; on other systems there is no such folder. */
const openFolders = '/proc/self/fd';

/** A file as it is now. `path` is what messages call it. */
async function readNow(file: string, path: string): Promise<FileNow | undefined> {
  const flags = constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK;
  const handle = await open(file, flags).catch((error: unknown) => {
    if (codeOf(error) === 'ENOENT') return null;
    if (codeOf(error) === 'ELOOP') throw new OutsideTreeError(path, 'link');
    throw error;
  });
  if (!handle) return undefined;
  try {
    const stats = await handle.stat();
    if (!stats.isFile()) throw new OutsideTreeError(path, 'link');
    return { bytes: await handle.readFile(), mode: stats.mode & 0o7777 };
  } finally {
    await handle.close();
  }
}

async function expectHash(file: string, path: string, before: string | null): Promise<void> {
  const bytes = (await readNow(file, path))?.bytes;
  if ((bytes ? hashOf(bytes) : null) !== before) throw new FileChangedError([path]);
}

/** Writes a content with the mode and the owner that the file is to have; returns its inode. */
async function fill(
  handle: FileHandle,
  { file, around }: { file: string; around: string },
  bytes: Buffer,
  mode: number,
): Promise<number> {
  await handle.writeFile(bytes);
  const old = await lstat(file).catch(() => null);
  const { uid, gid } = old ?? (await stat(around));
  const mine = await handle.stat();
  if (mine.uid !== uid || mine.gid !== gid) await handle.chown(uid, gid).catch(ignoreForbidden);
  // After the owner: changing that takes bits away.
  await handle.chmod(mode);
  await handle.sync();
  return mine.ino;
}

async function lchownIfOther(file: string, uid: number, gid: number): Promise<void> {
  const mine = await lstat(file);
  if (mine.isDirectory() && (mine.uid !== uid || mine.gid !== gid))
    await chown(file, uid, gid).catch(ignoreForbidden);
}

/** Only root may give a file away; others keep what they make. */
function ignoreForbidden(error: unknown): void {
  if (codeOf(error) !== 'EPERM') throw error;
}

/** The content of a file that a person named, checked against the hash by which it was named. */
export async function readSource(file: string, hash: string): Promise<Buffer | null> {
  const bytes = await readFile(file).catch(() => null);
  return bytes && hashOf(bytes) === hash ? bytes : null;
}
