import { lstatSync, realpathSync, type Stats } from 'node:fs';
import { setImmediate as yieldToEventLoop } from 'node:timers/promises';
import { counted } from '../core/text/counted.js';
import type { CollectPlan, SnapshotManifest } from '../api/trees.js';
import { reasonOf, TreeUnreadableError } from './errors.js';
import { Needles } from './find-needles.js';
import { hashOf } from './hash.js';
import { timesOf, type KnownFiles } from './known-files.js';
import { listFolder, type DiskPath, type Entry } from './listing.js';
import { readFile } from './read-file.js';
import type { ReadingOptions } from './reading.js';
import { skippedFolders, type SkippedFolders } from './skipped-folders.js';
import { matcherOf, type FileMatcher } from './wanted-files.js';

export { TreeUnreadableError } from './errors.js';

/** A file that matters, with its hash. */
export interface CollectedFile {
  path: string;
  hash: string;
  /** In bytes. */
  size: number;
  /** Its content. A file that was known from an earlier run is read only now, and may have changed since. */
  bytes: () => Buffer;
}

export interface Collected {
  files: CollectedFile[];
  folders: string[];
  skipped: SnapshotManifest['skipped'];
  /** How many files the tree holds, those that do not matter included. */
  seen: number;
  /** How many of them were read. */
  read: number;
  /** Whether files were left out because the tree has too many, or too large ones. */
  limited: boolean;
}

export interface CollectOptions extends ReadingOptions {
  known?: KnownFiles | undefined;
}

const maxDepth = 64;
/** The walk yields to the event loop after this many milliseconds, because the service has others to answer. */
const patience = 25;

/**
 * Reads the files of a tree that matter. Symbolic links are followed only to files inside the tree. What cannot be
 * read, or is too large, is reported and skipped. A file that `known` has seen as it is now is not read again.
 * File system calls are synchronous, which is several times faster for many small files.
 * @throws TreeUnreadableError when the folder itself cannot be read
 */
export async function collectTree(
  root: string,
  plan: CollectPlan,
  options: CollectOptions = {},
): Promise<Collected> {
  return new Collector(openFolder(root), plan, options).run();
}

/**
 * Reads only some paths of a collected tree again; a path of a folder stands for everything below it. Returns the whole
 * tree as it is now.
 */
export async function recollectTree(
  root: string,
  plan: CollectPlan,
  before: Collected,
  paths: Iterable<string>,
): Promise<Collected> {
  return new Collector(openFolder(root), plan, {}).again(before, [...new Set(paths)]);
}

/** The real path of the folder of a tree. */
function openFolder(root: string): string {
  let base: string;
  let isFolder: boolean;
  try {
    base = realpathSync(root);
    isFolder = lstatSync(base).isDirectory();
  } catch (error) {
    throw new TreeUnreadableError(`${root} cannot be read: ${reasonOf(error)}.`, { cause: error });
  }
  if (!isFolder) throw new TreeUnreadableError(`${root} is not a folder.`);
  return base;
}

/** What a path is, without following it; undefined when it is not there. */
function statOf(path: string): Stats | undefined {
  try {
    return lstatSync(path);
  } catch {
    return undefined;
  }
}

const byPath = (a: { path: string }, b: { path: string }): number => (a.path < b.path ? -1 : 1);

/** A file to read, and where it lies. */
interface Wanted {
  path: string;
  at: DiskPath;
}

class Collector {
  private readonly result: Collected = {
    files: [],
    folders: [],
    skipped: [],
    seen: 0,
    read: 0,
    limited: false,
  };
  private readonly needles: Needles;
  private readonly match: FileMatcher;
  private readonly skip: SkippedFolders;
  /** The ends of paths by which folders are reported. */
  private readonly ends: readonly string[];
  /** Files to read whatever they hold, and files to keep only when they hold a needle. */
  private readonly wanted: Wanted[] = [];
  private readonly searched: Wanted[] = [];
  private lastYield = performance.now();

  constructor(
    private readonly base: string,
    private readonly plan: CollectPlan,
    private readonly options: CollectOptions,
  ) {
    this.needles = new Needles(plan.needles);
    this.match = matcherOf(plan);
    this.skip = skippedFolders(plan);
    this.ends = plan.folders.map((folder) => `/${folder}`);
  }

  async run(): Promise<Collected> {
    await this.walk('', this.base);
    return this.finish();
  }

  /** The files of an earlier run, except those at or below some paths, which are looked at again. */
  async again(before: Collected, paths: readonly string[]): Promise<Collected> {
    const touched = (path: string) => paths.some((each) => path === each || path.startsWith(`${each}/`));
    this.result.files.push(...before.files.filter(({ path }) => !touched(path)));
    this.result.folders.push(...before.folders.filter((path) => !touched(path)));
    this.result.skipped.push(...before.skipped.filter(({ path }) => !touched(path)));
    this.result.seen = before.seen;
    const outer = paths.filter((path) => !paths.some((other) => path.startsWith(`${other}/`)));
    for (const path of outer) await this.lookAt(path);
    return this.finish();
  }

  private async lookAt(path: string): Promise<void> {
    const parts = path.split('/');
    const at = (length: number) => `${this.base}/${parts.slice(0, length).join('/')}`;
    if (parts.some((_, index) => this.skip.at(at(index + 1)))) return;
    const stats = statOf(at(parts.length));
    if (!stats) return;
    if (stats.isDirectory()) {
      this.noteFolder(path);
      await this.walk(path, at(parts.length));
    } else {
      const kind = stats.isFile() ? 'file' : stats.isSymbolicLink() ? 'link' : 'other';
      const entry: Entry = { name: parts.at(-1) ?? '', at: at(parts.length), kind, hidden: false };
      this.see(path, parts.at(-2) ?? '', entry);
    }
  }

  private async finish(): Promise<Collected> {
    for (const [files, onlyWithNeedle] of [
      [this.wanted, false],
      [this.searched, true],
    ] as const)
      for (const file of files) {
        this.options.signal?.throwIfAborted();
        this.take(file, onlyWithNeedle);
        await this.yieldIfDue();
      }
    this.result.files.sort(byPath);
    this.limit();
    this.result.skipped.sort(byPath);
    this.result.folders.sort();
    return this.result;
  }

  /** Drops the files beyond the limit for one tree. One entry stands for all of them. */
  private limit(): void {
    const { maxFiles, maxTreeBytes } = this.plan;
    const { files } = this.result;
    let size = 0;
    const fits = files.findIndex((file, at) => at >= maxFiles || (size += file.size) > maxTreeBytes);
    if (fits < 0) return;
    const [first, ...others] = files.splice(fits);
    if (!first) return;
    this.result.limited = true;
    const bound = fits >= maxFiles ? `${maxFiles} files` : `${Math.floor(maxTreeBytes / 1_048_576)} MB`;
    const more = others.length > 0 ? `this file and ${others.length} after it are` : 'this file is';
    this.leaveOut(first.path, `the tree has more than ${bound} that matter, so ${more} left out`);
  }

  private async walk(path: string, at: DiskPath): Promise<void> {
    const waiting = [{ path, at, depth: path === '' ? 0 : path.split('/').length }];
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const { path: folder, at, depth } = next;
      const parent = folder.slice(folder.lastIndexOf('/') + 1);
      const entries = this.list(folder, at);
      const names = () => entries.map(({ name }) => name);
      for (const entry of entries) {
        const path = folder === '' ? entry.name : `${folder}/${entry.name}`;
        if (entry.hidden) this.leaveOut(path, 'another name in this folder is written the same way');
        else if (entry.kind !== 'folder') this.see(path, parent, entry);
        else if (!this.skip.among(entry.name, names)) {
          if (depth >= maxDepth) this.leaveOut(path, `folders are nested more than ${maxDepth} deep`);
          else waiting.push({ path, at: entry.at, depth: depth + 1 });
          this.noteFolder(path);
        }
      }
      this.options.signal?.throwIfAborted();
      await this.yieldIfDue();
    }
  }

  private noteFolder(path: string): void {
    if (this.ends.some((end) => `/${path}`.endsWith(end))) this.result.folders.push(path);
  }

  private list(folder: string, at: DiskPath): Entry[] {
    try {
      return listFolder(at);
    } catch (error) {
      if (folder !== '') this.leaveOut(folder, reasonOf(error));
      return [];
    }
  }

  private see(path: string, parent: string, { name, at, kind }: Entry): void {
    this.result.seen++;
    const match = this.match(name, parent);
    if (!match || kind === 'other') return;
    const file = kind === 'link' ? this.targetOf(path, at) : at;
    if (file !== undefined) (match === 'always' ? this.wanted : this.searched).push({ path, at: file });
  }

  /** The file inside the tree that a link leads to. */
  private targetOf(path: string, at: DiskPath): DiskPath | undefined {
    try {
      const target = realpathSync(at, { encoding: 'buffer' });
      if (target.toString('latin1').startsWith(`${Buffer.from(this.base).toString('latin1')}/`))
        return lstatSync(target).isFile() ? target : undefined;
      this.leaveOut(path, 'it is a symbolic link that leads out of the tree');
    } catch {
      this.leaveOut(path, 'it is a symbolic link that leads nowhere');
    }
    return undefined;
  }

  private take({ path, at }: Wanted, onlyWithNeedle: boolean): void {
    const { known } = this.options;
    const { maxFileBytes } = this.plan;
    try {
      const times = timesOf(lstatSync(at));
      const hash = known?.recall(path, times);
      if (hash !== undefined) {
        known?.remember(path, times, hash);
        if (hash !== null) this.keep(path, hash, times.size, () => Buffer.from(readFile(at, maxFileBytes)));
        return;
      }
      this.result.read++;
      if (times.size > maxFileBytes)
        return this.leaveOut(path, `it has ${times.size} bytes, and files over ${maxFileBytes} are left out`);
      const read = readFile(at, maxFileBytes);
      if (onlyWithNeedle && !this.needles.standIn(read)) return known?.remember(path, times, null);
      const bytes = Buffer.from(read);
      const fresh = hashOf(bytes);
      this.keep(path, fresh, bytes.length, () => bytes);
      known?.remember(path, times, fresh);
    } catch (error) {
      this.leaveOut(path, reasonOf(error));
    }
  }

  private keep(path: string, hash: string, size: number, bytes: () => Buffer): void {
    this.result.files.push({ path, hash, size, bytes });
  }

  private leaveOut(path: string, reason: string): void {
    this.result.skipped.push({ path, reason: `Not read: ${reason}.` });
  }

  private async yieldIfDue(): Promise<void> {
    if (performance.now() - this.lastYield < patience) return;
    const { seen, read } = this.result;
    const doing = `reading the tree: ${counted(seen, 'file')} seen, ${counted(read, 'file')} read`;
    this.options.progress?.({ doing, done: 0, total: 0 });
    await yieldToEventLoop();
    this.lastYield = performance.now();
  }
}
