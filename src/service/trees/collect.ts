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
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { setImmediate as breathe } from 'node:timers/promises';
import { getSystemErrorMap } from 'node:util';
import type { CollectPlan, SnapshotManifest } from '../../api/trees.js';
import { Needles, readWhole } from './find-needles.js';
import type { KnownFiles } from './known-files.js';
import { nativeWalk, type FileTimes, type Walk, type Walked } from './native-walk.js';
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
  /** How many of them were read. */
  read: number;
}

const maxDepth = 64;
/** The event loop is let go on after so many milliseconds, for the service has others to answer. */
const patience = 25;

/** Thrown when the folder itself cannot be read. */
export class TreeUnreadableError extends Error {}

/**
 * Reads the files of a tree that matter. Symbolic links are followed only to files inside the tree; what
 * cannot be read, or is too large, is said and passed over. A file that `known` has seen as it is now is not read
 * again. This is done in machine code on threads of its own, where the build could make that; else here, with
 * synchronous calls, which are several times quicker for many small files, the event loop being let go on in
 * between. Both find the same.
 */
export async function collectTree(
  root: string,
  plan: CollectPlan,
  { known, threads, walk = nativeWalk() }: CollectOptions = {},
): Promise<Collected> {
  const base = openFolder(root);
  return walk ? collectBy(walk, base, plan, known, threads) : new Collector(base, plan, known).run();
}

export interface CollectOptions {
  known?: KnownFiles | undefined;
  /** How many threads may walk the tree; as many as there are processors when it is left out. */
  threads?: number | undefined;
  /** The walk in machine code; null does without. */
  walk?: Walk | null;
}

/** The most threads that walk a tree: more only wait for the same disk. */
const maxThreads = 8;

async function collectBy(
  walk: Walk,
  base: string,
  plan: CollectPlan,
  known: KnownFiles | undefined,
  threads = availableParallelism(),
): Promise<Collected> {
  const { always, others } = rulesOf(plan);
  const walked = await walk({
    base,
    names: always,
    rules: others,
    needles: plan.needles,
    skipFolders: plan.skipFolders,
    skipBeside: plan.skipBeside,
    ends: endsOf(plan),
    maxFileBytes: plan.maxFileBytes,
    maxDepth,
    threads: Math.min(threads, maxThreads),
    ...(known && { known: known.list, tooFresh: known.tooFresh }),
  });
  known?.rememberAll(walked.dull);
  const files = walked.files.map(({ path, bytes, hash: knownHash, ...times }): CollectedFile => {
    const hash = bytes ? hashOf(bytes) : (knownHash?.toString('hex') ?? '');
    known?.remember(path, times, hash);
    return bytes
      ? { path, hash, size: bytes.length, bytes: () => bytes }
      : { path, hash, size: times.size, bytes: () => readFileSync(`${base}/${path}`) };
  });
  const skipped = walked.leftOut.map((each) => ({ path: each.path, reason: leftOutFor(each, plan) }));
  return inOrder({ files, folders: walked.folders, skipped, seen: walked.seen, read: walked.read });
}

/** Why a file was left out, in words. */
function leftOutFor({ reason, detail }: Walked['leftOut'][number], plan: CollectPlan): string {
  if (reason === 'too-large') return notRead(tooLarge(detail, plan));
  return notRead(reason === 'system' ? systemReason(detail) : words[reason]);
}

const words = {
  'too-deep': `folders are nested more than ${maxDepth} deep`,
  'leads-out': 'it is a symbolic link that leads out of the tree',
  'leads-nowhere': 'it is a symbolic link that leads nowhere',
} as const;

function tooLarge(bytes: number, { maxFileBytes }: CollectPlan): string {
  return `it has ${bytes} bytes, and files over ${maxFileBytes} are left out`;
}

function notRead(reason: string): string {
  return `Not read: ${reason}.`;
}

function inOrder(collected: Collected): Collected {
  const byPath = (a: { path: string }, b: { path: string }) => (a.path < b.path ? -1 : 1);
  collected.files.sort(byPath);
  collected.skipped.sort(byPath);
  collected.folders.sort();
  return collected;
}

function hashOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** The ends of paths by which folders are told. */
function endsOf(plan: CollectPlan): string[] {
  return plan.folders.map((folder) => `/${folder}`);
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
  private readonly result: Collected = { files: [], folders: [], skipped: [], seen: 0, read: 0 };
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
    this.ends = endsOf(plan);
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
    return inOrder(this.result);
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
          if (depth >= maxDepth) this.leaveOut(path, words['too-deep']);
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
      this.leaveOut(path, words['leads-out']);
    } catch {
      this.leaveOut(path, words['leads-nowhere']);
    }
    return false;
  }

  private take(path: string, onlyWithNeedle: boolean): void {
    const whole = `${this.base}/${path}`;
    try {
      const times = this.known && timesOf(statSync(whole));
      const seen = times && this.known?.recall(path, times);
      if (seen) {
        const { hash } = seen;
        this.known?.remember(path, times, hash);
        if (hash !== null)
          this.result.files.push({ path, hash, size: times.size, bytes: () => readFileSync(whole) });
        return;
      }
      const read = readWhole(whole, this.plan.maxFileBytes);
      this.result.read++;
      if ('tooLarge' in read) {
        this.leaveOut(path, tooLarge(read.tooLarge, this.plan));
      } else if (!onlyWithNeedle || this.needles.standIn(read.bytes)) {
        const bytes = Buffer.from(read.bytes);
        const hash = hashOf(bytes);
        this.result.files.push({ path, hash, size: bytes.length, bytes: () => bytes });
        if (times) this.known?.remember(path, times, hash);
      } else if (times) this.known?.remember(path, times, null);
    } catch (error) {
      this.leaveOut(path, reasonOf(error));
    }
  }

  private leaveOut(path: string, reason: string): void {
    this.result.skipped.push({ path, reason: notRead(reason) });
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

/** Names that are wanted whatever the files hold, and the rules that ask for more. */
function rulesOf({ rules }: CollectPlan): { always: string[]; others: CollectPlan['rules'] } {
  const plain = ({ name, suffix, parent, needle }: CollectPlan['rules'][number]) =>
    name !== undefined && suffix === undefined && parent === undefined && needle !== true;
  return {
    always: rules.flatMap((rule) => (plain(rule) && rule.name !== undefined ? [rule.name] : [])),
    others: rules.filter((rule) => !plain(rule) && (rule.name !== undefined || rule.suffix !== undefined)),
  };
}

/** Tells by a file's name, and its folder's, whether it is wanted: always, or when it holds a needle. */
function matcher(plan: CollectPlan): (name: string, parent: string) => 'always' | 'needle' | null {
  const { always, others } = rulesOf(plan);
  const names = new Set(always);
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
  if (error instanceof Error && 'errno' in error) return systemReason(Math.abs(Number(error.errno)));
  return error instanceof Error ? error.message : String(error);
}

/** An error of the system by its number (positive), in words. */
function systemReason(number: number): string {
  const [code, text] = getSystemErrorMap().get(-number) ?? [`error ${number}`, 'unknown'];
  return reasons[code] ?? `${code}: ${text}`;
}

function timesOf({ size, mtimeMs, ctimeMs, ino }: Stats): FileTimes {
  return { size, changed: mtimeMs, entered: ctimeMs, number: ino };
}
