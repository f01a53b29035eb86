import { createHash } from 'node:crypto';
import { realpathSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** A tree on this machine, told apart from another one that took its path. */
export interface TreeIdentity {
  /** Real path. */
  path: string;
  device: number;
  inode: number;
}

/**
 * The identity of the tree at a path.
 * @throws the errors of the file system
 */
export function identityOf(root: string): TreeIdentity {
  const path = realpathSync(root);
  const { dev, ino } = statSync(path);
  return { path, device: dev, inode: ino };
}

/** The folder for the records of the writes to one tree, below the data folder. */
export function writeFolder(home: string, { path, device, inode }: TreeIdentity): string {
  const key = createHash('sha256')
    .update(JSON.stringify([path, device, inode]))
    .digest('hex')
    .slice(0, 32);
  return join(home, 'writes', key);
}
