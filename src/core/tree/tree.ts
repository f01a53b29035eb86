import { decodeText, NotTextError, type TextDocument } from '../text/document.js';
import type { ProblemKind, ReadProblem } from '../text/problem.js';
import { ParserBrokenError, withoutSyntax, type Syntax } from '../syntax/grammars.js';
import type { Readings } from './readings.js';
import { conflictIn } from '../text/conflicts.js';

const unmerged =
  'Two versions of these lines were not merged, and the markers of the conflict are still there.';

/** A file of a snapshot, its bytes at hand. */
export interface TreeFile {
  path: string;
  hash: string;
  bytes: Uint8Array;
}

/** A file that the collector saw and left out, with the reason. */
export interface SkippedFile {
  path: string;
  reason: string;
}

/** A fault in a file, as people count lines and columns. */
export interface TreeProblem {
  path: string;
  line: number;
  column: number;
  kind: ProblemKind;
  message: string;
}

/** Is called when the reading of a file begins and ends, so that a watcher knows which file takes too long. */
export interface ReadingWatch {
  begins(hash: string): void;
  ends(): void;
}

/** How a file that took too long is read later: without its syntax tree, or not at all. */
export type CostlyFile = 'without-syntax' | 'not-at-all';

/** What a tree is read with, and what was seen of it besides its files. */
export interface TreeOptions {
  /** Parses source files; it has the grammars that the tree needs. */
  syntax: Syntax;
  folders?: readonly string[];
  skipped?: readonly SkippedFile[];
  /** Readings of files that may be used again; without it every file is read again. */
  readings?: Readings | undefined;
  /** Files whose reading took too long before, by the hash of their contents. */
  costly?: ReadonlyMap<string, CostlyFile> | undefined;
  watch?: ReadingWatch | undefined;
}

/** A reader of one format. Problems are in UTF-16 offsets of the text. */
export type Reader<Result> = (text: string, syntax: Syntax) => Result;

/** The files of a tree that matter. Paths use `/` and are relative to the tree's root. */
export class Tree {
  readonly paths: readonly string[];
  readonly problems: TreeProblem[] = [];
  readonly #files: ReadonlyMap<string, TreeFile>;
  readonly #documents = new Map<string, TextDocument | null>();
  readonly #parsed = new Map<unknown, Map<string, unknown>>();
  readonly #worked = new Map<string, unknown>();

  readonly syntax: Syntax;
  readonly folders: readonly string[];
  readonly skipped: readonly SkippedFile[];
  readonly readings: Readings | undefined;
  readonly costly: ReadonlyMap<string, CostlyFile>;
  readonly watch: ReadingWatch | undefined;

  constructor(files: Iterable<TreeFile>, options: TreeOptions) {
    const { syntax, folders = [], skipped = [], readings, costly = new Map(), watch } = options;
    this.costly = costly;
    this.watch = watch;
    this.syntax = syntax;
    this.folders = folders;
    this.skipped = skipped;
    this.readings = readings;
    this.#files = new Map([...files].map((file) => [file.path, file]));
    this.paths = [...this.#files.keys()].sort();
    for (const { path, reason } of skipped) this.report(path, 'not-read', reason);
  }

  has(path: string): boolean {
    return this.#files.has(path);
  }

  file(path: string): TreeFile | undefined {
    return this.#files.get(path);
  }

  /** The text of a file; undefined if it does not exist or is not text (which is reported as a problem). */
  text(path: string): TextDocument | undefined {
    const known = this.#documents.get(path);
    if (known !== undefined) return known ?? undefined;
    const file = this.#files.get(path);
    if (!file) return undefined;
    try {
      const decode = () => decodeText(file.bytes);
      const document = this.readings ? this.readings.of(decodeText, file, decode) : decode();
      this.#documents.set(path, document);
      return document;
    } catch (error) {
      if (!(error instanceof NotTextError)) throw error;
      this.#documents.set(path, null);
      this.report(path, 'not-text', `${error.message} (Byte ${error.offset}.)`);
      return undefined;
    }
  }

  /** Reads a file with a format's reader, once; the reader's problems become the tree's. */
  read<Result extends { problems: ReadProblem[] }>(path: string, reader: Reader<Result>): Result | undefined {
    const results = this.#parsed.get(reader) ?? new Map<string, unknown>();
    this.#parsed.set(reader, results);
    const known = results.get(path);
    if (known !== undefined) return (known as Result | null) ?? undefined;
    const document = this.text(path);
    const file = this.#files.get(path);
    if (!document || !file) return undefined;
    let result: Result;
    try {
      if (this.costly.get(file.hash) === 'not-at-all') throw new TooCostlyError('reading it takes too long');
      const make = () => this.watched(file, () => reader(document.text, this.syntaxFor(file)));
      result = this.readings ? this.readings.of(reader, file, make) : make();
    } catch (error) {
      if (error instanceof ParserBrokenError) throw error;
      // One file that a reader fails on must not keep the others from being read.
      this.report(path, 'not-read', `Not read: ${whyNotRead(error)}.`);
      results.set(path, null);
      return undefined;
    }
    results.set(path, result);
    const conflict = conflictIn(document.text);
    if (conflict !== undefined) {
      // Whatever else a reader says of such a file follows from this.
      if (!this.problems.some((one) => one.path === path && one.kind === 'conflict'))
        this.report(path, 'conflict', unmerged, document.lines.at(conflict));
      return result;
    }
    for (const { kind = 'syntax', message, start } of result.problems)
      this.report(path, kind, message, document.lines.at(start));
    return result;
  }

  /** Reads a file that is not text, once; the reader's problems become the tree's. */
  readBytes<Result extends { problems: ReadProblem[] }>(
    path: string,
    reader: (bytes: Uint8Array) => Result,
  ): Result | undefined {
    const file = this.#files.get(path);
    if (!file) return undefined;
    const results = this.#parsed.get(reader) ?? new Map<string, unknown>();
    this.#parsed.set(reader, results);
    if (!results.has(path)) {
      const result = this.watched(file, () => reader(file.bytes));
      results.set(path, result);
      for (const { kind = 'syntax', message } of result.problems) this.report(path, kind, message);
    }
    return results.get(path) as Result;
  }

  private report(path: string, kind: ProblemKind, message: string, at = { line: 1, column: 1 }): void {
    this.problems.push({ path, ...at, kind, message });
  }

  private watched<Result>({ hash }: TreeFile, make: () => Result): Result {
    this.watch?.begins(hash);
    try {
      return make();
    } finally {
      this.watch?.ends();
    }
  }

  private syntaxFor({ hash }: TreeFile): Syntax {
    return this.costly.has(hash) ? withoutSyntax : this.syntax;
  }

  /** Works something out about the tree once; the key says what. */
  once<Value>(key: string, make: () => Value): Value {
    if (!this.#worked.has(key)) this.#worked.set(key, make());
    return this.#worked.get(key) as Value;
  }

  /** Whether anything is below a folder. */
  hasFolder(folder: string): boolean {
    const prefix = `${folder}/`;
    return this.folders.includes(folder) || this.paths.some((path) => path.startsWith(prefix));
  }
}

class TooCostlyError extends Error {}

function whyNotRead(error: unknown): string {
  if (error instanceof TooCostlyError) return error.message;
  return error instanceof RangeError ? 'it is nested too deep' : `a fault of the reader: ${String(error)}`;
}
