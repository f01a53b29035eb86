import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { writePrivate } from '../disk/home/home-folder.js';
import { atomically, type Db } from './store/open.js';

/** How long the service of another card is waited for (ms). */
const patience = 1_500;

/** Another service runs on the same data folder. */
export class ServiceRunningError extends Error {
  override readonly name = 'ServiceRunningError';

  constructor(
    readonly url: string,
    readonly pid: number,
  ) {
    super(`A service is already running on this data folder: ${url} (process ${pid}).`);
  }
}

/** The card by which commands find the service of a data folder. There is one at a time, and each removes only its own. */
export class ServiceCard {
  readonly #path: string;
  readonly #text: string;

  constructor(
    home: string,
    private readonly db: Db,
    url: string,
  ) {
    this.#path = join(home, 'service.json');
    this.#text = JSON.stringify({ url, pid: process.pid });
  }

  /**
   * Puts the card in its place; one that a service left behind which no longer answers is replaced.
   * @throws ServiceRunningError
   */
  async put(): Promise<void> {
    for (;;) {
      const found = read(this.#path);
      await demandStale(found);
      // Of two services that start at once, the second finds another card than the one that it looked into.
      const isPut = atomically(this.db, () => {
        if (read(this.#path) !== found) return false;
        writePrivate(this.#path, this.#text);
        return true;
      });
      if (isPut) return;
    }
  }

  remove(): void {
    atomically(this.db, () => {
      if (read(this.#path) === this.#text) rmSync(this.#path, { force: true });
    });
  }
}

function read(path: string): string | null {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return null;
  }
}

async function demandStale(text: string | null): Promise<void> {
  const card = cardIn(text);
  if (card && isAlive(card.pid) && (await answers(card.url)))
    throw new ServiceRunningError(card.url, card.pid);
}

function cardIn(text: string | null): { url: string; pid: number } | null {
  try {
    const { url, pid } = JSON.parse(text ?? '') as { url?: unknown; pid?: unknown };
    return typeof url === 'string' && typeof pid === 'number' ? { url, pid } : null;
  } catch {
    return null;
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // Another user's process is there too.
    return error instanceof Error && 'code' in error && error.code === 'EPERM';
  }
}

/** Whether a service answers. One that is too busy to answer in time does run. */
async function answers(url: string): Promise<boolean> {
  try {
    const answer = await fetch(`${url}/healthz`, { signal: AbortSignal.timeout(patience) });
    return (await answer.text()).includes('"service":"syndexa"');
  } catch (error) {
    return error instanceof Error && error.name === 'TimeoutError';
  }
}
