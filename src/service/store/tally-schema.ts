import type { Detail } from '../../core/tally/model.js';
import { platformNames } from '../../core/words/names.js';
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

import { titles } from './schema.js';

/** What daily numbers are about: a unit of a network, or an app as a whole. */
export const tallySeries = sqliteTable(
  'tally_series',
  {
    id: integer('id').primaryKey(),
    network: text('network').notNull(),
    kind: text('kind', { enum: ['unit', 'app'] }).notNull(),
    /** The unit ID, or the app ID. */
    key: text('key').notNull(),
    /** The app that rows of the unit name; empty where they name none. */
    app: text('app').notNull(),
  },
  (table) => [uniqueIndex('tally_series_by_key').on(table.network, table.kind, table.key)],
);

/** Numbers as networks report them. Days count from 1 January 1970, money in micros. Clustered by its key. */
export const tallyRows = sqliteTable(
  'tally_rows',
  {
    series: integer('series').notNull(),
    day: integer('day').notNull(),
    /** Empty for all countries together. */
    country: text('country').notNull(),
    part: text('part').notNull(),
    /** How finely the row divides the day of its series; see `Detail`. */
    detail: integer('detail').$type<Detail>().notNull().default(0),
    /** The import that wrote it last. */
    import: integer('import').notNull(),
    requests: integer('requests'),
    matched: integer('matched'),
    impressions: integer('impressions').notNull(),
    clicks: integer('clicks'),
    rewards: integer('rewards'),
    revenue: integer('revenue').notNull(),
    currency: text('currency').notNull(),
  },
  (table) => [primaryKey({ columns: [table.series, table.day, table.country, table.part] })],
);

/** The sums of a series and day, written together with the rows. Clustered by its key. */
export const tallyDays = sqliteTable(
  'tally_days',
  {
    series: integer('series').notNull(),
    day: integer('day').notNull(),
    currency: text('currency').notNull(),
    requests: integer('requests'),
    matched: integer('matched'),
    impressions: integer('impressions').notNull(),
    clicks: integer('clicks'),
    rewards: integer('rewards'),
    revenue: integer('revenue').notNull(),
  },
  (table) => [primaryKey({ columns: [table.series, table.day, table.currency] })],
);

/** Imports, the newest with the highest number. */
export const tallyImports = sqliteTable(
  'tally_imports',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    network: text('network').notNull(),
    source: text('source', { enum: ['csv', 'http'] }).notNull(),
    /** The name of the file; empty for what was fetched. */
    name: text('name').notNull(),
    at: text('at').notNull(),
    who: text('who').notNull(),
    /** The days that were read to their end. */
    from: integer('from_day'),
    to: integer('to_day'),
    rows: integer('rows').notNull().default(0),
    /** Whether it was read completely. */
    complete: integer('complete', { mode: 'boolean' }).notNull().default(false),
  },
  (table) => [index('tally_imports_by_network').on(table.network, table.id)],
);

/** When versions went out. */
export const tallyReleases = sqliteTable(
  'tally_releases',
  {
    title: text('title')
      .notNull()
      .references(() => titles.id, { onDelete: 'cascade' }),
    platform: text('platform', { enum: platformNames }).notNull(),
    version: text('version').notNull(),
    day: integer('day').notNull(),
    who: text('who').notNull(),
  },
  (table) => [primaryKey({ columns: [table.title, table.platform, table.version] })],
);

/** Daily rates of currencies: billionths of the base for one unit. */
export const tallyRates = sqliteTable(
  'tally_rates',
  {
    currency: text('currency').notNull(),
    base: text('base').notNull(),
    day: integer('day').notNull(),
    nanos: integer('nanos').notNull(),
  },
  (table) => [primaryKey({ columns: [table.currency, table.base, table.day] })],
);
