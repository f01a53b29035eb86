import { createHash, randomUUID } from 'node:crypto';
import { constants } from 'node:fs';
import {
  copyFile,
  link,
  lstat,
  mkdir,
  open,
  readFile,
  realpath,
  rename,
  rm,
  rmdir,
  stat,
  writeFile,
} from 'node:fs/promises';
import { dirname, join } from 'node:path';
import * as z from 'zod';
import { donePrefix, draftPrefix, leftovers, stagingName } from './leftovers.js';
import type { FileEdit } from '../../core/wiring/model.js';
import { applyEdits } from '../../core/text/edit.js';
import { decodeText, encodeText, textDocument } from '../../core/text/document.js';

/** A file is not what the edits were made for. */
export class FileChangedError extends Error {
  constructor(readonly paths: string[]) {
    super(`Changed since the edits were worked out: ${paths.join(', ')}.`);
    this.name = 'FileChangedError';
  }
}

/** Trees that this very process is writing to. */
const writing = new Set<string>();

const Journal = z.object({
  pid: z.number(),
  files: z.array(
    z.object({
      path: z.string(),
      isNew: z.boolean(),
      before: z.string().nullable(),
      /** Null where the file goes. */
      after: z.string().nullable(),
    }),
  ),
  /** Folders that did not exist before, the outermost first. */
  folders: z.array(z.string()),
});
type Journal = z.infer<typeof Journal>;

/** What an interrupted write was found to be, and what became of it. */
export interface Recovered {
  outcome: 'finished' | 'rolled back';
  files: string[];
}

/** One file of a write: what it has to be before, and what it becomes. */
export interface NewContent {
  path: string;
  /** The new content; null where the file goes. */
  bytes: Buffer | null;
  mode: number;
  isNew: boolean;
  before: string | null;
  after: string | null;
}

/** What a write is made with besides its edits. */
export interface ApplyOptions {
  /** Files that are copied as they are: where each lies, by hash. */
  sources?: ReadonlyMap<string, string>;
  /** Takes down what the write is about to do, so that it can be taken back; called before anything is written. */
  record?: (contents: readonly NewContent[], base: string) => Promise<{ drop: () => Promise<void> }>;
}

/**
 * Writes the edits of a wiring into a tree: all files, or none. New contents are first written whole beside
 * the tree's files, in a folder of this write's own. Giving that folder its final name is the point of no
 * return, and only one writer can do it; after it, renames finish the work. A write that was cut short is
 * finished, or taken back, by {@link recoverTree}.
 * @throws FileChangedError when a file is not the one that the edits were made for, or another write is on
 */
export async function applyToTree(
  root: string,
  edits: readonly FileEdit[],
  { sources = new Map(), record }: ApplyOptions = {},
): Promise<string[]> {
  return writeTree(root, (base) => newContents(base, edits, sources), record);
}

/**
 * Writes contents into a tree: all files, or none.
 * @param work works out the contents for the files as they are; called again just before they are put in place
 * @throws FileChangedError as {@link applyToTree}
 */
export async function writeTree(
  root: string,
  work: (base: string) => Promise<NewContent[]>,
  record?: ApplyOptions['record'],
): Promise<string[]> {
  await recoverTree(root);
  const base = await realpath(root);
  const contents = await work(base);
  if (contents.length === 0) return [];
  const paths = contents.map(({ path }) => path);
  const staying = contents.filter(({ bytes }) => bytes !== null).map(({ path }) => path);
  const folders = await missingFolders(base, staying);
  const journal: Journal = {
    pid: process.pid,
    folders,
    files: contents.map(({ path, isNew, before, after }) => ({ path, isNew, before, after })),
  };
  const draft = join(base, `${draftPrefix}${process.pid}-${randomUUID()}`);
  const staging = join(base, stagingName);
  let recorded: { drop: () => Promise<void> } | undefined;
  try {
    await mkdir(draft, { mode: 0o700 });
    await severalAtOnce(contents, async ({ path, bytes, mode, isNew }, index) => {
      if (bytes) await writeWhole(join(draft, `new-${index}`), bytes, mode);
      if (!isNew) await keep(join(base, path), join(draft, `old-${index}`));
    });
    await writeWhole(join(draft, 'journal.json'), Buffer.from(JSON.stringify(journal)), 0o600);
    recorded = await record?.(contents, base);
    await claim(draft, staging, base);
  } catch (error) {
    await recorded?.drop();
    await rm(draft, { recursive: true, force: true });
    throw error;
  }
  let begun = false;
  try {
    // Nothing may have changed while the copies were made.
    await work(base);
    begun = true;
    await finish(base, staging, journal);
  } catch (error) {
    // What another writer did meanwhile is not this one's to take back.
    if (begun) await rollBack(base, staging, journal);
    else await release(base, staging);
    await recorded?.drop();
    throw error;
  } finally {
    writing.delete(base);
  }
  return paths;
}

/** Finishes or takes back a write that was cut short in this tree; undefined when there was none. */
export async function recoverTree(root: string): Promise<Recovered | undefined> {
  const names = leftovers(root);
  if (names.length === 0) return undefined;
  const base = await realpath(root);
  let recovered: Recovered | undefined;
  for (const name of names.filter((candidate) => candidate.startsWith(donePrefix))) {
    if (isAlive(parseInt(name.slice(donePrefix.length), 10))) continue;
    await rm(join(base, name), { recursive: true, force: true });
  }
  for (const name of names.filter((candidate) => candidate.startsWith(draftPrefix))) {
    // A draft never touched the tree; its writer is gone, so it only takes room.
    if (isAlive(parseInt(name.slice(draftPrefix.length), 10))) continue;
    await rm(join(base, name), { recursive: true, force: true });
    recovered = { outcome: 'rolled back', files: [] };
  }
  if (!names.includes(stagingName)) return recovered;
  const staging = join(base, stagingName);
  const journal = await readJournal(staging);
  if (writing.has(base) || (journal && journal.pid !== process.pid && isAlive(journal.pid))) return recovered;
  if (!(await mayRecover(staging))) return recovered;
  writing.add(base);
  try {
    return await settle(base, staging, journal);
  } finally {
    writing.delete(base);
  }
}

/** Finishes a write that was cut short, or takes it back where files were changed since. */
async function settle(base: string, staging: string, journal: Journal | undefined): Promise<Recovered> {
  if (!journal) {
    await release(base, staging);
    return { outcome: 'rolled back', files: [] };
  }
  const files = journal.files.map(({ path }) => path);
  if (await isUntouched(base, journal)) {
    await finish(base, staging, journal);
    return { outcome: 'finished', files };
  }
  await rollBack(base, staging, journal);
  return { outcome: 'rolled back', files };
}

/** Whether every file is as it was before the write, or as the write leaves it. */
async function isUntouched(base: string, { files }: Journal): Promise<boolean> {
  for (const { path, before, after } of files) {
    const current = await readFile(join(base, path)).catch(() => null);
    const hash = current && hashOf(current);
    if (hash !== before && hash !== after) return false;
  }
  return true;
}

async function newContents(
  base: string,
  edits: readonly FileEdit[],
  sources: ReadonlyMap<string, string>,
): Promise<NewContent[]> {
  const contents = await severalAtOnce(edits, async (edit): Promise<NewContent | string> => {
    const { path, before } = edit;
    const { current, mode } = await fileAt(base, path);
    if ((current && hashOf(current)) !== before) return path;
    const bytes = await editedBytes(edit, current, sources);
    const after = bytes && hashOf(bytes);
    return { path, bytes, mode, isNew: current === null, before, after };
  });
  const changed = contents.filter((content) => typeof content === 'string');
  if (changed.length > 0) throw new FileChangedError(changed);
  return contents.filter((content) => typeof content !== 'string');
}

/** A file of the tree as it is now; a path that leads out of the tree is refused. */
export async function fileAt(base: string, path: string): Promise<{ current: Buffer | null; mode: number }> {
  const file = join(base, path);
  await stayInside(base, file);
  const current = await readFile(file).catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  });
  return { current, mode: current ? (await stat(file)).mode & 0o7777 : 0o644 };
}

/** What a file becomes; null where it goes. */
async function editedBytes(
  { path, edits, content, source, remove }: FileEdit,
  current: Buffer | null,
  sources: ReadonlyMap<string, string>,
): Promise<Buffer | null> {
  if (remove) return null;
  if (source) {
    const from = sources.get(source.sha256);
    const bytes = from === undefined ? null : await readFile(from).catch(() => null);
    if (!bytes || hashOf(bytes) !== source.sha256)
      throw new FileChangedError([`${source.name}, which was to be copied to ${path}`]);
    return bytes;
  }
  const document = current ? decodeText(current) : textDocument('');
  const text = current ? applyEdits(document.text, edits) : (content ?? '');
  return Buffer.from(encodeText(text, document));
}

/** No path may lead out of the tree, by links of its folders or by itself. */
async function stayInside(base: string, file: string): Promise<void> {
  let folder = dirname(file);
  for (;;) {
    const real = await realpath(folder).catch(() => null);
    if (real !== null) {
      if (real !== base && !real.startsWith(`${base}/`))
        throw new Error(`${file} lies outside the tree ${base}.`);
      break;
    }
    folder = dirname(folder);
  }
  const found = await lstat(file).catch(() => null);
  if (found?.isSymbolicLink())
    throw new Error(`${file} is a symbolic link; edits are made to real files only.`);
}

/** Takes the tree for this write; a second writer at the same time is refused. */
async function claim(draft: string, staging: string, base: string): Promise<void> {
  if (writing.has(base)) throw new FileChangedError(['another command is writing to this tree']);
  writing.add(base);
  try {
    await rename(draft, staging);
  } catch (error) {
    writing.delete(base);
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOTEMPTY' || code === 'EEXIST')
      throw new FileChangedError(['another command is writing to this tree']);
    throw error;
  }
}

async function missingFolders(base: string, paths: readonly string[]): Promise<string[]> {
  const missing = new Set<string>();
  for (const path of paths) {
    const parts = path.split('/').slice(0, -1);
    for (let length = 1; length <= parts.length; length++) {
      const folder = parts.slice(0, length).join('/');
      if (!missing.has(folder) && !(await stat(join(base, folder)).catch(() => null))) missing.add(folder);
    }
  }
  return [...missing];
}

/**
 * Keeps a file under a second name. New contents take the file's place by a rename and never change it, so a link
 * is enough and costs no copy; where links are not to be had, a copy is made.
 */
async function keep(file: string, name: string): Promise<void> {
  await link(file, name).catch(() => copyFile(file, name, constants.COPYFILE_FICLONE));
}

/** Moves every new content into its place, and takes files away. May be repeated: what is done already is left. */
async function finish(base: string, staging: string, { files }: Journal): Promise<void> {
  await severalAtOnce(files, async ({ path, after }, index) => {
    if (after === null) return rm(join(base, path), { force: true });
    const fresh = join(staging, `new-${index}`);
    const there = await readFile(fresh).catch(() => null);
    if (!there) return;
    if (hashOf(there) !== after) throw new Error(`The new content of ${path} was damaged.`);
    await mkdir(dirname(join(base, path)), { recursive: true });
    await rename(fresh, join(base, path));
  });
  await dropEmptyFolders(
    base,
    files.flatMap(({ path, after }) => (after === null ? [path] : [])),
  );
  await release(base, staging);
}

/**
 * Gives the tree free again. The folder is moved away whole before it is removed: half removed it would be empty
 * for a moment, and another writer could take its name while this one is still at it.
 */
async function release(base: string, staging: string): Promise<void> {
  const done = join(base, `${donePrefix}${process.pid}-${randomUUID()}`);
  try {
    await rename(staging, done);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return;
    throw error;
  }
  // What cannot be removed now is removed by the next command; the write itself is done.
  await rm(done, { recursive: true, force: true }).catch(() => undefined);
}

/** Whether this process is the one to finish or take back what another left; of several at once only one is. */
async function mayRecover(staging: string): Promise<boolean> {
  const mark = join(staging, 'recovering');
  const holder = parseInt(await readFile(mark, 'utf8').catch(() => ''), 10);
  if (holder === process.pid || isAlive(holder)) return holder === process.pid;
  await rm(mark, { force: true });
  return writeFile(mark, String(process.pid), { flag: 'wx' }).then(
    () => true,
    () => false,
  );
}

/** Files that are worked on at once: most of the time goes into waiting for the disk. */
const atOnce = 24;

/** Runs a task for each item, several at once; the results in the order of the items. The first fault ends it. */
async function severalAtOnce<Item, Result>(
  items: readonly Item[],
  task: (item: Item, index: number) => Promise<Result>,
): Promise<Result[]> {
  const results: Result[] = [];
  const waiting = items.entries();
  let failed = false;
  const worker = async () => {
    for (const [index, item] of waiting) {
      if (failed) return;
      try {
        results[index] = await task(item, index);
      } catch (error) {
        failed = true;
        throw error;
      }
    }
  };
  const ended = await Promise.allSettled(Array.from({ length: Math.min(atOnce, items.length) }, worker));
  for (const one of ended) if (one.status === 'rejected') throw one.reason;
  return results;
}

/** A folder that held nothing but a file that was taken away goes with it. */
async function dropEmptyFolders(base: string, paths: readonly string[]): Promise<void> {
  for (const path of paths) {
    for (let folder = dirname(path); folder !== '.'; folder = dirname(folder)) {
      const done = await rmdir(join(base, folder)).then(
        () => true,
        () => false,
      );
      if (!done) break;
    }
  }
}

async function rollBack(base: string, staging: string, { files, folders }: Journal): Promise<void> {
  for (const [index, { path, isNew, after }] of files.entries()) {
    const file = join(base, path);
    const current = await readFile(file).catch(() => null);
    if ((current && hashOf(current)) !== after) continue;
    if (isNew) await rm(file, { force: true });
    else {
      await mkdir(dirname(file), { recursive: true });
      await rename(join(staging, `old-${index}`), file);
    }
  }
  for (const folder of [...folders].reverse()) await rmdir(join(base, folder)).catch(() => undefined);
  await release(base, staging);
}

async function readJournal(staging: string): Promise<Journal | undefined> {
  const text = await readFile(join(staging, 'journal.json'), 'utf8').catch(() => null);
  const parsed = text === null ? undefined : Journal.safeParse(JSON.parse(text));
  return parsed?.success ? parsed.data : undefined;
}

async function writeWhole(file: string, bytes: Buffer, mode: number): Promise<void> {
  await writeFile(file, bytes, { mode });
  const handle = await open(file, 'r');
  try {
    await handle.chmod(mode);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** The hash by which files are known. */
export function hashOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

function isAlive(pid: number): boolean {
  if (!(pid > 0)) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
