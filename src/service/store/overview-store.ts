import { desc, eq, or, sql } from 'drizzle-orm';
import { Reading } from '../../core/board/model.js';
import type { IdTrace } from '../../core/id-trace/trace.js';
import type { PortfolioChange } from '../../core/portfolio/portfolio.js';
import type { SearchSources } from '../../core/search/hits.js';
import type { Db } from './open.js';
import { history, placements, readings, titles } from './schema.js';
import { tallySeries } from './tally-schema.js';

/** The maximum number of placements for one search: a text that more of them contain is not specific. */
const maxCandidates = 5_000;
/** More changes of one ID than this are not listed. */
const maxChanges = 50;

/** Reads across all titles. */
export class OverviewStore {
  constructor(private readonly db: Db) {}

  /** What changed since a time (ISO 8601), title by title. */
  changesSince(at: string): Map<string, PortfolioChange> {
    // Revisions grow with time: what is older than the newest one before that time need not be looked at.
    const rows = this.db.$client
      .prepare(
        `select title, count(*) as fields, max(at) as at, json_group_array(distinct who) as who from history
         where title is not null and at >= @at and revision > coalesce(
           (select revision from history where at < @at order by revision desc limit 1), 0)
         group by title`,
      )
      .all({ at }) as { title: string; fields: number; at: string; who: string }[];
    return new Map(
      rows.map(({ title, who, ...change }) => [title, { ...change, who: JSON.parse(who) as string[] }]),
    );
  }

  /** All titles, with those placements that have a text in their name or IDs. */
  candidates(text: string): SearchSources['titles'] {
    const pattern = `%${text.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`;
    const has = (column: typeof placements.name | typeof placements.units) =>
      sql`${column} like ${pattern} escape '\\'`;
    const found = this.db
      .select()
      .from(placements)
      .where(or(has(placements.name), has(placements.units)))
      .limit(maxCandidates)
      .all();
    const ofTitle = new Map<string, SearchSources['titles'][number]['placements']>();
    for (const { title, name, format, settings, units } of found)
      ofTitle.set(title, { ...ofTitle.get(title), [name]: { format, settings, units } });
    return this.db
      .select({ id: titles.id, name: titles.name, networks: titles.networks })
      .from(titles)
      .orderBy(titles.position)
      .all()
      .map((row) => ({ ...row, placements: ofTitle.get(row.id) ?? {} }));
  }

  /** The last readings that contain an ID. */
  readingsWith(id: string): { title: string; reading: Reading }[] {
    const rows = this.db
      .select({ title: readings.title, reading: readings.reading })
      .from(readings)
      .where(sql`instr(${readings.reading}, ${JSON.stringify(id)}) > 0`)
      .all();
    return rows.flatMap(({ title, reading }) => {
      const { data } = Reading.safeParse(reading);
      return data ? [{ title, reading: data }] : [];
    });
  }

  /** When an ID was set and removed, latest first. */
  changesOf(id: string): IdTrace['changes'] {
    // A title that is added or imported is one change that holds all its IDs.
    const holds = (column: typeof history.was | typeof history.is) =>
      sql<number>`coalesce(instr(${column}, ${JSON.stringify(id)}), 0) > 0`;
    return this.db
      .select({
        at: history.at,
        who: history.who,
        title: history.title,
        path: history.path,
        isSet: holds(history.is),
      })
      .from(history)
      .where(sql`${holds(history.was)} <> ${holds(history.is)}`)
      .orderBy(desc(history.revision))
      .limit(maxChanges)
      .all()
      .map(({ isSet, ...change }) => ({ ...change, did: isSet ? 'set' : 'taken-out' }));
  }

  /** The series of daily numbers that are about an ID. */
  seriesOf(id: string): { id: number; network: string }[] {
    return this.db
      .select({ id: tallySeries.id, network: tallySeries.network })
      .from(tallySeries)
      .where(eq(tallySeries.key, id))
      .all();
  }
}
