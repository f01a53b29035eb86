/** Where readings are kept beyond this process. They are plain data. */
export interface ReadingShelf {
  /** The reading of a file's contents, by the reader's name and their hash; undefined when it is not there. */
  take(reader: string, hash: string): unknown;
  keep(reader: string, hash: string, reading: unknown): void;
}

/** Whether a reading may be kept beyond this process: one with problems may have run out of time, not of sense. */
function isLasting(reading: unknown): boolean {
  const { problems } = (reading ?? {}) as { problems?: readonly unknown[] };
  return problems === undefined || problems.length === 0;
}

/**
 * A reading is dropped when this many trees in a row did not need it: its file changed, or its tree is no longer read.
 */
const maxTrees = 100;

/**
 * What files of given contents say, kept across snapshots: a file that did not change is not read again.
 * Bounded by the total length of those files, and by how many trees in a row did not need a reading. The least recently
 * used readings are dropped first.
 */
export class Readings {
  readonly #names: ReadonlyMap<unknown, string>;
  readonly #shelf: ReadingShelf | undefined;
  readonly #kept = new Map<string, { result: unknown; length: number; tree: number }>();
  readonly #readers = new Map<unknown, number>();
  #length = 0;
  #tree = 0;

  /**
   * @param limit the size (bytes) of files whose readings are cached
   * @param lasting readers whose readings are stored beyond this process, by name, and where
   */
  constructor(
    private readonly limit: number,
    lasting?: { names: ReadonlyMap<unknown, string>; shelf: ReadingShelf },
  ) {
    this.#names = lasting?.names ?? new Map();
    this.#shelf = lasting?.shelf;
  }

  /** Marks the start of another tree. */
  beginTree(): void {
    this.#tree += 1;
    this.trim();
  }

  /** Whether a reading is at hand, so that nothing has to be made ready for it. */
  has(reader: unknown, { hash, bytes }: { hash: string; bytes: Uint8Array }): boolean {
    if (hash === '') return false;
    const key = this.key(reader, hash);
    if (this.recall(key)) return true;
    const taken = this.take(reader, hash);
    if (taken === undefined) return false;
    this.keep(key, taken, bytes.length);
    return true;
  }

  /** The reading of a file by a reader; made when it is not kept. */
  of<Result>(
    reader: unknown,
    { hash, bytes }: { hash: string; bytes: Uint8Array },
    make: () => Result,
  ): Result {
    if (hash === '') return make();
    const key = this.key(reader, hash);
    const known = this.recall(key);
    if (known) return known.result as Result;
    const taken = this.take(reader, hash);
    if (taken !== undefined) {
      this.keep(key, taken, bytes.length);
      return taken as Result;
    }
    const result = make();
    this.keep(key, result, bytes.length);
    const name = this.#names.get(reader);
    if (name !== undefined && isLasting(result)) this.#shelf?.keep(name, hash, result);
    return result;
  }

  private key(reader: unknown, hash: string): string {
    const number = this.#readers.get(reader) ?? this.#readers.size;
    this.#readers.set(reader, number);
    return `${number} ${hash}`;
  }

  private take(reader: unknown, hash: string): unknown {
    const name = this.#names.get(reader);
    return name === undefined ? undefined : this.#shelf?.take(name, hash);
  }

  /** A kept reading, marked as used by the current tree. */
  private recall(key: string): { result: unknown } | undefined {
    const known = this.#kept.get(key);
    if (!known) return undefined;
    this.#kept.delete(key);
    this.#kept.set(key, { ...known, tree: this.#tree });
    return known;
  }

  private keep(key: string, result: unknown, length: number): void {
    this.#kept.set(key, { result, length, tree: this.#tree });
    this.#length += length;
    this.trim();
  }

  private trim(): void {
    for (const [key, { length, tree }] of this.#kept) {
      if (this.#length <= this.limit && this.#tree - tree <= maxTrees) break;
      this.#kept.delete(key);
      this.#length -= length;
    }
  }
}
