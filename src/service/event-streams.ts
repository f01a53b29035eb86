import type { RequestHandler } from 'express';
import type { ServiceContext } from './context.js';
import { startEvents } from './server-events.js';

/** Streams of events that are open, so that they can be ended when the service stops. */
export class EventStreams {
  readonly #ends = new Set<() => void>();

  constructor(private readonly context: ServiceContext) {}

  /** Sends every event from now on, for as long as the caller may still see them. */
  open(): RequestHandler {
    const { access, events, version } = this.context;
    return (request, response) => {
      const send = startEvents(response, this.context);
      send('hello', { version });
      const stop = events.listen((event) => {
        if (access.stillCounts(request)) send(event.kind, event);
        else end();
      });
      const end = () => {
        stop();
        this.#ends.delete(end);
        response.end();
      };
      this.#ends.add(end);
      request.on('close', end);
    };
  }

  endAll(): void {
    for (const end of [...this.#ends]) end();
  }
}
