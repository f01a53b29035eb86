import { createHash, randomBytes } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { Role, type TokenEntry } from '../../api/roles.js';
import { atomically, type Db } from '../store/open.js';
import { tokens } from '../store/schema.js';

/** The use of a token is noted at most so often (milliseconds): a note is a write. */
const noteEvery = 60_000;

/** The owner of a token, and its role. */
export interface TokenHolder {
  name: string;
  role: Role;
}

/** The tokens of a record. */
export class TokenStore {
  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /**
   * Makes a token. It is returned once and kept as its hash alone.
   * @returns undefined when there is a token of that name that was not revoked
   */
  add(name: string, role: Role): string | undefined {
    const token = `sxt-${randomBytes(32).toString('base64url')}`;
    return atomically(this.db, () => {
      const known = this.db.select().from(tokens).where(eq(tokens.name, name)).get();
      if (known && known.revokedAt === null) return undefined;
      const row = { role, hash: tokenHash(token), createdAt: this.at(), lastUsedAt: null, revokedAt: null };
      this.db
        .insert(tokens)
        .values({ name, ...row })
        .onConflictDoUpdate({ target: tokens.name, set: row })
        .run();
      return token;
    });
  }

  list(): TokenEntry[] {
    const rows = this.db.select().from(tokens).orderBy(tokens.name).all();
    return rows.map(({ hash: _, role, ...entry }) => ({ ...entry, role: Role.parse(role) }));
  }

  /** @returns whether there was such a token that was not revoked */
  revoke(name: string): boolean {
    const open = and(eq(tokens.name, name), isNull(tokens.revokedAt));
    return this.db.update(tokens).set({ revokedAt: this.at() }).where(open).run().changes > 0;
  }

  /** Whether anybody has a token that counts. */
  any(): boolean {
    return this.db.select().from(tokens).where(isNull(tokens.revokedAt)).limit(1).get() !== undefined;
  }

  /** Whose token it is; undefined when it counts for nothing. Notes that it was used. */
  holderOf(token: string): TokenHolder | undefined {
    return this.holderOfHash(tokenHash(token));
  }

  /** As {@link holderOf}, by the hash of a token: how long the look-up takes tells nothing about the token. */
  holderOfHash(hash: string): TokenHolder | undefined {
    const row = this.db
      .select()
      .from(tokens)
      .where(and(eq(tokens.hash, hash), isNull(tokens.revokedAt)))
      .get();
    if (!row) return undefined;
    const now = this.now();
    if (row.lastUsedAt === null || now.getTime() - Date.parse(row.lastUsedAt) >= noteEvery)
      this.db.update(tokens).set({ lastUsedAt: this.at() }).where(eq(tokens.name, row.name)).run();
    return { name: row.name, role: Role.parse(row.role) };
  }

  private at(): string {
    return this.now().toISOString();
  }
}

/** The form in which a token is kept. */
export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
