import { realpathSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import type { Client } from './client.js';
import { CommandError, exit, type Io } from './io.js';
import { homeFolder } from './connect.js';
import { printableName } from '../core/text/printable.js';
import type { CollectedFile } from '../disk/collect.js';
import { callFollowed, startProgress, type ProgressLine } from './progress.js';
import { reportTreeState } from './tree-state.js';

/** A tree that the service has, and where it lies. */
export interface SentTree {
  snapshot: string;
  folder: string;
  /** How many files the tree holds, and how many of them matter. */
  seen: number;
  sent: number;
}

/** The content of a file that was seen a moment ago; that it is still the same is the service's to check. */
function readAgain(path: string, read: () => Buffer): Buffer {
  try {
    return read();
  } catch {
    throw new CommandError(
      `${path} disappeared while the tree was being read.`,
      exit.refused,
      'Run the command again.',
    );
  }
}

const bytesAtOnce = 6 * 1024 * 1024;

/** Collects what matters of a tree (with `needles` also what holds those texts), and sends the hashes, then only the contents that the service lacks. */
export async function sendTree(
  client: Client,
  io: Io,
  directory: string,
  needles: readonly string[] = [],
): Promise<SentTree> {
  const folder = resolve(io.cwd, directory);
  await reportTreeState(folder, io);
  const real = client.roots.length > 0 && needles.length === 0 ? realOf(folder) : null;
  if (real !== null && client.roots.some((root) => real === root || real.startsWith(`${root}/`))) {
    const call = { body: { path: real } };
    const { snapshot, seen, files } = await callFollowed(io, client, 'openFolder', call, 'reading the tree');
    return { snapshot, folder, seen, sent: files };
  }
  const { collectTree, TreeUnreadableError } = await import('../disk/collect.js');
  const { KnownFiles } = await import('../disk/known-files.js');
  const asked = await client.call('collectPlan');
  const plan = { ...asked, needles: [...asked.needles, ...needles] };
  const progress = startProgress(io, 'reading the tree');
  try {
    const lists = join(homeFolder(io.env), 'known-files');
    const known = KnownFiles.open(lists, realOf(folder) ?? folder, plan);
    const { files, folders, skipped, seen, read } = await collectTree(folder, plan, {
      known,
      progress: progress.step,
    });
    known.save(read);
    const manifest = {
      name: printableName(basename(folder) || folder),
      files: files.map(({ path, hash, size }) => ({ path, hash, size })),
      folders,
      skipped: skipped.slice(0, 5_000),
    };
    const { id, missing } = await client.call('addSnapshot', { body: manifest });
    await sendMissing(client, files, missing, progress);
    return { snapshot: id, folder, seen, sent: files.length };
  } catch (error) {
    if (error instanceof TreeUnreadableError)
      throw new CommandError(error.message, exit.wrongUse, 'Name the folder of a source tree.');
    throw error;
  } finally {
    progress.end();
  }
}

/** Sends the contents that the service lacks, some megabytes at a time. */
async function sendMissing(
  client: Client,
  files: readonly CollectedFile[],
  missing: readonly string[],
  progress: ProgressLine,
): Promise<void> {
  const wanted = new Set(missing);
  let batch: { hash: string; base64: string }[] = [];
  let size = 0;
  let sent = 0;
  const flush = async () => {
    if (batch.length > 0) await client.call('sendBlobs', { body: { blobs: batch } });
    sent += batch.length;
    progress.step({ doing: 'sending files', done: sent, total: wanted.size });
    batch = [];
    size = 0;
  };
  for (const { path, hash, bytes: read } of files) {
    if (!wanted.delete(hash)) continue;
    const bytes = readAgain(path, read);
    batch.push({ hash, base64: bytes.toString('base64') });
    size += bytes.length;
    if (size > bytesAtOnce || batch.length >= 1_000) await flush();
  }
  await flush();
}

/** The real path of a folder; null when there is none, which is reported where it is read. */
function realOf(folder: string): string | null {
  try {
    return realpathSync(folder);
  } catch {
    return null;
  }
}
