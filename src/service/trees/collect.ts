import { createHash } from 'node:crypto';
import { lstat, open, readdir, readFile, realpath } from 'node:fs/promises';
import { join } from 'node:path';
import type { CollectPlan, SnapshotManifest } from '../../api/trees.js';

/** A file that was read, with its hash. */
export interface CollectedFile {
  path: string;
  hash: string;
  bytes: Buffer;
}

export interface Collected {
  files: CollectedFile[];
  folders: string[];
  skipped: SnapshotManifest['skipped'];
  /** How many files the tree holds, those that do not matter included. */
  seen: number;
}

const maxDepth = 64;
const atOnce = 32;

/** Thrown when the folder itself cannot be read. */
export class TreeUnreadableError extends Error {}

/** What a folder's walk found worth opening. */
interface Candidate {
  path: string;
  needle: boolean;
}

/**
 * Reads the files of a tree that matter. Symbolic links are followed only to files inside the tree; what
 * cannot be read, or is too large, is said and passed over.
 */
export async function collectTree(root: string, plan: CollectPlan): Promise<Collected> {
  let base: string;
  try {
    base = await realpath(root);
    if (!(await lstat(base)).isDirectory()) throw new TreeUnreadableError(`${root} is not a folder.`);
  } catch (error) {
    if (error instanceof TreeUnreadableError) throw error;
    throw new TreeUnreadableError(`${root} cannot be read: ${reasonOf(error)}.`, { cause: error });
  }
  const result: Collected = { files: [], folders: [], skipped: [], seen: 0 };
  const candidates: Candidate[] = [];
  await walk(base, plan, result, candidates);
  await readAll(base, plan, candidates, result);
  result.files.sort((a, b) => (a.path < b.path ? -1 : 1));
  result.folders.sort();
  result.skipped.sort((a, b) => (a.path < b.path ? -1 : 1));
  return result;
}

async function walk(
  base: string,
  plan: CollectPlan,
  result: Collected,
  candidates: Candidate[],
): Promise<void> {
  const wanted = matcher(plan);
  const skip = new Set(plan.skipFolders);
  const ends = plan.folders.map((folder) => `/${folder}`);
  let level = [''];
  for (let depth = 0; level.length > 0; depth++) {
    const next: string[] = [];
    const listings = await Promise.all(level.map((folder) => list(base, folder, result)));
    for (const { folder, entries } of listings) {
      const parent = folder.slice(folder.lastIndexOf('/') + 1);
      for (const entry of entries) {
        const path = folder === '' ? entry.name : `${folder}/${entry.name}`;
        if (entry.isDirectory()) {
          if (skip.has(entry.name)) continue;
          if (depth >= maxDepth)
            result.skipped.push({ path, reason: `Not read: folders are nested more than ${maxDepth} deep.` });
          else next.push(path);
          if (ends.some((end) => `/${path}`.endsWith(end))) result.folders.push(path);
          continue;
        }
        result.seen++;
        const match = wanted(entry.name, parent);
        if (!match) continue;
        if (entry.isSymbolicLink() && !(await leadsInside(base, path, result))) continue;
        if (entry.isFile() || entry.isSymbolicLink()) candidates.push({ path, needle: match === 'needle' });
      }
    }
    level = next;
  }
}

async function list(base: string, folder: string, result: Collected) {
  try {
    return { folder, entries: await readdir(join(base, folder), { withFileTypes: true }) };
  } catch (error) {
    if (folder !== '') result.skipped.push({ path: folder, reason: `Not read: ${reasonOf(error)}.` });
    return { folder, entries: [] };
  }
}

/** Tells by a file's name, and its folder's, whether it is wanted: always, or when it holds a needle. */
function matcher(plan: CollectPlan): (name: string, parent: string) => 'always' | 'needle' | null {
  const names = new Set(plan.rules.flatMap((rule) => (rule.name && !rule.needle ? [rule.name] : [])));
  const others = plan.rules.filter((rule) => rule.suffix !== undefined || (rule.name && rule.needle));
  return (name, parent) => {
    if (names.has(name)) return 'always';
    let found: 'needle' | null = null;
    for (const { name: whole, suffix, parent: start, needle } of others) {
      if (suffix !== undefined && !name.endsWith(suffix)) continue;
      if (whole !== undefined && whole !== name) continue;
      if (start !== undefined && parent !== start && !parent.startsWith(`${start}-`)) continue;
      if (!needle) return 'always';
      found = 'needle';
    }
    return found;
  };
}

async function leadsInside(base: string, path: string, result: Collected): Promise<boolean> {
  try {
    const target = await realpath(join(base, path));
    if (target === base || target.startsWith(`${base}/`)) return true;
    result.skipped.push({ path, reason: 'Not read: it is a symbolic link that leads out of the tree.' });
  } catch {
    result.skipped.push({ path, reason: 'Not read: it is a symbolic link that leads nowhere.' });
  }
  return false;
}

async function readAll(
  base: string,
  plan: CollectPlan,
  candidates: readonly Candidate[],
  result: Collected,
): Promise<void> {
  const needle =
    plan.needles.length > 0
      ? new RegExp(plan.needles.map((text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|'))
      : null;
  let at = 0;
  const worker = async () => {
    for (let candidate = candidates[at++]; candidate; candidate = candidates[at++]) {
      const bytes = await readOne(base, candidate.path, plan.maxFileBytes, result);
      if (!bytes) continue;
      if (candidate.needle && !(needle?.test(bytes.toString('latin1')) ?? false)) continue;
      result.files.push({
        path: candidate.path,
        hash: createHash('sha256').update(bytes).digest('hex'),
        bytes,
      });
    }
  };
  await Promise.all(Array.from({ length: atOnce }, worker));
}

async function readOne(base: string, path: string, limit: number, result: Collected): Promise<Buffer | null> {
  try {
    const handle = await open(join(base, path), 'r');
    try {
      const { size } = await handle.stat();
      if (size > limit) {
        result.skipped.push({
          path,
          reason: `Not read: it has ${size} bytes, and files over ${limit} are left out.`,
        });
        return null;
      }
      return await readFile(handle);
    } finally {
      await handle.close();
    }
  } catch (error) {
    result.skipped.push({ path, reason: `Not read: ${reasonOf(error)}.` });
    return null;
  }
}

function reasonOf(error: unknown): string {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  const known: Record<string, string> = {
    EACCES: 'permission denied',
    EPERM: 'permission denied',
    ENOENT: 'it is not there',
    EISDIR: 'it is a folder',
    ENOTDIR: 'it is not a folder',
    ELOOP: 'its links go round in a circle',
  };
  return known[code] ?? (error instanceof Error ? error.message : String(error));
}
