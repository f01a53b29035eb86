import { randomBytes } from 'node:crypto';
import { dirname } from 'node:path';
import { existsSync } from 'node:fs';
import type { FileEdit } from '../../core/edits/model.js';
import { mapConcurrently } from '../concurrently.js';
import { hashOf } from '../hash.js';
import { FileChangedError, TreeBusyError } from './errors.js';
import { Journals, type Journal } from './journal.js';
import { mark, strangeMarkers, temporaryName, unmark, type StrangeMarker } from './markers.js';
import { newContents, refuseReadOnly, type ContentOptions, type NewContent } from './new-contents.js';
import { TreeFiles } from './place-file.js';
import { lockTree } from './tree-lock.js';
import { identityOf, writeFolder, type TreeIdentity } from './write-folder.js';

/** What a write is recorded as. */
export interface WriteNote {
  title: string;
  /** `wire`, or `unwire NETWORK`. */
  what: string;
  /** Whether it removes what others may need, rather than adding it. */
  takesOut: boolean;
  at: string;
}

/** What the write of a wiring is recorded as; of an unwiring when it names a network. */
export function noteOf({ title, network }: { title: string; network: string | null }, at: string): WriteNote {
  const takesOut = network !== null;
  return { title, what: takesOut ? `unwire ${network}` : 'wire', takesOut, at };
}

export interface WriteOptions extends ContentOptions {
  /** Called before each file is put in place. */
  progress?: (path: string, done: number, total: number) => void | Promise<void>;
}

/** A write that was interrupted, and what was done about it. */
export interface Settled {
  journal: Journal;
  /** Whether it had come about already, or was taken back. */
  outcome: 'finished' | 'taken back';
  /** Files that somebody changed since; they were left as they are. */
  leftAlone: string[];
  /** The folder in which the earlier contents of those files are kept. */
  kept: string | undefined;
}

/** What is odd about a tree before anything in it is read. */
export interface TreeState {
  /** A write that was interrupted, if there is one. */
  interrupted: Journal | undefined;
  /** Whether another command is writing to the tree right now. */
  busy: boolean;
  strange: StrangeMarker[];
}

/**
 * Writes edits into trees: all files, or none, and so that each write can be taken back. Everything that is needed for
 * that is in the data folder. In a tree a write leaves only a marker and files of its own until it is done; nothing
 * found in a tree is believed.
 */
export class TreeWrites {
  /** @param home the data folder */
  constructor(private readonly home: string) {}

  /**
   * Writes the edits of a wiring into a tree.
   * @returns the paths that were written
   * @throws FileChangedError when a file is not the one that the edits were made for, or another write is under way;
   * WriteRefusedError when a path leads out of the tree or a file is read-only
   */
  async apply(
    root: string,
    edits: readonly FileEdit[],
    note: WriteNote,
    options: WriteOptions = {},
  ): Promise<string[]> {
    return this.locked(root, async (place) => {
      await this.settleLocked(place);
      const contents = await newContents(place.files, edits, options);
      if (contents.length === 0) return [];
      const adds = [...new Set(edits.flatMap((edit) => edit.adds))].sort();
      await this.write(place, contents, { ...note, adds, undoes: null }, options);
      return contents.map(({ path }) => path);
    });
  }

  /** The writes of a tree that can be taken back, the latest first. */
  async list(root: string): Promise<Journal[]> {
    return new Journals(writeFolder(this.home, identityOf(root))).list();
  }

  /** The additions of earlier writes that other networks may need too, and that still exist. */
  async added(root: string): Promise<string[]> {
    const known = new Set<string>();
    for (const { takesOut, adds } of (await this.list(root)).reverse())
      for (const item of adds) {
        if (takesOut) known.delete(item);
        else known.add(item);
      }
    return [...known].sort();
  }

  /**
   * Takes the last write of a tree back: every byte as it was, or nothing. A write that was interrupted is the last.
   * @returns the write that was taken back; undefined when there is none
   * @throws as {@link apply}
   */
  async undo(root: string, options: WriteOptions = {}): Promise<Journal | undefined> {
    return this.locked(root, async (place) => {
      const settled = await this.settleLocked(place);
      if (settled?.outcome === 'taken back') return settled.journal;
      const [last] = await place.journals.list();
      if (!last) return undefined;
      const contents = await contentsBefore(place, last, options);
      const { title, what, takesOut, adds } = last;
      const note = { title, what: `undo ${what}`, takesOut: !takesOut, adds, at: last.at, undoes: last.id };
      await this.write(place, contents, note, options);
      return last;
    });
  }

  /** What is odd about a tree. Only looks. */
  async state(root: string): Promise<TreeState> {
    const identity = identityOf(root);
    const folder = writeFolder(this.home, identity);
    const pending = existsSync(folder) ? await new Journals(folder).pending() : undefined;
    const busy = pending !== undefined && (await isLocked(folder));
    return {
      interrupted: busy ? undefined : pending,
      busy,
      strange: strangeMarkers(identity.path, pending?.marker),
    };
  }

  /** Settles a write that was interrupted: one that came about is kept, any other is taken back. */
  async settle(root: string): Promise<Settled | undefined> {
    const folder = writeFolder(this.home, identityOf(root));
    if (!existsSync(folder) || !(await new Journals(folder).pending())) return undefined;
    return this.locked(root, (place) => this.settleLocked(place));
  }

  private async locked<Result>(root: string, work: (place: Place) => Promise<Result>): Promise<Result> {
    const identity = identityOf(root);
    const folder = writeFolder(this.home, identity);
    const unlock = await lockTree(folder);
    try {
      return await work({
        identity,
        files: new TreeFiles(identity.path),
        journals: new Journals(folder),
      });
    } finally {
      unlock();
    }
  }

  private async write(
    { identity, files, journals }: Place,
    contents: readonly NewContent[],
    note: Pick<Journal, 'title' | 'what' | 'takesOut' | 'at' | 'adds' | 'undoes'>,
    { progress }: WriteOptions,
  ): Promise<void> {
    const staying = contents.filter(({ bytes }) => bytes !== null).map(({ path }) => path);
    const journal: Journal = {
      ...note,
      id: await journals.nextId(),
      tree: identity,
      marker: randomBytes(16).toString('hex'),
      files: contents.map(({ path, before, after, mode }) => ({ path, before, after, mode })),
      folders: await files.missingFolders(staying),
    };
    const old = new Map(contents.flatMap(({ old }, index) => (old ? [[index, old] as const] : [])));
    await journals.begin(journal, old);
    await mark(identity.path, journal.marker);
    try {
      for (const folder of journal.folders) await files.makeFolder(folder);
      let done = 0;
      await mapConcurrently(contents, async ({ path, before, bytes, mode }, index) => {
        await progress?.(path, done++, contents.length);
        const temporary = temporaryName(journal.marker, index);
        if (bytes) await files.put(path, before, bytes, mode, temporary);
        else if (before !== null) await files.remove(path, before, temporary);
      });
      await dropEmptyFolders(files, journal);
    } catch (error) {
      await this.settleLocked({ identity, files, journals });
      throw error;
    }
    // Remove the marker first: while the journal is pending, recovery still knows that the marker is ours.
    await unmark(identity.path, journal.marker);
    await journals.complete(journal);
  }

  /** Settles the pending write, if there is one. The tree's lock is held. */
  private async settleLocked({ identity, files, journals }: Place): Promise<Settled | undefined> {
    const journal = await journals.pending();
    if (!journal) return undefined;
    for (const [index, { path }] of journal.files.entries())
      await files.dropTemporary(path, temporaryName(journal.marker, index));
    const now = await Promise.all(journal.files.map(({ path }) => files.hash(path).catch(() => undefined)));
    let outcome: Settled['outcome'] = 'finished';
    const leftAlone: string[] = [];
    let kept: string | undefined;
    if (journal.files.some(({ after }, index) => now[index] !== after)) {
      outcome = 'taken back';
      for (const [index, file] of journal.files.entries()) {
        if (now[index] === file.before) continue;
        if (now[index] !== file.after) leftAlone.push(file.path);
        else await restore(files, journals, journal, index);
      }
      for (const folder of [...journal.folders].reverse()) await files.dropFolder(folder);
      await unmark(identity.path, journal.marker);
      if (leftAlone.length > 0) kept = await journals.setAside(journal);
      else await journals.drop();
    } else {
      await dropEmptyFolders(files, journal);
      await unmark(identity.path, journal.marker);
      await journals.complete(journal);
    }
    return { journal, outcome, leftAlone, kept };
  }
}

interface Place {
  identity: TreeIdentity;
  files: TreeFiles;
  journals: Journals;
}

/** Puts the content of one file back as it was before a write. */
async function restore(files: TreeFiles, journals: Journals, journal: Journal, index: number): Promise<void> {
  const file = journal.files[index];
  if (!file) return;
  const { path, before, after, mode } = file;
  const temporary = temporaryName(journal.marker, index);
  if (before === null) {
    if (after !== null) await files.remove(path, after, temporary);
    return;
  }
  const bytes = await journals.old(journal, index);
  if (hashOf(bytes) !== before) throw new Error(`The old content of ${path} in the data folder is damaged.`);
  for (const folder of await files.missingFolders([path])) await files.makeFolder(folder);
  await files.put(path, after, bytes, mode, temporary);
}

/** A folder that held nothing but files that were taken away goes with them. */
async function dropEmptyFolders(files: TreeFiles, journal: Journal): Promise<void> {
  for (const { path, after } of journal.files) {
    if (after !== null) continue;
    for (let folder = dirname(path); folder !== '.'; folder = dirname(folder))
      if (!(await files.dropFolder(folder))) break;
  }
}

/** The contents that take a write back. */
async function contentsBefore(
  { files, journals }: Place,
  last: Journal,
  { force = false }: WriteOptions,
): Promise<NewContent[]> {
  const changed: string[] = [];
  const contents = await mapConcurrently(
    last.files,
    async ({ path, before, after, mode }, index): Promise<NewContent> => {
      const now = await files.read(path);
      if ((now.bytes && hashOf(now.bytes)) !== after) changed.push(path);
      // What was written in spite of its mode may be taken back in spite of it.
      else if (!force && now.mode !== mode) refuseReadOnly(path, now);
      const bytes = before === null ? null : await journals.old(last, index);
      return { path, old: now.bytes, bytes, mode, before: after, after: before };
    },
  );
  if (changed.length > 0) throw new FileChangedError(changed.sort());
  return contents;
}

/** Whether somebody holds the lock of a tree. */
async function isLocked(folder: string): Promise<boolean> {
  try {
    (await lockTree(folder))();
    return false;
  } catch (error) {
    if (error instanceof TreeBusyError) return true;
    throw error;
  }
}
