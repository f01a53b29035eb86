import { createHash } from 'node:crypto';
import {
  lstatSync,
  readdirSync,
  readFileSync,
  realpathSync,
  statSync,
  type Dirent,
  type Stats,
} from 'node:fs';
import { join } from 'node:path';
import { setImmediate as breathe } from 'node:timers/promises';
import type { CollectPlan, SnapshotManifest } from '../../api/trees.js';
import { Needles, readWhole } from './find-needles.js';
import type { KnownFiles } from './known-files.js';
import { skippedFolders, type SkippedFolders } from './skipped-folders.js';

/** A file that matters, with its hash. */
export interface CollectedFile {
  path: string;
  hash: string;
  /** In bytes. */
  size: number;
  /** What it holds. A file that was known from an earlier time is read only now, and may have changed since. */
  bytes: () => Buffer;
}

export interface Collected {
  files: CollectedFile[];
  folders: string[];
  skipped: SnapshotManifest['skipped'];
  /** How many files the tree holds, those that do not matter included. */
  seen: number;
}

const maxDepth = 64;
/** The event loop is let go on after so many milliseconds, for the service has others to answer. */
const patience = 25;

/** Thrown when the folder itself cannot be read. */
export class TreeUnreadableError extends Error {}

/**
 * Reads the files of a tree that matter. Symbolic links are followed only to files inside the tree; what
 * cannot be read, or is too large, is said and passed over. Calls to the file system are synchronous, which
 * is several times quicker for many small files; the event loop is let go on in between. A file that `known`
 * has seen as it is now is not read again.
 */
export async function collectTree(root: string, plan: CollectPlan, known?: KnownFiles): Promise<Collected> {
  return new Collector(openFolder(root), plan, known).run();
}

/**
 * Looks again at some paths of a tree that was collected before, and at nothing else; a path that is a folder
 * stands for all that lies in it. Gives the whole tree as it is now.
 */
export async function recollectTree(
  root: string,
  plan: CollectPlan,
  before: Collected,
  paths: Iterable<string>,
): Promise<Collected> {
  return new Collector(openFolder(root), plan).again(before, [...new Set(paths)]);
}

/** Whether a file of this name, in a folder of this name, may matter to a plan. */
export function mayMatter(plan: CollectPlan): (name: string, parent: string) => boolean {
  const match = matcher(plan);
  return (name, parent) => match(name, parent) !== null;
}

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

/** What a path is, without following it; nothing when it is not there. */
function statOf(path: string): Stats | undefined {
  try {
    return lstatSync(path);
  } catch {
    return undefined;
  }
}

/** What is asked of a name in a folder. */
type Entry = Pick<Dirent, 'name' | 'isFile' | 'isSymbolicLink'>;

function kindOf(stats: Stats): Pick<Entry, 'isFile' | 'isSymbolicLink'> {
  return { isFile: () => stats.isFile(), isSymbolicLink: () => stats.isSymbolicLink() };
}

class Collector {
  private readonly result: Collected = { files: [], folders: [], skipped: [], seen: 0 };
  private readonly needles: Needles;
  private readonly match: ReturnType<typeof matcher>;
  private readonly skip: SkippedFolders;
  private readonly ends: readonly string[];
  /** Files to read whatever they hold, and files to keep only when they hold a needle. */
  private readonly wanted: string[] = [];
  private readonly searched: string[] = [];
  private lastBreath = performance.now();

  constructor(
    private readonly base: string,
    private readonly plan: CollectPlan,
    private readonly known?: KnownFiles,
  ) {
    this.needles = new Needles(plan.needles);
    this.match = matcher(plan);
    this.skip = skippedFolders(plan);
    this.ends = plan.folders.map((folder) => `/${folder}`);
  }

  async run(): Promise<Collected> {
    await this.walk('');
    return this.finish();
  }

  /** The files of an earlier run, but for those at or below some paths, which are looked at anew. */
  async again(before: Collected, paths: readonly string[]): Promise<Collected> {
    const touched = (path: string) => paths.some((each) => path === each || path.startsWith(`${each}/`));
    this.result.files.push(...before.files.filter(({ path }) => !touched(path)));
    this.result.folders.push(...before.folders.filter((path) => !touched(path)));
    this.result.skipped.push(...before.skipped.filter(({ path }) => !touched(path)));
    this.result.seen = before.seen;
    const outer = paths.filter((path) => !paths.some((other) => path.startsWith(`${other}/`)));
    for (const path of outer) {
      const parts = path.split('/');
      const isSkipped = (_: string, at: number) =>
        this.skip.at(`${this.base}/${parts.slice(0, at + 1).join('/')}`);
      if (parts.some(isSkipped)) continue;
      const entry = statOf(`${this.base}/${path}`);
      if (!entry) continue;
      if (entry.isDirectory()) {
        if (this.ends.some((end) => `/${path}`.endsWith(end))) this.result.folders.push(path);
        await this.walk(path);
      } else this.see(path, parts.at(-2) ?? '', { name: parts.at(-1) ?? '', ...kindOf(entry) });
    }
    return this.finish();
  }

  private async finish(): Promise<Collected> {
    for (const path of this.wanted) {
      this.take(path, false);
      if (this.impatient()) await this.letOthersGoOn();
    }
    for (const path of this.searched) {
      this.take(path, true);
      if (this.impatient()) await this.letOthersGoOn();
    }
    const byPath = (a: { path: string }, b: { path: string }) => (a.path < b.path ? -1 : 1);
    this.result.files.sort(byPath);
    this.result.skipped.sort(byPath);
    this.result.folders.sort();
    return this.result;
  }

  private async walk(from: string): Promise<void> {
    const waiting: { folder: string; depth: number }[] = [
      { folder: from, depth: from === '' ? 0 : from.split('/').length },
    ];
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const { folder, depth } = next;
      const parent = folder.slice(folder.lastIndexOf('/') + 1);
      const entries = this.list(folder);
      const names = () => entries.map(({ name }) => name);
      for (const entry of entries) {
        const path = folder === '' ? entry.name : `${folder}/${entry.name}`;
        if (!entry.isDirectory()) this.see(path, parent, entry);
        else if (!this.skip.among(entry.name, names)) {
          if (depth >= maxDepth) this.leaveOut(path, `folders are nested more than ${maxDepth} deep`);
          else waiting.push({ folder: path, depth: depth + 1 });
          if (this.ends.some((end) => `/${path}`.endsWith(end))) this.result.folders.push(path);
        }
      }
      if (this.impatient()) await this.letOthersGoOn();
    }
  }

  private list(folder: string): Dirent[] {
    try {
      return readdirSync(`${this.base}/${folder}`, { withFileTypes: true });
    } catch (error) {
      if (folder !== '') this.leaveOut(folder, reasonOf(error));
      return [];
    }
  }

  private see(path: string, parent: string, entry: Entry): void {
    this.result.seen++;
    const match = this.match(entry.name, parent);
    if (!match) return;
    if (entry.isSymbolicLink() ? !this.leadsInside(path) : !entry.isFile()) return;
    (match === 'always' ? this.wanted : this.searched).push(path);
  }

  private leadsInside(path: string): boolean {
    try {
      const target = realpathSync(join(this.base, path));
      if (target.startsWith(`${this.base}/`)) return lstatSync(target).isFile();
      this.leaveOut(path, 'it is a symbolic link that leads out of the tree');
    } catch {
      this.leaveOut(path, 'it is a symbolic link that leads nowhere');
    }
    return false;
  }

  private take(path: string, onlyWithNeedle: boolean): void {
    const whole = `${this.base}/${path}`;
    try {
      const stats = this.known && statSync(whole);
      const seen = stats && this.known?.recall(path, stats);
      if (seen) {
        if (seen.hash === null) return;
        const { hash } = seen;
        this.result.files.push({ path, hash, size: stats.size, bytes: () => readFileSync(whole) });
        return;
      }
      const read = readWhole(whole, this.plan.maxFileBytes);
      if ('tooLarge' in read) {
        this.leaveOut(
          path,
          `it has ${read.tooLarge} bytes, and files over ${this.plan.maxFileBytes} are left out`,
        );
      } else if (!onlyWithNeedle || this.needles.standIn(read.bytes)) {
        const bytes = Buffer.from(read.bytes);
        const hash = createHash('sha256').update(bytes).digest('hex');
        this.result.files.push({ path, hash, size: bytes.length, bytes: () => bytes });
        if (stats) this.known?.remember(path, stats, hash);
      } else if (stats) this.known?.remember(path, stats, null);
    } catch (error) {
      this.leaveOut(path, reasonOf(error));
    }
  }

  private leaveOut(path: string, reason: string): void {
    this.result.skipped.push({ path, reason: `Not read: ${reason}.` });
  }

  /** Whether the event loop has waited long enough. Asked for each file, so it is no promise. */
  private impatient(): boolean {
    return performance.now() - this.lastBreath >= patience;
  }

  private async letOthersGoOn(): Promise<void> {
    await breathe();
    this.lastBreath = performance.now();
  }
}

/** Extensions beyond these are looked up anew each time. */
const maxExtensions = 2_000;

function extensionOf(name: string): string {
  const dot = name.lastIndexOf('.');
  return dot < 0 ? '' : name.slice(dot);
}

/** Tells by a file's name, and its folder's, whether it is wanted: always, or when it holds a needle. */
function matcher(plan: CollectPlan): (name: string, parent: string) => 'always' | 'needle' | null {
  const names = new Set(plan.rules.flatMap((rule) => (rule.name && !rule.needle ? [rule.name] : [])));
  const others = plan.rules.filter((rule) => rule.suffix !== undefined || (rule.name && rule.needle));
  // A name that ends as a rule says has the rule's own extension, so that few rules are left to try.
  const byExtension = new Map<string, typeof others>();
  const near = (name: string) => {
    const extension = extensionOf(name);
    const known = byExtension.get(extension);
    if (known) return known;
    const mine = others.filter(({ suffix, name: whole }) => {
      const end = suffix ?? whole ?? '';
      return (suffix !== undefined && !end.includes('.')) || extensionOf(end) === extension;
    });
    if (byExtension.size < maxExtensions) byExtension.set(extension, mine);
    return mine;
  };
  return (name, parent) => {
    if (names.has(name)) return 'always';
    let found: 'needle' | null = null;
    for (const { name: whole, suffix, parent: start, needle } of near(name)) {
      if (suffix !== undefined && !name.endsWith(suffix)) continue;
      if (whole !== undefined && whole !== name) continue;
      if (start !== undefined && parent !== start && !parent.startsWith(`${start}-`)) continue;
      if (!needle) return 'always';
      found = 'needle';
    }
    return found;
  };
}

const reasons: Record<string, string> = {
  EACCES: 'permission denied',
  EPERM: 'permission denied',
  ENOENT: 'it is not there',
  EISDIR: 'it is a folder',
  ENOTDIR: 'it is not a folder',
  ELOOP: 'its links go round in a circle',
};

function reasonOf(error: unknown): string {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  return reasons[code] ?? (error instanceof Error ? error.message : String(error));
}
