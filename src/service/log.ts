import type { Logger } from 'pino';

/** What the service logs through: a pino logger, or nothing. */
export type Log = Pick<Logger, 'info' | 'warn' | 'error'>;

const say = () => undefined;

/** Says nothing; a service for one command has no log, and need not load what writes one. */
export const silentLog: Log = { info: say, warn: say, error: say };
