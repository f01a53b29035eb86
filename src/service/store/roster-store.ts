import { valueAt } from '../../core/text/own-values.js';
import { and, desc, eq, gt, isNotNull, like, lt, max } from 'drizzle-orm';
import { groupBy } from '../../core/text/group-by.js';
import type { HistoryEntry, TitleRecord, TitleSummary } from '../../api/titles.js';
import { compare } from '../../core/roster/compare.js';
import { revert } from '../../core/roster/history.js';
import type { Publisher, Roster, Title } from '../../core/roster/model.js';
import { demand, type Condition } from '../conditions.js';
import { ServiceError } from '../errors.js';
import { atomically, type Db } from './open.js';
import { prepareInserts, prepareReads, recordOf, summariesOf, titleOf } from './roster-rows.js';
import { history, placements, publishers, titles } from './schema.js';

/** Who writes, and when. */
export interface Writer {
  who: string;
  at: string;
}

/** A page of a list: its maximum number of entries, and where the previous page ended. */
export interface PageQuery {
  limit: number;
  after?: number | undefined;
}

/** Titles and their parts: the one place that reads and writes them. Every write is one transaction. */
export class RosterStore {
  #inserts: ReturnType<typeof prepareInserts> | undefined;
  #reads: ReturnType<typeof prepareReads> | undefined;

  constructor(private readonly db: Db) {}

  /** The revision of the record: it grows with every field that changes. */
  revision(): number {
    return (
      this.db
        .select({ revision: max(history.revision) })
        .from(history)
        .get()?.revision ?? 0
    );
  }

  /** The identifiers of every title's editions, without reading the titles whole. */
  identifiers(): { id: string; editions: Title['editions'] }[] {
    return this.db
      .select({ id: titles.id, editions: titles.editions })
      .from(titles)
      .orderBy(titles.position)
      .all()
      .map(({ id, editions }) => ({ id, editions }));
  }

  /** The titles that changed since a revision, those that were removed included. */
  changedSince(revision: number): string[] {
    const rows = this.db
      .selectDistinct({ title: history.title })
      .from(history)
      .where(gt(history.revision, revision))
      .all();
    return rows.flatMap(({ title }) => title ?? []);
  }

  /**
   * Earlier values of fields of a title.
   * @param pattern of their paths, in the syntax of LIKE
   */
  formerValues(id: string, pattern: string): { path: string; was: unknown }[] {
    return this.db
      .selectDistinct({ path: history.path, was: history.was })
      .from(history)
      .where(and(eq(history.title, id), like(history.path, pattern), isNotNull(history.was)))
      .all();
  }

  titleIds(): string[] {
    return this.db
      .select({ id: titles.id })
      .from(titles)
      .orderBy(titles.position)
      .all()
      .map(({ id }) => id);
  }

  find(id: string): TitleRecord | undefined {
    const { title, parts } = (this.#reads ??= prepareReads(this.db));
    const row = title.get({ id });
    return row && recordOf(row, parts.all({ id }));
  }

  get(id: string): TitleRecord {
    const found = this.find(id);
    if (found) return found;
    const known = this.titleIds();
    const fix =
      known.length > 0
        ? `The titles are ${known.join(', ')}.`
        : 'There are no titles yet: add one with syndexa title add.';
    throw new ServiceError('not-found', `There is no title ${id}.`, { fix });
  }

  publisher(): Publisher | null {
    const row = this.db.select().from(publishers).get();
    return row
      ? {
          name: row.name,
          domain: row.domain,
          ...(row.accounts ? { accounts: row.accounts } : {}),
          ...(row.credentials ? { credentials: row.credentials } : {}),
        }
      : null;
  }

  roster(): Roster {
    const publisher = this.publisher();
    const parts = groupBy(
      this.db.select().from(placements).orderBy(placements.title, placements.position).all(),
      ({ title }) => title,
    );
    const rows = this.db.select().from(titles).orderBy(titles.position).all();
    const all = rows.map((row) => [row.id, titleOf(row, parts.get(row.id) ?? [])] as const);
    return {
      syndexa: 1,
      revision: this.revision(),
      ...(publisher ? { publisher } : {}),
      titles: Object.fromEntries(all),
    };
  }

  /** The roster as it was at an earlier revision, by taking back what came since. */
  rosterAt(revision: number): unknown {
    const since = this.db
      .select()
      .from(history)
      .where(gt(history.revision, revision))
      .orderBy(history.revision)
      .all();
    const { publisher, titles: all } = this.roster();
    const changes = since.map(({ path, was, is }) => ({ path, was: was ?? undefined, is: is ?? undefined }));
    return revert({ ...(publisher ? { publisher } : {}), titles: all }, changes);
  }

  /**
   * Writes a title whole; null takes it out. `condition` says what the writer saw.
   * @throws ServiceError `changed` when somebody else was faster, `exists` or `not-found` as it applies
   */
  save(id: string, next: Title | null, condition: Condition, writer: Writer): TitleRecord | null {
    return this.together(() => {
      this.put(id, next, condition, writer);
      return this.find(id) ?? null;
    });
  }

  /** Writes several titles whole, whatever versions they are at; null takes one out. */
  saveAll(next: ReadonlyMap<string, Title | null>, writer: Writer): void {
    this.together(() => {
      for (const [id, title] of next) this.put(id, title, 'any', writer);
    });
  }

  private put(id: string, next: Title | null, condition: Condition, writer: Writer): void {
    const current = this.find(id);
    demand(condition, current?.version, `The title ${id}`);
    const changes = compare(current?.title, next ?? undefined, ['titles', id]);
    if (changes.length === 0) return;
    if (next === null) this.db.delete(titles).where(eq(titles.id, id)).run();
    else this.write(id, next, current);
    this.record(id, changes, writer);
  }

  /** The version of the publisher; undefined while nobody is named. */
  publisherVersion(): number | undefined {
    return this.db.select({ version: publishers.version }).from(publishers).get()?.version;
  }

  /** @throws ServiceError `changed` */
  savePublisher(next: Publisher, condition: Condition, writer: Writer): void {
    atomically(this.db, () => {
      const version = this.publisherVersion();
      demand(condition, version, 'The publisher');
      const changes = compare(this.publisher() ?? undefined, next, ['publisher']);
      if (changes.length === 0) return;
      const row = {
        name: next.name,
        domain: next.domain,
        accounts: next.accounts ?? null,
        credentials: next.credentials ?? null,
        version: (version ?? 0) + 1,
      };
      this.db
        .insert(publishers)
        .values({ id: 1, ...row })
        .onConflictDoUpdate({ target: publishers.id, set: row })
        .run();
      this.record(null, changes, writer);
    });
  }

  /** Several writes as one: all of them, or none. */
  together<Result>(work: () => Result): Result {
    return atomically(this.db, work);
  }

  /** Some titles in their order, in short; `next` is where the page after them begins, when there is one. */
  page({ limit, after = -1 }: PageQuery): { summaries: TitleSummary[]; next: number | undefined } {
    const rows = this.db
      .select()
      .from(titles)
      .where(gt(titles.position, after))
      .orderBy(titles.position)
      .limit(limit + 1)
      .all();
    const shown = rows.slice(0, limit);
    const summaries = summariesOf(this.db, shown);
    return { summaries, next: rows.length > limit ? shown.at(-1)?.position : undefined };
  }

  /** Changes of a title, the latest first; `next` is where the page after them begins, when there is one. */
  historyOf(
    title: string,
    { limit, after }: PageQuery,
  ): { entries: HistoryEntry[]; next: number | undefined } {
    const before = after === undefined ? undefined : lt(history.revision, after);
    const rows = this.db
      .select()
      .from(history)
      .where(and(eq(history.title, title), before))
      .orderBy(desc(history.revision))
      .limit(limit + 1)
      .all();
    const entries = rows.slice(0, limit);
    return { entries, next: rows.length > limit ? entries.at(-1)?.revision : undefined };
  }

  /** One change of a title, by its revision. */
  change(title: string, revision: number): HistoryEntry | undefined {
    return this.db
      .select()
      .from(history)
      .where(and(eq(history.title, title), eq(history.revision, revision)))
      .get();
  }

  private write(id: string, next: Title, current: TitleRecord | undefined): void {
    const version = (current?.version ?? 0) + 1;
    const { placements: parts, ...head } = next;
    if (current)
      this.db
        .update(titles)
        .set({ ...head, version })
        .where(eq(titles.id, id))
        .run();
    else {
      const position =
        (this.db
          .select({ last: max(titles.position) })
          .from(titles)
          .get()?.last ?? -1) + 1;
      this.db
        .insert(titles)
        .values({ id, version, position, ...head })
        .run();
    }
    this.db.delete(placements).where(eq(placements.title, id)).run();
    const insert = this.inserts().placement;
    for (const [position, [name, part]] of Object.entries(parts).entries()) {
      const before = valueAt(current?.title.placements, name);
      const same = before !== undefined && compare(before, part).length === 0;
      const was = valueAt(current?.placementVersions, name) ?? 0;
      const { format, where = null, settings, units } = part;
      insert.run({
        title: id,
        name,
        version: same ? was : was + 1,
        position,
        format,
        where,
        settings,
        units,
      });
    }
  }

  private record(title: string | null, changes: ReturnType<typeof compare>, { who, at }: Writer): void {
    const insert = this.inserts().history;
    for (const { path, was, is } of changes)
      insert.run({ at, who, title, path, was: was ?? null, is: is ?? null });
  }

  /** Statements that an import runs very often: they are computed once. */
  private inserts(): ReturnType<typeof prepareInserts> {
    return (this.#inserts ??= prepareInserts(this.db));
  }
}
