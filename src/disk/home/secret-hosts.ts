import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writePrivate } from './home-folder.js';

/** A host to which a secret may be sent. */
export interface ApprovedHost {
  secret: string;
  host: string;
  /** Null approves the usual port of https only. */
  port: number | null;
}

/**
 * A host as it is written: `inventory.marlstone.example`, or with its port `127.0.0.1:4871`, `[::1]:4871`.
 * @returns undefined if it is not a host
 */
export function parseHost(text: string): Omit<ApprovedHost, 'secret'> | undefined {
  const match = /^(\[[0-9a-f:.]+\]|[a-z0-9](?:[a-z0-9.-]{0,251}[a-z0-9])?)(?::(\d{1,5}))?$/.exec(
    text.trim().toLowerCase(),
  );
  const port = match?.[2] === undefined ? null : Number(match[2]);
  if (!match?.[1] || (port !== null && (port < 1 || port > 65_535))) return undefined;
  return { host: match[1], port };
}

/** A host as it is shown. */
export function hostText({ host, port }: Omit<ApprovedHost, 'secret'>): string {
  return port === null ? host : `${host}:${port}`;
}

/**
 * The hosts that the owner approved for each secret. They are kept in a file beside the secrets, a `NAME HOST` per line;
 * only who can write to the data folder can change it.
 */
export class SecretHosts {
  private readonly file: string;

  /** @param home the data folder */
  constructor(home: string) {
    this.file = join(home, 'secret-hosts');
  }

  all(): ApprovedHost[] {
    let text: string;
    try {
      text = readFileSync(this.file, 'utf8');
    } catch {
      return [];
    }
    return text.split(/\r?\n/).flatMap((line) => {
      const [secret, written, ...rest] = line.trim().split(/\s+/);
      const host = parseHost(written ?? '');
      return secret && host && rest.length === 0 ? [{ secret, ...host }] : [];
    });
  }

  of(secret: string): ApprovedHost[] {
    return this.all().filter((approved) => approved.secret === secret);
  }

  allow(approved: ApprovedHost): void {
    const others = this.all().filter((one) => !isSame(one, approved));
    this.write([...others, approved]);
  }

  /** @returns whether it was approved before */
  disallow(approved: ApprovedHost): boolean {
    const all = this.all();
    const others = all.filter((one) => !isSame(one, approved));
    if (others.length < all.length) this.write(others);
    return others.length < all.length;
  }

  private write(all: readonly ApprovedHost[]): void {
    writePrivate(this.file, all.map((one) => `${one.secret} ${hostText(one)}\n`).join(''));
  }
}

function isSame(one: ApprovedHost, other: ApprovedHost): boolean {
  return one.secret === other.secret && one.host === other.host && one.port === other.port;
}
