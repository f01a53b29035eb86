import { sql } from 'drizzle-orm';
import type { TitleRecord } from '../../api/titles.js';
import type { Placement, Title } from '../../core/roster/model.js';
import type { Db } from './open.js';
import { history, placements, type titles } from './schema.js';

/** Statements that an import runs very often, worked out once. */
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
