/** Wrong tokens that one address may try in a window. */
const maxAttempts = 10;
/** In milliseconds. */
const window = 60_000;
const maxAddresses = 10_000;

/** Counts the wrong tokens that came from each address. */
export class Attempts {
  readonly #failed = new Map<string, { count: number; until: number }>();

  constructor(private readonly now: () => Date) {}

  /** How long (seconds) an address has to wait; 0 when it may try. */
  waitFor(address: string): number {
    const failed = this.#failed.get(address);
    const left = failed ? failed.until - this.now().getTime() : 0;
    if (left <= 0) this.#failed.delete(address);
    return failed && failed.count >= maxAttempts && left > 0 ? Math.ceil(left / 1000) : 0;
  }

  fail(address: string): void {
    const failed = this.#failed.get(address) ?? { count: 0, until: this.now().getTime() + window };
    failed.count++;
    this.#failed.set(address, failed);
    const [oldest] = this.#failed.keys();
    if (this.#failed.size > maxAddresses && oldest !== undefined) this.#failed.delete(oldest);
  }
}
