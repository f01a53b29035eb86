import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writePrivate } from '../disk/home/home-folder.js';
import { makeFolder } from '../disk/home/home-folder.js';
import { CommandError, exit } from './io.js';

/** A simulated partner that runs in a process of its own. */
export interface PartnerProcess extends PartnerCard {
  close(): Promise<void>;
}

/** Where a partner is, and what opens its control calls. */
export interface PartnerCard {
  url: string;
  token: string;
}

const cardName = 'partner.json';

/** Starts the partner beside this process; its books and its card are kept in the data folder. */
export async function startPartnerProcess(options: {
  home: string;
  port: number;
  seed?: number;
  /** Forgets the books of an earlier run. */
  fresh?: boolean;
}): Promise<PartnerProcess> {
  const { home, port, seed = 1, fresh = false } = options;
  const here = dirname(fileURLToPath(import.meta.url));
  const bundle = [join(here, 'partner.cjs'), join(here, '..', '..', 'dist', 'node', 'partner.cjs')].find(
    (path) => existsSync(path),
  );
  if (bundle === undefined)
    throw new CommandError('The partner is not built.', exit.wrongUse, 'Run npm run build.');
  const folder = join(home, 'partner');
  if (fresh) rmSync(folder, { recursive: true, force: true });
  makeFolder(home);
  const args = [
    '--port',
    String(port),
    '--folder',
    folder,
    '--seed',
    String(seed),
    '--profiles',
    join(home, 'profiles'),
  ];
  const child = spawn(process.execPath, [bundle, ...args], { stdio: ['ignore', 'pipe', 'pipe', 'ipc'] });
  const card = await firstLine(child, port);
  const path = join(home, cardName);
  writePrivate(path, JSON.stringify(card));
  return {
    ...card,
    async close() {
      rmSync(path, { force: true });
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
    },
  };
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
      const taken = err.includes('EADDRINUSE');
      const what = taken ? `Port ${port} is taken.` : `The partner did not start: ${err.trim()}`;
      reject(new CommandError(what, exit.unreachable, taken ? 'Give another: --port 4881.' : undefined));
    });
  });
}

/** The partner that runs with a data folder, or with the demo below it; an error that says how to start one when there is none. */
export function partnerCard(home: string): PartnerCard {
  const card = partnerCardIfAny(home);
  if (card) return card;
  throw new CommandError(
    'No simulated partner runs here.',
    exit.unreachable,
    'Start it: syndexa partner start.',
  );
}

/** Where the partner of a data folder is; undefined where none announced itself. */
export function partnerCardIfAny(home: string): PartnerCard | undefined {
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

/** One control call of the partner. */
export async function controlPartner(card: PartnerCard, path: string, body: unknown): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(`${card.url}/control/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Control-Token': card.token },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(30_000),
    });
  } catch {
    throw new CommandError(
      `The partner at ${card.url} cannot be reached.`,
      exit.unreachable,
      'Start it: syndexa partner start.',
    );
  }
  const answer = (await response.json()) as { error?: { message?: string } };
  if (!response.ok)
    throw new CommandError(
      `The partner refuses it: ${answer.error?.message ?? response.status}`,
      exit.refused,
    );
  return answer;
}
