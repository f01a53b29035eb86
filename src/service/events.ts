import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { ServiceEvent } from '../api/events.js';

/** So many events are kept for listeners that were away. */
const kept = 1_000;

/** An event, with what names its place among all events. */
export interface NumberedEvent {
  id: string;
  event: ServiceEvent;
}

/** Hands changes on to everybody who listens, and to whoever was away for a while. */
export class Events {
  readonly #emitter = new EventEmitter().setMaxListeners(0);
  /** Tells the events of this run of the service from those of another. */
  readonly #run = randomUUID().slice(0, 8);
  readonly #latest: NumberedEvent[] = [];
  #count = 0;

  tell(event: ServiceEvent): void {
    this.#count += 1;
    const numbered = { id: `${this.#run}-${this.#count}`, event };
    this.#latest.push(numbered);
    if (this.#latest.length > kept) this.#latest.shift();
    this.#emitter.emit('event', numbered);
  }

  /** The ID of the last event; what somebody who begins to listen now has seen. */
  lastId(): string {
    return `${this.#run}-${this.#count}`;
  }

  /** What came after an event; null when that cannot be determined: it was too long ago, or in another run. */
  after(id: string): NumberedEvent[] | null {
    const [run, number] = id.split('-');
    const seen = Number(number);
    const missed = this.#count - seen;
    if (run !== this.#run || !Number.isSafeInteger(seen) || missed < 0 || missed > this.#latest.length)
      return null;
    return missed === 0 ? [] : this.#latest.slice(-missed);
  }

  listen(listener: (event: NumberedEvent) => void): () => void {
    this.#emitter.on('event', listener);
    return () => this.#emitter.off('event', listener);
  }
}
