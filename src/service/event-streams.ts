import type { RequestHandler } from 'express';
import type { ServiceContext } from './context.js';
import { startEvents } from './server-events.js';

/** Bytes that a caller may leave unread. */
const maxUnread = 1024 * 1024;

/** Open event streams, so that they can be ended when the service stops. */
export class EventStreams {
  readonly #ends = new Set<() => void>();

  constructor(private readonly context: ServiceContext) {}

  /**
   * Sends every event from now on, for as long as the caller may still see them. A caller that was away says which
   * event it saw last (Last-Event-ID), and is sent what came since, or told to reload.
   */
  open(): RequestHandler {
    const { access, events, version } = this.context;
    return (request, response) => {
      const stream = startEvents(response, this.context);
      const seen = request.get('Last-Event-ID');
      const missed = seen === undefined ? [] : events.after(seen);
      stream.send('hello', { version }, missed?.length ? undefined : events.lastId());
      if (missed === null) stream.send('reload', {});
      for (const { id, event } of missed ?? []) stream.send(event.kind, event, id);
      const stop = events.listen(({ id, event }) => {
        // Events for a caller that does not read them would pile up in memory.
        if (access.stillCounts(request) && response.writableLength < maxUnread)
          stream.send(event.kind, event, id);
        else end();
      });
      const end = () => {
        stop();
        this.#ends.delete(end);
        stream.end();
      };
      this.#ends.add(end);
      response.on('close', end);
    };
  }

  endAll(): void {
    for (const end of [...this.#ends]) end();
  }
}
