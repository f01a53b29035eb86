import { constants } from 'node:fs';
import {
  chown,
  lstat,
  mkdir,
  open,
  readFile,
  realpath,
  rename,
  rm,
  rmdir,
  type FileHandle,
} from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { codeOf } from '../errors.js';
import { hashOf } from '../hash.js';
import { FileChangedError, OutsideTreeError } from './errors.js';

/** A file of a tree as it is now. */
export interface FileNow {
  /** Null when there is no such file. */
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
    await this.refuseLinks(path);
    const file = this.at(path);
    const handle = await open(file, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK).catch(
      (error: unknown) => {
        if (codeOf(error) === 'ENOENT') return null;
        if (codeOf(error) === 'ELOOP') throw new OutsideTreeError(path, 'link');
        throw error;
      },
    );
    if (!handle) return { bytes: null, mode: 0o644 };
    try {
      const stats = await handle.stat();
      if (!stats.isFile()) throw new OutsideTreeError(path, 'link');
      return { bytes: await handle.readFile(), mode: stats.mode & 0o7777 };
    } finally {
      await handle.close();
    }
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

  /** Makes a folder, owned as the folder that it lies in. */
  async makeFolder(folder: string): Promise<void> {
    await this.refuseLinks(folder);
    await mkdir(this.at(folder)).catch((error: unknown) => {
      if (codeOf(error) !== 'EEXIST') throw error;
    });
    await this.refuseLinks(`${folder}/-`);
    const { uid, gid } = await lstat(dirname(this.at(folder)));
    await lchownIfOther(this.at(folder), uid, gid);
  }

  /** Removes a folder that is empty; anything else is left as it is. */
  async dropFolder(folder: string): Promise<boolean> {
    try {
      await this.refuseLinks(`${folder}/-`);
      await rmdir(this.at(folder));
      return true;
    } catch {
      return false;
    }
  }

  /**
   * Puts a content in a file's place in one step: nobody ever sees half of it.
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
    const beside = join(dirname(path), temporary);
    await this.refuseLinks(path);
    const handle = await open(
      this.at(beside),
      constants.O_WRONLY | constants.O_CREAT | constants.O_EXCL | constants.O_NOFOLLOW,
      0o600,
    );
    try {
      const inode = await this.fill(handle, path, bytes, mode);
      await this.expect(path, before);
      await rename(this.at(beside), this.at(path));
      await this.refuseLinks(path);
      const there = await lstat(this.at(path));
      if (there.ino !== inode) throw new OutsideTreeError(path, 'moved');
    } catch (error) {
      await rm(this.at(beside), { force: true });
      throw error;
    } finally {
      await handle.close();
    }
  }

  /** Takes a file away. */
  async remove(path: string, before: string, temporary: string): Promise<void> {
    const beside = join(dirname(path), temporary);
    await this.expect(path, before);
    const { ino } = await lstat(this.at(path));
    // Moved first and looked at again, so that a folder that was replaced meanwhile loses nothing.
    await rename(this.at(path), this.at(beside));
    try {
      await this.refuseLinks(path);
      if ((await lstat(this.at(beside))).ino !== ino) throw new OutsideTreeError(path, 'moved');
    } catch (error) {
      await rename(this.at(beside), this.at(path));
      throw error;
    }
    await rm(this.at(beside));
  }

  /** Removes what a write that stopped left beside a file. */
  async dropTemporary(path: string, temporary: string): Promise<void> {
    const beside = join(dirname(path), temporary);
    await this.refuseLinks(path).then(
      () => rm(this.at(beside), { force: true }),
      () => undefined,
    );
  }

  private at(path: string): string {
    return join(this.base, path);
  }

  /** Writes a content with the mode and the owner that the file is to have; returns its inode. */
  private async fill(handle: FileHandle, path: string, bytes: Buffer, mode: number): Promise<number> {
    await handle.writeFile(bytes);
    const old = await lstat(this.at(path)).catch(() => null);
    const { uid, gid } = old ?? (await lstat(dirname(this.at(path))));
    const mine = await handle.stat();
    if (mine.uid !== uid || mine.gid !== gid) await handle.chown(uid, gid).catch(ignoreForbidden);
    // After the owner: changing that takes bits away.
    await handle.chmod(mode);
    await handle.sync();
    return mine.ino;
  }

  private async expect(path: string, before: string | null): Promise<void> {
    if ((await this.hash(path)) !== before) throw new FileChangedError([path]);
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
