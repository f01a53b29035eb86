import { randomBytes } from 'node:crypto';
import { mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';
import type { WriteEntry } from '../../api/trees.js';
import { mapConcurrently } from '../concurrently.js';
import { codeOf } from '../errors.js';

/** Writes of one tree that can be taken back; older ones are forgotten. */
const maxRecords = 50;

const Hash = z.string().regex(/^[0-9a-f]{64}$/);

/** What a write is about to do, and what it did: one document for both. */
export const Journal = z
  .object({
    id: z.string().regex(/^[\w-]{1,80}$/),
    at: z.string(),
    title: z.string(),
    /** What was done: `wire`, `unwire NETWORK` or `undo`. */
    what: z.string(),
    /** Whether it removes what `adds` names. Earlier versions only recorded the command. */
    takesOut: z.boolean().optional(),
    /** What it put in, or took out, that other networks may need too. */
    adds: z.array(z.string()),
    tree: z.object({ path: z.string(), device: z.number(), inode: z.number() }),
    /** The random name by which this write is marked in the tree. */
    marker: z.string().regex(/^[0-9a-f]{32}$/),
    /** The write that this one takes back. */
    undoes: z.string().nullable(),
    files: z.array(
      z.object({
        path: z.string(),
        /** Hash of the content before; null where there was no such file. */
        before: Hash.nullable(),
        /** Hash of the content after; null where the file goes. */
        after: Hash.nullable(),
        mode: z.number(),
      }),
    ),
    /** Folders that the write makes, the outermost first. */
    folders: z.array(z.string()),
  })
  .transform((journal) => ({
    ...journal,
    takesOut: journal.takesOut ?? journal.what.split(' ')[0] === 'unwire',
  }));
export type Journal = z.infer<typeof Journal>;

/** A write as answers report it. */
export function entryOf({ id, at, title, what, files }: Journal): WriteEntry {
  return {
    id,
    at,
    title,
    what,
    files: files.map(({ path, before, after }) => ({
      path,
      change: before === null ? 'new' : after === null ? 'removed' : 'changed',
    })),
  };
}

const names = {
  draft: 'draft',
  pending: 'pending',
  records: 'records',
  aside: 'aside',
  journal: 'journal.json',
} as const;

/**
 * The journals of one tree, in its write folder. `pending` is the write that is under way, or was interrupted;
 * `records` are those that came about. Only the holder of the tree's lock writes here.
 */
export class Journals {
  constructor(private readonly folder: string) {}

  /**
   * Takes down what is about to be done, with the contents that it replaces. Once it returns, a write that stops at
   * any point can be taken back.
   * @param old contents by the index of their file
   */
  async begin(journal: Journal, old: ReadonlyMap<number, Buffer>): Promise<void> {
    const draft = join(this.folder, names.draft);
    await rm(draft, { recursive: true, force: true });
    await mkdir(draft, { recursive: true, mode: 0o700 });
    await mapConcurrently([...old], ([index, bytes]) => writeDurably(join(draft, `old-${index}`), bytes));
    await writeDurably(join(draft, names.journal), Buffer.from(JSON.stringify(journal)));
    const pending = join(this.folder, names.pending);
    // One that can be read was settled before; one that cannot be read says nothing.
    await rm(pending, { recursive: true, force: true });
    await rename(draft, pending);
    await syncFolder(this.folder);
  }

  /** An id for a write: ids sort in the order of the writes, whatever the clock says. */
  async nextId(): Promise<string> {
    const ids = await readdir(join(this.folder, names.records)).catch(() => []);
    const last = Math.max(0, ...ids.map((id) => parseInt(id, 10) || 0));
    return `${String(last + 1).padStart(8, '0')}-${randomBytes(4).toString('hex')}`;
  }

  /** The write that is under way or was interrupted. A journal that cannot be read counts as none. */
  async pending(): Promise<Journal | undefined> {
    return this.read(names.pending);
  }

  /** The content of a file before a write. */
  old(journal: Journal, index: number): Promise<Buffer> {
    return readFile(join(this.placeOf(journal.id), `old-${index}`)).catch((error: unknown) => {
      if (codeOf(error) === 'ENOENT') return readFile(join(this.folder, names.pending, `old-${index}`));
      throw error;
    });
  }

  /** Marks the pending write as done: it becomes a record that can be undone, or removes the record that it undid. */
  async complete({ id, undoes }: Journal): Promise<void> {
    if (undoes !== null) {
      await rm(this.placeOf(undoes), { recursive: true, force: true });
      return this.drop();
    }
    const records = join(this.folder, names.records);
    await mkdir(records, { recursive: true, mode: 0o700 });
    await rename(join(this.folder, names.pending), this.placeOf(id));
    const all = (await readdir(records)).sort();
    for (const old of all.slice(0, Math.max(0, all.length - maxRecords)))
      await rm(join(records, old), { recursive: true, force: true });
  }

  /** Discards the pending write after it failed and the tree was restored. */
  async drop(): Promise<void> {
    const gone = join(this.folder, names.draft);
    await rm(gone, { recursive: true, force: true });
    await rename(join(this.folder, names.pending), gone);
    await rm(gone, { recursive: true, force: true });
  }

  /**
   * The pending write was taken back except for files that somebody changed since. What they held before is kept.
   * @returns the folder in which it is kept
   */
  async setAside({ id }: Journal): Promise<string> {
    const aside = join(this.folder, names.aside);
    await mkdir(aside, { recursive: true, mode: 0o700 });
    await rename(join(this.folder, names.pending), join(aside, id));
    return join(aside, id);
  }

  /** The writes that can be taken back, the latest first. A damaged record is skipped. */
  async list(): Promise<Journal[]> {
    const ids = await readdir(join(this.folder, names.records)).catch(() => []);
    const found = await mapConcurrently(ids.sort().reverse(), (id) => this.read(join(names.records, id)));
    return found.filter((journal) => journal !== undefined);
  }

  private placeOf(id: string): string {
    return join(this.folder, names.records, id);
  }

  private async read(place: string): Promise<Journal | undefined> {
    const text = await readFile(join(this.folder, place, names.journal), 'utf8').catch(() => null);
    if (text === null) return undefined;
    try {
      return Journal.safeParse(JSON.parse(text)).data;
    } catch {
      return undefined;
    }
  }
}

async function writeDurably(file: string, bytes: Buffer): Promise<void> {
  const handle = await open(file, 'wx', 0o600);
  try {
    await handle.writeFile(bytes);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } catch {
    // Some file systems do not sync folders.
  } finally {
    await handle.close();
  }
}
