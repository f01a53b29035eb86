import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeFolder, writePrivate } from '../home/home-folder.js';

/** A simulated partner that runs in a process of its own. */
export interface PartnerProcess extends PartnerCard {
  close(): Promise<void>;
}

/** Where a partner is, and what opens its control calls. */
export interface PartnerCard {
  url: string;
  token: string;
}

/** Why a partner did not start, or does not answer. */
export class PartnerProcessError extends Error {
  override readonly name = 'PartnerProcessError';

  constructor(
    readonly kind: 'not-built' | 'port-taken' | 'not-started' | 'unreachable' | 'refused',
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

const cardName = 'partner.json';

export interface PartnerStart {
  /** The data folder; the profiles of its owner are in it. */
  home: string;
  port: number;
  seed?: number;
  /** Where its books are kept: in the data folder, or in memory, for a partner that nobody else is to find. */
  books: 'kept' | 'in-memory';
  /** Forgets the books of an earlier run. */
  fresh?: boolean;
}

/**
 * Starts a partner beside this process. Where its books are kept, its card is left in the data folder, so that commands
 * find it.
 * @throws PartnerProcessError
 */
export async function startPartnerProcess(options: PartnerStart): Promise<PartnerProcess> {
  const { home, port, seed = 1, books, fresh = false } = options;
  const folder = join(home, 'partner');
  if (fresh) rmSync(folder, { recursive: true, force: true });
  makeFolder(home);
  const args = [
    ['--port', String(port)],
    books === 'kept' ? ['--folder', folder] : [],
    ['--seed', String(seed)],
    ['--profiles', join(home, 'profiles')],
  ].flat();
  const child = spawn(process.execPath, [bundlePath(), ...args], {
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  });
  const card = await firstLine(child, port);
  const path = join(home, cardName);
  if (books === 'kept') writePrivate(path, JSON.stringify(card));
  return {
    ...card,
    async close() {
      if (books === 'kept') rmSync(path, { force: true });
      if (child.exitCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
    },
  };
}

/** The built partner: beside this bundle, or where the build of the sources puts it. */
function bundlePath(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  const built = join('dist', 'node', 'partner.cjs');
  const found = [
    join(here, 'partner.cjs'),
    join(here, '..', '..', built),
    join(here, '..', '..', '..', built),
  ].find((path) => existsSync(path));
  if (found !== undefined) return found;
  throw new PartnerProcessError('not-built', 'The partner is not built.');
}

function firstLine(child: ChildProcess, port: number): Promise<PartnerCard> {
  return new Promise((resolve, reject) => {
    let out = '';
    let err = '';
    child.stderr?.on('data', (chunk: Buffer) => (err += chunk.toString('utf8')));
    child.stdout?.on('data', (chunk: Buffer) => {
      out += chunk.toString('utf8');
      if (out.includes('\n')) resolve(JSON.parse(out.split('\n', 1)[0] ?? '') as PartnerCard);
    });
    child.once('exit', () => {
      const isTaken = err.includes('EADDRINUSE');
      const message = isTaken ? `Port ${port} is taken.` : `The partner did not start: ${err.trim()}`;
      reject(new PartnerProcessError(isTaken ? 'port-taken' : 'not-started', message));
    });
  });
}

/** Where the partner of a data folder, or of the demo below it, is; undefined where none announced itself. */
export function partnerCardIn(home: string): PartnerCard | undefined {
  for (const folder of [home, join(home, 'demo')]) {
    try {
      const card: unknown = JSON.parse(readFileSync(join(folder, cardName), 'utf8'));
      if (card && typeof card === 'object' && 'url' in card && 'token' in card) return card as PartnerCard;
    } catch {
      // No partner announced itself here, or its card is damaged.
    }
  }
  return undefined;
}

/**
 * One control call of the partner.
 * @throws PartnerProcessError if it cannot be reached, or refuses
 */
export async function controlPartnerAt(card: PartnerCard, name: string, body: unknown): Promise<unknown> {
  const response = await askPartnerAt(card, `control/${name}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Control-Token': card.token },
    body: JSON.stringify(body),
  });
  const answer = (await response.json()) as { error?: { message?: string; field?: string } };
  if (response.ok) return answer;
  const { field, message = String(response.status) } = answer.error ?? {};
  throw new PartnerProcessError('refused', `The partner refuses it: ${field ? `${field}: ` : ''}${message}`);
}

/**
 * One call of the partner, whatever it answers.
 * @throws PartnerProcessError if it cannot be reached
 */
export async function askPartnerAt({ url }: PartnerCard, path: string, call: RequestInit): Promise<Response> {
  try {
    return await fetch(`${url}/${path}`, { ...call, signal: AbortSignal.timeout(30_000) });
  } catch (error) {
    throw new PartnerProcessError('unreachable', `The partner at ${url} cannot be reached.`, {
      cause: error,
    });
  }
}
