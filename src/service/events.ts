import { EventEmitter } from 'node:events';

/** Something that changed, of interest to whoever looks at it. */
export type ServiceEvent =
  { kind: 'title'; title: string } | { kind: 'reading'; title: string } | { kind: 'roster' };

/** Hands changes on to everybody who listens. */
export class Events {
  readonly #emitter = new EventEmitter().setMaxListeners(0);

  tell(event: ServiceEvent): void {
    this.#emitter.emit('event', event);
  }

  listen(listener: (event: ServiceEvent) => void): () => void {
    this.#emitter.on('event', listener);
    return () => this.#emitter.off('event', listener);
  }
}
