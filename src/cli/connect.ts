import { readFileSync } from 'node:fs';
import { get as httpGet, type Agent } from 'node:http';
import { homedir, userInfo } from 'node:os';
import { join } from 'node:path';
import { Client, keepingAgent } from './client.js';
import { CommandError, exit, type Io } from './io.js';
import { version } from './version.js';

export const usualPort = 4870;
export const usualPartnerPort = 4871;

/** A connection to a service, and how to close it. */
export interface Connection {
  client: Client;
  /** Whether the service runs in this very process, for this one command. */
  own: boolean;
  close: () => Promise<void>;
}

/** The data folder: SYNDEXA_HOME, or a folder of the user's. */
export function homeFolder(env: Io['env']): string {
  if (env.SYNDEXA_HOME) return env.SYNDEXA_HOME;
  return join(env.XDG_DATA_HOME || join(homedir(), '.local', 'share'), 'syndexa');
}

/**
 * Finds the service: the one that SYNDEXA_URL names; else the one that announced itself in the data folder;
 * else, when no data folder is named, one on the usual port. When none answers, the same service is started
 * in this process, on a port of its own, for this one command.
 */
export async function connect(io: Io): Promise<Connection> {
  const who = userName();
  const token = io.env.SYNDEXA_TOKEN || undefined;
  if (token !== undefined && !/^[\w.-]{1,200}$/.test(token))
    throw new CommandError(
      'SYNDEXA_TOKEN is not a token.',
      exit.wrongUse,
      'Set it to the text that syndexa token add printed, without spaces around it.',
    );
  const named = io.env.SYNDEXA_URL;
  if (named) {
    if (!/^https?:\/\/[^\s/@?#]+\/?$/.test(named)) {
      throw new CommandError(
        `SYNDEXA_URL is ${JSON.stringify(named)}, which is not the address of a service.`,
        exit.wrongUse,
        'Use http://127.0.0.1:PORT, or https://HOST for a service of your team.',
      );
    }
    const url = named.replace(/\/$/, '');
    const agent = await keepingAgent(url);
    const found = await health(url, agent);
    if (!found)
      throw new CommandError(
        `No service answers at ${url}.`,
        exit.unreachable,
        'Start it with syndexa serve, or leave SYNDEXA_URL unset.',
      );
    return remote(new Client(url, who, { roots: found.roots, agent, token }));
  }
  const home = homeFolder(io.env);
  const candidates = [announced(home), io.env.SYNDEXA_HOME ? undefined : `http://127.0.0.1:${usualPort}`];
  for (const url of new Set(candidates)) {
    const agent = url ? await keepingAgent(url) : undefined;
    const found = url ? await health(url, agent) : null;
    if (url && agent && found) return remote(new Client(url, who, { roots: found.roots, agent, token }));
  }
  const { openHome } = await import('../disk/home/home-folder.js');
  for (const says of openHome(home)) io.err(`▲ ${says}\n`);
  const { startService } = await import('../service/boot.js');
  const service = await startService({ home, port: 0, version, brief: true, env: io.env });
  const client = new Client(service.url, who, { own: true });
  return {
    client,
    own: true,
    async close() {
      client.close();
      await service.close();
    },
  };
}

/** Finds the service, does some work with it, and lets go of it whatever happens. */
export async function withService<Result>(
  io: Io,
  work: (client: Client) => Promise<Result>,
): Promise<Result> {
  const { client, close } = await connect(io);
  try {
    return await work(client);
  } finally {
    await close();
  }
}

function remote(client: Client): Connection {
  return {
    client,
    own: false,
    close() {
      client.close();
      return Promise.resolve();
    },
  };
}

function announced(home: string): string | undefined {
  try {
    const card: unknown = JSON.parse(readFileSync(join(home, 'service.json'), 'utf8'));
    if (card && typeof card === 'object' && 'url' in card && typeof card.url === 'string') return card.url;
  } catch {
    // No service announced itself here, or its card is damaged: look elsewhere.
  }
  return undefined;
}

/** Whether a Syndexa service answers at an address, within half a second. */
export async function answers(url: string): Promise<boolean> {
  return (await health(url)) !== null;
}

/** What a service says of itself; null when none answers in time: half a second on this machine. */
async function health(url: string, agent?: Agent): Promise<{ roots: string[] } | null> {
  const secure = url.startsWith('https:');
  const get = secure ? (await import('node:https')).get : httpGet;
  // Another machine answers later than this one.
  const timeout = /^http:\/\/(127\.|localhost|\[::1\])/.test(url) ? 500 : 5_000;
  return new Promise((resolve) => {
    const call = get(`${url}/healthz`, { timeout, ...(agent && { agent }) }, (response) => {
      let text = '';
      response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk.slice(0, 100_000)));
      response.on('end', () => resolve(healthOf(text)));
      response.on('error', () => resolve(null));
    });
    call.on('timeout', () => call.destroy());
    call.on('error', () => resolve(null));
  });
}

function healthOf(text: string): { roots: string[] } | null {
  if (!text.includes('"service":"syndexa"')) return null;
  try {
    const { roots } = JSON.parse(text) as { roots?: unknown };
    return { roots: Array.isArray(roots) ? roots.map(String) : [] };
  } catch {
    return null;
  }
}

function userName(): string {
  try {
    return userInfo().username;
  } catch {
    return 'unknown';
  }
}
