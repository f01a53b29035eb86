import type { RequestHandler } from 'express';
import type { Log } from './log.js';
import type { Upkeep } from './store/upkeep.js';

/** How often (milliseconds) the database is checked. */
const every = 10 * 60_000;
/** How long (ms) without a request before the work starts, so that requests do not wait for it. */
const quiet = 60_000;

/** Tidies the record up when nobody asks for anything. */
export class UpkeepTimer {
  #lastRequest = 0;
  #timer: NodeJS.Timeout | undefined;
  #busy: Promise<void> | undefined;

  constructor(
    private readonly upkeep: Upkeep,
    private readonly log: Log,
  ) {}

  start(): void {
    this.#timer = setInterval(() => void this.look(), every).unref();
  }

  /** Records a request. */
  noteRequests(): RequestHandler {
    return (_request, _response, next) => {
      this.#lastRequest = performance.now();
      next();
    };
  }

  /** Stops. A command's own service, which has no timer, tidies up now if it is due. */
  async close(): Promise<void> {
    if (!this.#timer && this.upkeep.isDue()) await this.tidy();
    clearInterval(this.#timer);
    await this.#busy;
  }

  private async look(): Promise<void> {
    if (this.#busy || performance.now() - this.#lastRequest < quiet || !this.upkeep.isDue()) return;
    this.#busy = this.tidy();
    await this.#busy;
    this.#busy = undefined;
  }

  private async tidy(): Promise<void> {
    try {
      const removed = await this.upkeep.tidy(() => new Promise((resolve) => setImmediate(resolve)));
      const shrunk = performance.now() - this.#lastRequest > quiet && this.upkeep.giveBack();
      this.log.info({ ...removed, shrunk }, 'The database was cleaned up.');
    } catch (error) {
      // Another process writes, or the disk is full: next time.
      this.log.warn({ err: error }, 'The database could not be cleaned up.');
    }
  }
}
