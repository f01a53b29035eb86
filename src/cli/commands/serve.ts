import { once } from 'node:events';
import { resolve } from 'node:path';
import { pino } from 'pino';
import { startService, type RunningService } from '../../service/boot.js';
import { homeFolder } from '../connect.js';
import { CommandError, exit, type Io } from '../io.js';
import { version } from '../version.js';

export interface ServeOptions {
  port: number;
  root?: string[];
  logLevel: string;
  listen?: string;
  requireToken?: boolean;
  hostName?: string[];
  behindProxy?: boolean;
}

/** Starts the service, or says what is in the way. */
export async function start(io: Io, home: string, options: ServeOptions): Promise<RunningService> {
  const log = pino({ level: options.logLevel, base: null }, { write: (line: string) => io.err(line) });
  try {
    return await startService({
      home,
      port: options.port,
      ...(options.listen === undefined ? {} : { listen: options.listen }),
      requireToken: options.requireToken ?? false,
      hostNames: options.hostName ?? [],
      behindProxy: options.behindProxy ?? false,
      roots: (options.root ?? []).map((root) => resolve(io.cwd, root)),
      announce: true,
      version,
      log,
      env: io.env,
    });
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (error instanceof Error && error.name === 'NoTokensError')
      throw new CommandError(
        message,
        exit.wrongUse,
        'Create a token first: syndexa token add NAME --role viewer|editor|admin.',
      );
    if (error instanceof Error && error.name === 'ServiceRunningError')
      throw new CommandError(
        message,
        exit.refused,
        'Use that one, or stop it first. To run a second service, set SYNDEXA_HOME to another data folder.',
      );
    if (code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND')
      throw new CommandError(
        `${options.listen ?? ''} is not an address of this machine.`,
        exit.wrongUse,
        'Name an address of one of its interfaces, or 0.0.0.0 for all of them.',
      );
    if (code === 'EADDRINUSE')
      throw new CommandError(
        `Port ${options.port} is in use.`,
        exit.unreachable,
        'Choose another: --port 4880.',
      );
    if (code === 'ENOENT') throw new CommandError(message, exit.wrongUse, 'Name folders that exist.');
    throw error;
  }
}

/** Resolves at SIGINT or SIGTERM. Call it before the address is printed, so that an early signal is not missed. */
export function stopSignal(): Promise<unknown> {
  return Promise.race([once(process, 'SIGINT'), once(process, 'SIGTERM')]);
}

/** `syndexa serve`. */
export async function serve(io: Io, options: ServeOptions): Promise<number> {
  const stopped = stopSignal();
  const service = await start(io, homeFolder(io.env), options);
  io.out(`Syndexa is at ${service.url}\n`);
  await stopped;
  await service.close();
  return exit.clean;
}
