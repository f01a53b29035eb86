import { createHash, randomBytes } from 'node:crypto';

/** How long (milliseconds) a person stays signed in. */
const lasts = 12 * 60 * 60 * 1000;
const maxSessions = 1_000;

/**
 * The people who are signed in to the console. A session holds the hash of the token that opened it, and every request
 * looks that token up again, so revoking it ends the session. They live in memory: who was signed in when the service
 * stops signs in again.
 */
export class Sessions {
  readonly #open = new Map<string, { hash: string; until: number }>();

  constructor(private readonly now: () => Date) {}

  /**
   * @param hash of the token that opens it
   * @returns the name of the session, which only the browser knows besides
   */
  open(hash: string): string {
    const name = randomBytes(32).toString('base64url');
    this.#open.set(keyOf(name), { hash, until: this.now().getTime() + lasts });
    const [oldest] = this.#open.keys();
    if (this.#open.size > maxSessions && oldest !== undefined) this.#open.delete(oldest);
    return name;
  }

  /** The hash of the token that opened a session; undefined when there is no such session any more. */
  hashOf(name: string): string | undefined {
    const session = this.#open.get(keyOf(name));
    if (session && session.until > this.now().getTime()) return session.hash;
    this.#open.delete(keyOf(name));
    return undefined;
  }

  close(name: string): void {
    this.#open.delete(keyOf(name));
  }
}

function keyOf(name: string): string {
  return createHash('sha256').update(name).digest('hex');
}
