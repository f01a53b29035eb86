import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { keys } from './queries.js';

/** Whether the service is there; since when it is not (ms), or that it came back a moment ago. */
export type Connection = { is: 'there' } | { is: 'away'; since: number } | { is: 'back' };

/** A stream that the browser has given up is opened again after so long (ms). */
const pause = 2_000;
/** So long it is said that the service came back (ms). */
const shownBack = 6_000;
/** The list of all titles is asked for once for all changes in so long (ms): it is long. */
const gathering = 1_500;

/**
 * Asks again for what changed, as the service tells of it. While the service is away it is tried again and again; once it
 * is back, everything that is shown is asked for anew.
 */
export function useLiveChanges(): Connection {
  const client = useQueryClient();
  const [connection, setConnection] = useState<Connection>({ is: 'there' });
  useEffect(() => {
    let events: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isAway = false;
    const portfolio = gathered(() => void client.invalidateQueries({ queryKey: keys.portfolio }));
    const open = () => {
      events = new EventSource('/api/v1/events');
      events.addEventListener('open', () => {
        if (!isAway) return;
        isAway = false;
        void client.invalidateQueries();
        setConnection({ is: 'back' });
        setTimeout(() => setConnection((now) => (now.is === 'back' ? { is: 'there' } : now)), shownBack);
      });
      events.addEventListener('error', () => {
        if (!isAway) setConnection({ is: 'away', since: Date.now() });
        isAway = true;
        if (events?.readyState !== EventSource.CLOSED) return;
        // A proxy that answers for the service ends the stream for good.
        clearTimeout(timer);
        timer = setTimeout(open, pause);
      });
      for (const kind of ['title', 'reading', 'roster'])
        events.addEventListener(kind, (event: MessageEvent<string>) => {
          refresh(client, (JSON.parse(event.data) as { title?: string }).title);
          portfolio.ask();
        });
      events.addEventListener('reload', () => void client.invalidateQueries());
    };
    open();
    return () => {
      clearTimeout(timer);
      portfolio.end();
      events?.close();
    };
  }, [client]);
  return connection;
}

function refresh(client: QueryClient, title: string | undefined): void {
  const stale =
    title === undefined
      ? [['title'], ['board'], ['steps']]
      : [keys.title(title), keys.board(title), keys.steps(title), keys.tally];
  for (const queryKey of [keys.titles, keys.trees, ['trace'], ...stale])
    void client.invalidateQueries({ queryKey });
}

/** Does something once for all calls within some time. */
function gathered(work: () => void): { ask: () => void; end: () => void } {
  let timer: ReturnType<typeof setTimeout> | undefined;
  return {
    ask: () =>
      (timer ??= setTimeout(() => {
        timer = undefined;
        work();
      }, gathering)),
    end: () => clearTimeout(timer),
  };
}
