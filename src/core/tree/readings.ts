/**
 * What files of given contents say, kept across snapshots: a file that did not change is not read again.
 * Bounded by the length of the files that were read; those that were not asked for longest go first.
 */
export class Readings {
  readonly #kept = new Map<string, { result: unknown; length: number }>();
  readonly #readers = new Map<unknown, number>();
  #length = 0;

  /** @param limit how many bytes of files the kept readings may stand for */
  constructor(private readonly limit: number) {}

  /** The reading of a file by a reader; made when it is not kept. */
  of<Result>(
    reader: unknown,
    { hash, bytes }: { hash: string; bytes: Uint8Array },
    make: () => Result,
  ): Result {
    if (hash === '') return make();
    const number = this.#readers.get(reader) ?? this.#readers.size;
    this.#readers.set(reader, number);
    const key = `${number} ${hash}`;
    const known = this.#kept.get(key);
    if (known) {
      this.#kept.delete(key);
      this.#kept.set(key, known);
      return known.result as Result;
    }
    const result = make();
    this.#kept.set(key, { result, length: bytes.length });
    this.#length += bytes.length;
    for (const [old, { length }] of this.#kept) {
      if (this.#length <= this.limit) break;
      this.#kept.delete(old);
      this.#length -= length;
    }
    return result;
  }
}
