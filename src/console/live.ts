import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { keys } from './queries.js';

/** Whether the service answers. `since` is when it stopped (ms); `back` lasts a few seconds after it returned. */
export type Connection = { is: 'there' } | { is: 'away'; since: number } | { is: 'back' };

/** How long to wait before opening a stream again that the browser has closed (ms). */
const pause = 2_000;
/** How long the page says that the service is back (ms). */
const shownBack = 6_000;
/** The list of all titles is long, so changes within this time (ms) cause one request together. */
const gathering = 1_500;

/**
 * Reloads what changed, as the service reports it. While the service is away, the stream is opened again and again;
 * when it returns, the page reloads everything that it shows.
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

/** Results that depend on all titles, the profiles and the publisher. */
const acrossTitles = [
  keys.networks,
  ['network'],
  ['publisher'],
  ['app-ads'],
  ['attribution'],
  ['tags'],
  ['secrets'],
];

function refresh(client: QueryClient, title: string | undefined): void {
  const stale =
    title === undefined
      ? [['title'], ['board'], ['steps']]
      : [keys.title(title), keys.board(title), keys.steps(title), keys.tally];
  for (const queryKey of [keys.titles, keys.trees, ['trace'], ...acrossTitles, ...stale])
    void client.invalidateQueries({ queryKey });
}

/** Runs `work` once for all calls within that time. */
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
