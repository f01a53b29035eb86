import type { Connection } from '../live.js';

/** Says when the service is away, and when it is back. */
export function ConnectionNote({ connection }: { connection: Connection }) {
  return (
    <div
      role="status"
      className={connection.is === 'there' ? 'connection' : `connection is-${connection.is}`}
    >
      {connection.is === 'away' &&
        `The service has not responded since ${new Date(connection.since).toLocaleTimeString()}. This page shows earlier data; what you type is kept. Trying again…`}
      {connection.is === 'back' && 'The service is back, and this page is up to date.'}
    </div>
  );
}
