import { createHash, randomUUID } from 'node:crypto';
import { and, eq, inArray, like, lt, max } from 'drizzle-orm';
import * as z from 'zod';
import { type StoredTree, type WiringAnswer, SnapshotManifest } from '../../api/trees.js';
import { Reading } from '../../core/board/model.js';
import { decodeText, NotTextError, type TextDocument } from '../../core/text/document.js';
import type { TreeContents } from '../../core/workbench.js';
import { Wiring } from '../../core/edits/model.js';
import { ServiceError } from '../errors.js';
import type { Collected } from '../../disk/collect.js';
import { atomically, type Db } from './open.js';
import { blobs, linkedTrees, readings, snapshots, wirings } from './schema.js';

/** A wiring as it is kept. */
const KeptWiring = Wiring.extend({ network: z.string().nullable().default(null) });

const chunk = 500;
/** Snapshots, the contents of their files, wirings, readings and linked trees. */
export class TreeStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date,
  ) {}

  /** Keeps a snapshot's list of files. The same files under the same name are the same snapshot. */
  addSnapshot(manifest: z.infer<typeof SnapshotManifest>): { id: string; missing: string[] } {
    const { name, files, folders, skipped } = manifest;
    const sorted = [...files].sort((a, b) => (a.path < b.path ? -1 : 1));
    const id = createHash('sha256')
      .update(JSON.stringify([name, sorted, folders, skipped]))
      .digest('hex')
      .slice(0, 32);
    this.db
      .insert(snapshots)
      .values({ id, name, files: sorted, folders, skipped, used: this.time() })
      .onConflictDoNothing()
      .run();
    this.touch(id);
    this.takeTurn(id);
    return { id, missing: this.missing(sorted.map(({ hash }) => hash)) };
  }

  /** Keeps what was collected of a tree, with the contents that were lacking; returns the snapshot. */
  addCollected(name: string, { files, folders, skipped }: Collected): string {
    const { id, missing } = this.addSnapshot({
      name,
      files: files.map(({ path, hash, size }) => ({ path, hash, size })),
      folders,
      skipped: skipped.slice(0, 5_000),
    });
    const wanted = new Set(missing);
    const lacking = files.filter(({ hash }) => wanted.has(hash));
    this.addBlobs(lacking.map(({ hash, bytes }) => ({ hash, bytes: bytes() })));
    return id;
  }

  missing(hashes: readonly string[]): string[] {
    const wanted = [...new Set(hashes)];
    const known = new Set<string>();
    for (let at = 0; at < wanted.length; at += chunk) {
      const rows = this.db
        .select({ hash: blobs.hash })
        .from(blobs)
        .where(inArray(blobs.hash, wanted.slice(at, at + chunk)))
        .all();
      for (const { hash } of rows) known.add(hash);
    }
    return wanted.filter((hash) => !known.has(hash));
  }

  /** Keeps contents under their hash, which is computed here and never believed. */
  addBlobs(contents: readonly { hash: string; bytes: Buffer }[]): number {
    atomically(this.db, () => {
      for (const { hash, bytes } of contents) {
        const real = createHash('sha256').update(bytes).digest('hex');
        if (real !== hash)
          throw new ServiceError('invalid', `The content sent for ${hash} has the hash ${real}.`, {
            fix: 'The file changed while being read: run the command again.',
          });
        this.db.insert(blobs).values({ hash, bytes }).onConflictDoNothing().run();
      }
    });
    return contents.length;
  }

  /** The name of a snapshot, which is that of its tree. */
  nameOf(id: string): string {
    return this.manifest(id).name;
  }

  /** A text file of a snapshot; undefined if the path does not exist, or is not text. */
  text(id: string, path: string): TextDocument | undefined {
    const file = this.manifest(id).files.find((one) => one.path === path);
    const row = file && this.db.select().from(blobs).where(eq(blobs.hash, file.hash)).get();
    try {
      return row && decodeText(row.bytes);
    } catch (error) {
      if (error instanceof NotTextError) return undefined;
      throw error;
    }
  }

  /** A snapshot with the contents of all its files. */
  contents(id: string): TreeContents {
    const { files, folders, skipped } = this.manifest(id);
    this.touch(id);
    const contents = new Map<string, Buffer>();
    const wanted = [...new Set(files.map(({ hash }) => hash))];
    for (let at = 0; at < wanted.length; at += chunk) {
      for (const { hash, bytes } of this.db
        .select()
        .from(blobs)
        .where(inArray(blobs.hash, wanted.slice(at, at + chunk)))
        .all())
        contents.set(hash, bytes);
    }
    return {
      files: files.map(({ path, hash }) => {
        const bytes = contents.get(hash);
        if (bytes) return { path, hash, bytes };
        throw new ServiceError('invalid', `The content of ${path} was never sent.`, {
          fix: 'Send the missing contents, then try again.',
        });
      }),
      folders,
      skipped,
    };
  }

  /** Records that a snapshot was requested: once an hour is enough. */
  private touch(id: string): void {
    const now = this.time();
    this.db
      .update(snapshots)
      .set({ used: now })
      .where(and(eq(snapshots.id, id), lt(snapshots.used, now - 60 * 60_000)))
      .run();
  }

  /** Notes that no tree was read or sent later than the one of this snapshot. */
  private takeTurn(id: string): void {
    this.db.$client
      .prepare(
        `update snapshots set turn = (select max(turn) + 1 from snapshots)
         where id = ? and turn < max(1, (select max(turn) from snapshots))`,
      )
      .run(id);
  }

  /** The time now, or the latest that was noted: a clock that is set back changes no order. */
  private time(): number {
    const latest = this.db
      .select({ used: max(snapshots.used) })
      .from(snapshots)
      .get()?.used;
    return Math.max(this.now().getTime(), latest ?? 0);
  }

  private manifest(id: string): z.infer<typeof SnapshotManifest> {
    const row = this.db.select().from(snapshots).where(eq(snapshots.id, id)).get();
    if (row) return SnapshotManifest.parse(row);
    throw new ServiceError('not-found', `There is no snapshot ${id}.`, { fix: 'Send the tree again.' });
  }

  /** Stores a wiring; `network` is the one that it removes, if any. */
  addWiring(title: string, snapshot: string, wiring: Wiring, network: string | null = null): WiringAnswer {
    const id = randomUUID();
    this.db
      .insert(wirings)
      .values({ id, title, snapshot, wiring: { ...wiring, network }, at: this.now().getTime() })
      .run();
    return { id, title, snapshot, network, ...wiring };
  }

  /**
   * Whether two snapshots have the same files, whatever they are called. One that was cleared away is like no other.
   */
  holdSameFiles(one: string, other: string): boolean {
    const [a, b] = [one, other].map((id) =>
      this.db.select().from(snapshots).where(eq(snapshots.id, id)).get(),
    );
    return a !== undefined && b !== undefined && JSON.stringify(a.files) === JSON.stringify(b.files);
  }

  wiring(id: string): WiringAnswer {
    const row = this.db.select().from(wirings).where(eq(wirings.id, id)).get();
    if (!row)
      throw new ServiceError('not-found', `There is no wiring ${id}.`, { fix: 'Plan the wiring again.' });
    const kept = KeptWiring.parse(row.wiring);
    return { id, title: row.title, snapshot: row.snapshot, ...kept };
  }

  /**
   * Keeps the last reading of an edition, and which snapshot the one before was of. A tree may be looked into as it was
   * earlier, which does not show the current state.
   * @param snapshot what was read
   * @returns whether it was kept
   */
  saveReading(title: string, snapshot: string, saved: Reading): boolean {
    const last = this.readings(title).find(({ platform }) => platform === saved.platform);
    if (last && this.isEarlier(snapshot, last.snapshot)) return false;
    const before = last && last.snapshot !== saved.snapshot ? last.snapshot : (last?.before ?? null);
    const reading: Reading = { ...saved, before };
    this.db
      .insert(readings)
      .values({ title, platform: reading.platform, reading })
      .onConflictDoUpdate({ target: [readings.title, readings.platform], set: { reading } })
      .run();
    return true;
  }

  /** Whether the tree of one snapshot was last read or sent before that of another. */
  private isEarlier(one: string, other: string): boolean {
    const before = this.db.$client.prepare(
      'select 1 from snapshots one, snapshots other where one.id = ? and other.id = ? and one.turn < other.turn',
    );
    return before.get(one, other) !== undefined;
  }

  /** The last readings of a title's trees. One in the shape of an earlier version counts as not read yet. */
  readings(title: string): Reading[] {
    const rows = this.db.select().from(readings).where(eq(readings.title, title)).all();
    return rows.flatMap(({ reading }) => Reading.safeParse(reading).data ?? []);
  }

  /** The one snapshot whose name begins so. */
  snapshotId(prefix: string): string {
    const found = this.db
      .select({ id: snapshots.id })
      .from(snapshots)
      .where(like(snapshots.id, `${prefix}%`))
      .limit(2)
      .all();
    const [only, other] = found;
    if (only && !other) return only.id;
    throw new ServiceError(
      'not-found',
      `${other ? 'Several snapshots begin' : 'No snapshot begins'} with ${prefix}.`,
      {
        fix: 'Every check prints the name of its snapshot; use more characters of it.',
      },
    );
  }

  linkedTrees(): StoredTree[] {
    return this.db.select().from(linkedTrees).all();
  }

  /** The linked tree of a title whose files are the same as those of a snapshot. */
  linkedAs(title: string, snapshot: string): { path: string; snapshot: string } | undefined {
    return this.db.$client
      .prepare(
        `select linked.path, linked.snapshot from linked_trees linked
         join snapshots one on one.id = linked.snapshot
         join snapshots other on one.files = other.files and one.folders = other.folders
         where linked.title = ? and other.id = ?`,
      )
      .get(title, snapshot) as { path: string; snapshot: string } | undefined;
  }

  linkedTree(id: string): StoredTree {
    const row = this.db.select().from(linkedTrees).where(eq(linkedTrees.id, id)).get();
    if (!row)
      throw new ServiceError('not-found', `There is no linked tree ${id}.`, {
        fix: 'Link it with syndexa title link.',
      });
    return row;
  }

  link(title: string, path: string): StoredTree {
    const known = this.linkedTrees().find((tree) => tree.path === path && tree.title === title);
    if (known) return known;
    const tree: StoredTree = { id: randomUUID(), title, path, snapshot: null };
    this.db.insert(linkedTrees).values(tree).run();
    return tree;
  }

  setSnapshot(id: string, snapshot: string): void {
    this.db.update(linkedTrees).set({ snapshot }).where(eq(linkedTrees.id, id)).run();
  }

  unlink(id: string): void {
    this.linkedTree(id);
    this.db.delete(linkedTrees).where(eq(linkedTrees.id, id)).run();
  }
}
