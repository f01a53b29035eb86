import { eq, inArray, min, sql } from 'drizzle-orm';
import type { TitleRecord, TitleSummary } from '../../api/titles.js';
import type { Placement, Title } from '../../core/roster/model.js';
import { heldIds } from '../../core/roster/validate.js';
import { groupBy } from '../../core/text/group-by.js';
import { platformNames } from '../../core/words/names.js';
import type { Db } from './open.js';
import { history, placements, titles } from './schema.js';

/** Statements that an import runs very often, computed once. */
export function prepareInserts(db: Db) {
  const to = sql.placeholder;
  return {
    placement: db
      .insert(placements)
      .values({
        title: to('title'),
        name: to('name'),
        version: to('version'),
        position: to('position'),
        format: to('format'),
        where: to('where'),
        settings: to('settings'),
        units: to('units'),
      })
      .prepare(),
    history: db
      .insert(history)
      .values({
        at: to('at'),
        who: to('who'),
        title: to('title'),
        path: to('path'),
        was: to('was'),
        is: to('is'),
      })
      .prepare(),
  };
}

/** The reading of a title, computed once. */
export function prepareReads(db: Db) {
  const id = sql.placeholder('id');
  return {
    title: db.select().from(titles).where(eq(titles.id, id)).prepare(),
    parts: db
      .select()
      .from(placements)
      .where(eq(placements.title, id))
      .orderBy(placements.position)
      .prepare(),
  };
}

/** Titles in short. The database counts, so that a long record need not be read for it. */
export function summariesOf(db: Db, rows: readonly (typeof titles.$inferSelect)[]): TitleSummary[] {
  const ids = rows.map(({ id }) => id);
  const counted = db
    .select({
      title: placements.title,
      placements: sql<number>`count(*)`,
      ids: sql<number>`sum((select count(*) from json_tree(${placements.units}) where atom is not null))`,
    })
    .from(placements)
    .where(inArray(placements.title, ids))
    .groupBy(placements.title)
    .all();
  const named = db
    .select({ title: placements.title, network: sql<string>`json_each.key` })
    .from(placements)
    .innerJoin(sql`json_each(${placements.units})`, sql`true`)
    .where(inArray(placements.title, ids))
    .groupBy(placements.title, sql`json_each.key`)
    .orderBy(min(placements.position))
    .all();
  const counts = new Map(counted.map((count) => [count.title, count]));
  const networks = groupBy(named, ({ title }) => title);
  return rows.map((row) => {
    const count = counts.get(row.id);
    const inPlacements = networks.get(row.id) ?? [];
    return {
      id: row.id,
      name: row.name,
      version: row.version,
      platforms: platformNames.filter((platform) => row.editions[platform]),
      networks: [...new Set([...Object.keys(row.networks), ...inPlacements.map(({ network }) => network)])],
      placements: count?.placements ?? 0,
      ids: heldIds({ ...row, placements: {} }).length + (count?.ids ?? 0),
    };
  });
}

/** A title with its versions, from its rows. */
export function recordOf(
  row: typeof titles.$inferSelect,
  parts: readonly (typeof placements.$inferSelect)[],
): TitleRecord {
  return {
    id: row.id,
    version: row.version,
    placementVersions: Object.fromEntries(parts.map(({ name, version }) => [name, version])),
    title: titleOf(row, parts),
  };
}

/** A title from its rows. They were checked when they were written. */
export function titleOf(
  { name, audience, stages, editions, networks }: typeof titles.$inferSelect,
  parts: readonly (typeof placements.$inferSelect)[],
): Title {
  return {
    name,
    audience,
    stages,
    editions,
    networks,
    placements: Object.fromEntries(parts.map((part) => [part.name, placementOf(part)])),
  };
}

function placementOf({ format, where, settings, units }: typeof placements.$inferSelect): Placement {
  return { format, ...(where === null ? {} : { where }), settings, units };
}
