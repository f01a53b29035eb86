/** The partner's clock: it runs with the machine's from the time it was set to, or is stopped. */
export class PartnerClock {
  #base: number;
  #since: number;
  #runs = true;

  constructor(private readonly machine: () => number = Date.now) {
    this.#since = machine();
    this.#base = this.#since;
  }

  now(): Date {
    return new Date(this.#base + (this.#runs ? this.machine() - this.#since : 0));
  }

  /** Sets the time; with `stands`, the clock stops there until it is set again. */
  set(time: Date, stands: boolean): void {
    this.#base = time.getTime();
    this.#since = this.machine();
    this.#runs = !stands;
  }

  /** Moves the time on. */
  advance(seconds: number): void {
    this.set(new Date(this.now().getTime() + seconds * 1000), !this.#runs);
  }
}
