import type { ReadingWatch } from '../core/tree/tree.js';

const counterBytes = 4;
const hashLength = 64;

/**
 * Memory that a worker shares with whoever watches it: which file is being read. The watcher sees it even while the
 * worker is busy, or its parser hangs.
 */
export class ReadingCell implements ReadingWatch {
  /** Odd while a file is being read. */
  readonly #counter: Int32Array;
  readonly #hash: Uint8Array;

  constructor(readonly memory = new SharedArrayBuffer(counterBytes + hashLength)) {
    this.#counter = new Int32Array(memory, 0, 1);
    this.#hash = new Uint8Array(memory, counterBytes, hashLength);
  }

  begins(hash: string): void {
    for (let at = 0; at < hashLength; at++) this.#hash[at] = hash.charCodeAt(at) || 0;
    Atomics.add(this.#counter, 0, 1);
  }

  ends(): void {
    Atomics.add(this.#counter, 0, 1);
  }

  /** The reading under way, told from any other one; undefined between readings. */
  get reading(): number | undefined {
    const count = Atomics.load(this.#counter, 0);
    return count % 2 === 0 ? undefined : count;
  }

  /** The hash of the file that was read last, or is being read. */
  get hash(): string {
    return String.fromCharCode(...this.#hash.filter((code) => code !== 0));
  }
}
