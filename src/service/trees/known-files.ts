import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CollectPlan } from '../../api/trees.js';
import type { FileTimes } from './native-walk.js';

/** Lists that are kept at once; those that were used least lately go first. */
const maxLists = 40;

/**
 * A file that was changed so shortly (milliseconds) before it was looked at may change again without its times
 * telling: it is not taken for known.
 */
const tooFresh = 2_000;

/** How many bytes there are of each part of an entry: the length of the path, the four times, the mark, the hash. */
const bytesOf = { length: 2, times: 32, mark: 1, hash: 32 } as const;

interface Entry {
  times: FileTimes;
  /** Null when the file does not matter. */
  hash: string | null;
}

/**
 * What the files of one folder were when they were last looked at, kept between two runs, so that what has not
 * changed is not read again. A list that cannot be read, or was made for another plan, counts as none. It is kept
 * as the walk in machine code reads it (`native/known.h`): for each file the length of its path, the path, its
 * times, and 0 when it does not matter, or 1 and its hash; numbers as this machine has them, for no other reads it.
 */
export class KnownFiles {
  #before: ReadonlyMap<string, Entry> | undefined;
  readonly #now: Buffer[] = [];
  readonly #started = Date.now();

  private constructor(
    private readonly path: string,
    private readonly plan: string,
    /** The list as it was kept. */
    readonly list: Buffer,
  ) {}

  /**
   * The list of a folder.
   * @param lists the folder in which lists are kept
   * @param root real path of the tree
   */
  static open(lists: string, root: string, plan: CollectPlan): KnownFiles {
    const planHash = digest(JSON.stringify(plan));
    const path = join(lists, `${digest(`${planHash} ${root}`).slice(0, 40)}.list`);
    return new KnownFiles(path, planHash, readList(path, planHash));
  }

  /** Files that were changed later (milliseconds since 1970) are not taken for known. */
  get tooFresh(): number {
    return this.#started - tooFresh;
  }

  /** The hash of a file that is as it was; a null hash when it did not matter. Nothing when it has to be read. */
  recall(path: string, times: FileTimes): { hash: string | null } | undefined {
    this.#before ??= entriesOf(this.list);
    const entry = this.#before.get(path);
    if (!entry) return undefined;
    const { size, changed, entered, number } = entry.times;
    const same =
      size === times.size &&
      changed === times.changed &&
      entered === times.entered &&
      number === times.number;
    return same ? { hash: entry.hash } : undefined;
  }

  /** Takes down what a file was found to be; with a null hash, that it does not matter. */
  remember(path: string, times: FileTimes, hash: string | null): void {
    const name = Buffer.from(path);
    if (name.length > 0xffff || Math.max(times.changed, times.entered) > this.tooFresh) return;
    const length = new Uint16Array([name.length]);
    const numbers = new Float64Array([times.size, times.changed, times.entered, times.number]);
    this.#now.push(Buffer.from(length.buffer), name, Buffer.from(numbers.buffer));
    this.#now.push(hash === null ? Buffer.of(0) : Buffer.concat([Buffer.of(1), Buffer.from(hash, 'hex')]));
  }

  /** Takes entries down that are written as a list already. */
  rememberAll(entries: Buffer): void {
    this.#now.push(entries);
  }

  /**
   * Keeps the list for the next time; a folder that cannot be written to costs time, and nothing else.
   * @param read how many files had to be read, for with none the list is as it was
   */
  save(read: number): void {
    const list = Buffer.concat([Buffer.from(headOf(this.plan)), ...this.#now]);
    if (read === 0 && list.length === headOf(this.plan).length + this.list.length) return;
    const lists = join(this.path, '..');
    const draft = `${this.path}.${process.pid}`;
    try {
      mkdirSync(lists, { recursive: true });
      writeFileSync(draft, list, { mode: 0o600 });
      renameSync(draft, this.path);
      dropOldest(lists);
    } catch {
      rmSync(draft, { force: true });
    }
  }
}

/** What a list begins with, by which it is known for one, and for which plan. */
function headOf(plan: string): string {
  return `syndexa known files 2 ${plan}\n`;
}

function readList(path: string, plan: string): Buffer {
  try {
    const bytes = readFileSync(path);
    const head = Buffer.from(headOf(plan));
    if (bytes.subarray(0, head.length).equals(head)) return bytes.subarray(head.length);
  } catch {
    // There is none yet, or it cannot be read.
  }
  return Buffer.alloc(0);
}

/** The entries of a list; none of one that is damaged. */
function entriesOf(list: Buffer): Map<string, Entry> {
  const entries = new Map<string, Entry>();
  let at = 0;
  const take = (length: number) => list.subarray(at, (at += length));
  while (at < list.length) {
    const length = take(bytesOf.length);
    const path = take(length.length === bytesOf.length ? (new Uint16Array(copyOf(length))[0] ?? 0) : 0);
    const numbers = take(bytesOf.times);
    const mark = take(bytesOf.mark)[0];
    const hash = mark === 1 ? take(bytesOf.hash) : null;
    if (at > list.length) return new Map();
    const [size = 0, changed = 0, entered = 0, number = 0] = new Float64Array(copyOf(numbers));
    const times = { size, changed, entered, number };
    entries.set(path.toString('utf8'), { times, hash: hash && hash.toString('hex') });
  }
  return entries;
}

/** Bytes that begin where numbers may begin. */
function copyOf(bytes: Buffer): ArrayBuffer {
  return new Uint8Array(bytes).buffer;
}

function dropOldest(lists: string): void {
  const all = readdirSync(lists).map((name) => join(lists, name));
  if (all.length <= maxLists) return;
  const byAge = all.map((path) => ({ path, time: statSync(path).mtimeMs })).sort((a, b) => b.time - a.time);
  for (const { path } of byAge.slice(maxLists)) rmSync(path, { force: true });
}

function digest(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}
