import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, realpath, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';
import type { WriteEntry } from '../../api/trees.js';
import type { FileEdit } from '../../core/wiring/model.js';
import { FileChangedError, fileAt, hashOf, writeTree, type NewContent } from './apply.js';

/** Writes of one tree that can be taken back; older ones are forgotten. */
const maxRecords = 50;

const WriteRecord = z.object({
  id: z.string(),
  at: z.string(),
  tree: z.string(),
  title: z.string(),
  /** What was done: `wire`, or `unwire NETWORK`. */
  what: z.string(),
  /** What it put in, or took out, that other networks may need too. */
  adds: z.array(z.string()),
  files: z.array(
    z.object({
      path: z.string(),
      /** The content before, as base64; null where there was no such file. */
      content: z.string().nullable(),
      before: z.string().nullable(),
      after: z.string().nullable(),
      mode: z.number(),
    }),
  ),
});
export type WriteRecord = z.infer<typeof WriteRecord>;

/** A write as answers tell it. */
export function entryOf({ id, at, title, what, files }: WriteRecord): WriteEntry {
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

/** What a write is recorded as. */
export interface WriteNote {
  title: string;
  what: string;
  at: string;
}

/**
 * The writes of trees, kept in the data folder, so that each can be taken back. A record is made before its
 * write and dropped when that fails; one whose write never came about (a process that was killed) is found out by
 * the tree itself, where every file is as it was before.
 */
export class WriteRecords {
  constructor(private readonly home: string) {}

  /** Records the writes of a wiring, for the `record` of a write. */
  recorder(edits: readonly FileEdit[], note: WriteNote) {
    const adds = [...new Set(edits.flatMap((edit) => edit.adds))].sort();
    return async (contents: readonly NewContent[], base: string) => {
      const folder = this.folderOf(base);
      await mkdir(folder, { recursive: true, mode: 0o700 });
      const id = `${Date.parse(note.at).toString(36).padStart(9, '0')}-${process.hrtime.bigint().toString(36)}`;
      const files = await Promise.all(
        contents.map(async ({ path, before, after, mode }) => ({
          path,
          before,
          after,
          mode,
          content: before === null ? null : ((await fileAt(base, path)).current?.toString('base64') ?? null),
        })),
      );
      const record: WriteRecord = { id, tree: base, adds, files, ...note };
      const path = join(folder, `${id}.json`);
      await writeFile(`${path}.new`, JSON.stringify(record), { mode: 0o600 });
      await rename(`${path}.new`, path);
      const names = (await readdir(folder)).filter((name) => name.endsWith('.json')).sort();
      for (const old of names.slice(0, Math.max(0, names.length - maxRecords)))
        await rm(join(folder, old), { force: true });
      return { drop: () => rm(path, { force: true }) };
    };
  }

  /** The writes of a tree that came about, the latest first. */
  async list(root: string): Promise<WriteRecord[]> {
    const base = await realpath(root);
    const folder = this.folderOf(base);
    const names = await readdir(folder).catch(() => []);
    const records: WriteRecord[] = [];
    for (const name of names.filter((each) => each.endsWith('.json')).sort()) {
      const text = await readFile(join(folder, name), 'utf8').catch(() => '');
      const parsed = WriteRecord.safeParse(parseJson(text));
      if (parsed.success) records.push(parsed.data);
    }
    const last = records.at(-1);
    if (last && (await neverCame(base, last))) {
      await rm(join(folder, `${last.id}.json`), { force: true });
      records.pop();
    }
    return records.reverse();
  }

  /** What the writes of a tree put in that other networks may need too, and that stands there still. */
  async added(root: string): Promise<string[]> {
    const known = new Set<string>();
    for (const { what, adds } of (await this.list(root)).reverse())
      for (const item of adds) {
        if (what.startsWith('unwire')) known.delete(item);
        else known.add(item);
      }
    return [...known].sort();
  }

  /**
   * Takes the last write of a tree back: every byte as it was, or nothing.
   * @returns what was taken back; undefined when there is nothing to take back
   * @throws FileChangedError where a file changed since
   */
  async undo(root: string): Promise<WriteRecord | undefined> {
    const [last] = await this.list(root);
    if (!last) return undefined;
    await writeTree(root, (base) => contentsBefore(base, last));
    await rm(join(this.folderOf(await realpath(root)), `${last.id}.json`), { force: true });
    return last;
  }

  private folderOf(base: string): string {
    return join(this.home, 'writes', createHash('sha256').update(base).digest('hex').slice(0, 32));
  }
}

/** Whether every file is as it was before a write. */
async function neverCame(base: string, { files }: WriteRecord): Promise<boolean> {
  for (const { path, before } of files) {
    const { current } = await fileAt(base, path).catch(() => ({ current: null }));
    if ((current && hashOf(current)) !== before) return false;
  }
  return true;
}

async function contentsBefore(base: string, { files }: WriteRecord): Promise<NewContent[]> {
  const changed: string[] = [];
  const contents: NewContent[] = [];
  for (const { path, content, before, after, mode } of files) {
    const { current } = await fileAt(base, path);
    if ((current && hashOf(current)) !== after) changed.push(path);
    const bytes = content === null ? null : Buffer.from(content, 'base64');
    contents.push({ path, bytes, mode, isNew: current === null, before: after, after: before });
  }
  if (changed.length > 0) throw new FileChangedError(changed);
  return contents;
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
