import { and, eq } from 'drizzle-orm';
import type { Acceptance } from '../../core/checks/accepted.js';
import type { AcceptedFindings } from '../../core/roster/model.js';
import { entryAt, putAt } from '../../core/text/own-values.js';
import type { Db } from './open.js';
import { acceptances } from './schema.js';

/** Findings that somebody accepted: the one place that reads and writes them. */
export class AcceptanceStore {
  constructor(private readonly db: Db) {}

  /** Those of a title, in the order in which they were accepted. */
  of(title: string): Acceptance[] {
    return this.db
      .select()
      .from(acceptances)
      .where(eq(acceptances.title, title))
      .orderBy(acceptances.at)
      .all()
      .map(({ title: _, ...acceptance }) => acceptance);
  }

  /** The accepted findings of every title, as a document carries them. */
  all(): AcceptedFindings {
    const found: AcceptedFindings = {};
    for (const { title, fingerprint, ...accepted } of this.db
      .select()
      .from(acceptances)
      .orderBy(acceptances.title, acceptances.at, acceptances.fingerprint)
      .all())
      putAt(
        entryAt(found, title, () => ({})),
        fingerprint,
        accepted,
      );
    return found;
  }

  /** Replaces the accepted findings by those of a document. */
  set(all: AcceptedFindings): void {
    this.db.transaction((rows) => {
      rows.delete(acceptances).run();
      for (const [title, findings] of Object.entries(all))
        for (const [fingerprint, accepted] of Object.entries(findings))
          rows
            .insert(acceptances)
            .values({ title, fingerprint, ...accepted })
            .run();
    });
  }

  accept(title: string, acceptance: Acceptance): void {
    this.db
      .insert(acceptances)
      .values({ title, ...acceptance })
      .onConflictDoUpdate({ target: [acceptances.title, acceptances.fingerprint], set: acceptance })
      .run();
  }

  withdraw(title: string, fingerprint: string): boolean {
    const { changes } = this.db
      .delete(acceptances)
      .where(and(eq(acceptances.title, title), eq(acceptances.fingerprint, fingerprint)))
      .run();
    return changes > 0;
  }
}
