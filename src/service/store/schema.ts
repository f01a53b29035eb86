import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { Placement, Publisher, Title } from '../../core/roster/model.js';

/** The publisher; one row at most. */
export const publishers = sqliteTable('publishers', {
  id: integer('id').primaryKey(),
  name: text('name').notNull(),
  domain: text('domain').notNull(),
  accounts: text('accounts', { mode: 'json' }).$type<Publisher['accounts']>(),
  credentials: text('credentials', { mode: 'json' }).$type<Publisher['credentials']>(),
  version: integer('version').notNull().default(1),
});

/** Titles and placements were validated before they were written; a change of their shape needs a migration. */
export const titles = sqliteTable('titles', {
  id: text('id').primaryKey(),
  version: integer('version').notNull(),
  position: integer('position').notNull(),
  name: text('name').notNull(),
  audience: text('audience').$type<Title['audience']>().notNull(),
  stages: text('stages', { mode: 'json' }).$type<Title['stages']>().notNull(),
  editions: text('editions', { mode: 'json' }).$type<Title['editions']>().notNull(),
  networks: text('networks', { mode: 'json' }).$type<Title['networks']>().notNull(),
});

export const placements = sqliteTable(
  'placements',
  {
    title: text('title')
      .notNull()
      .references(() => titles.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    version: integer('version').notNull(),
    position: integer('position').notNull(),
    format: text('format').$type<Placement['format']>().notNull(),
    where: text('where_in_words'),
    settings: text('settings', { mode: 'json' }).$type<Placement['settings']>().notNull(),
    units: text('units', { mode: 'json' }).$type<Placement['units']>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.title, table.name] })],
);

/** Every field that ever changed. The highest revision is the revision of the record. */
export const history = sqliteTable(
  'history',
  {
    revision: integer('revision').primaryKey({ autoIncrement: true }),
    at: text('at').notNull(),
    who: text('who').notNull(),
    title: text('title'),
    path: text('path').notNull(),
    was: text('was', { mode: 'json' }),
    is: text('is_now', { mode: 'json' }),
  },
  (table) => [index('history_by_title').on(table.title, table.revision)],
);

/** What files of given contents say, as a build of the service read them (a serialized value of V8). */
export const keptReadings = sqliteTable(
  'kept_readings',
  {
    reader: text('reader').notNull(),
    hash: text('hash').notNull(),
    build: text('build').notNull(),
    reading: blob('reading', { mode: 'buffer' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.reader, table.hash] })],
);

/** Contents of files, each once, by SHA-256. */
export const blobs = sqliteTable('blobs', {
  hash: text('hash').primaryKey(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
});

export const snapshots = sqliteTable(
  'snapshots',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    files: text('files', { mode: 'json' }).notNull(),
    folders: text('folders', { mode: 'json' }).notNull(),
    skipped: text('skipped', { mode: 'json' }).notNull(),
    /** When it was last requested, to the hour (ms since 1970); never earlier than one that was requested before it. */
    used: integer('used').notNull().default(0),
    /** Its place among all snapshots in the order in which their trees were last read or sent. */
    turn: integer('turn').notNull().default(0),
  },
  (table) => [index('snapshots_by_use').on(table.used), index('snapshots_by_turn').on(table.turn)],
);

/** Wirings that were computed, so that one can be applied as it was shown. */
export const wirings = sqliteTable('wirings', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  snapshot: text('snapshot').notNull(),
  wiring: text('wiring', { mode: 'json' }).notNull(),
  /** When it was computed (ms since 1970). */
  at: integer('at').notNull().default(0),
});

/** When the record was last tidied up (ms since 1970); one row at most. */
export const tidied = sqliteTable('tidied', {
  id: integer('id').primaryKey(),
  at: integer('at').notNull(),
});

/** The last reading of each edition: what the board compares the record with. */
export const readings = sqliteTable(
  'readings',
  {
    title: text('title')
      .notNull()
      .references(() => titles.id, { onDelete: 'cascade' }),
    platform: text('platform').notNull(),
    reading: text('reading', { mode: 'json' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.title, table.platform] })],
);

export const linkedTrees = sqliteTable('linked_trees', {
  id: text('id').primaryKey(),
  title: text('title')
    .notNull()
    .references(() => titles.id, { onDelete: 'cascade' }),
  path: text('path').notNull(),
  snapshot: text('snapshot'),
});

/** What was last read of a network's list of apps and units: one row per network. */
export const inventories = sqliteTable('inventories', {
  network: text('network').primaryKey(),
  source: text('source').notNull(),
  readAt: text('read_at').notNull(),
  apps: text('apps', { mode: 'json' }).notNull(),
});

export const inventoryUnits = sqliteTable(
  'inventory_units',
  {
    network: text('network').notNull(),
    id: text('id').notNull(),
    position: integer('position').notNull(),
    unit: text('unit', { mode: 'json' }).notNull(),
    /** What it was called when it was first seen. */
    knownAs: text('known_as').notNull(),
  },
  (table) => [primaryKey({ columns: [table.network, table.id] })],
);

/** Steps that nobody can see from here, ticked by a person. */
export const ticks = sqliteTable(
  'ticks',
  {
    title: text('title')
      .notNull()
      .references(() => titles.id, { onDelete: 'cascade' }),
    platform: text('platform').notNull(),
    network: text('network').notNull(),
    step: text('step').notNull(),
    who: text('who').notNull(),
    at: text('at').notNull(),
    note: text('note'),
  },
  (table) => [primaryKey({ columns: [table.title, table.platform, table.network, table.step] })],
);

/** Findings that somebody accepts, until a day. */
export const acceptances = sqliteTable(
  'acceptances',
  {
    title: text('title')
      .notNull()
      .references(() => titles.id, { onDelete: 'cascade' }),
    fingerprint: text('fingerprint').notNull(),
    rule: text('rule').notNull(),
    message: text('message').notNull(),
    reason: text('reason').notNull(),
    until: text('until').notNull(),
    who: text('who').notNull(),
    at: text('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.title, table.fingerprint] })],
);

/** What was last seen elsewhere: what a developer site serves, what a store lists. */
export const sightings = sqliteTable(
  'sightings',
  {
    kind: text('kind', { enum: ['app-ads', 'listing', 'rehearsal'] }).notNull(),
    subject: text('subject').notNull(),
    at: text('at').notNull(),
    seen: text('seen', { mode: 'json' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.kind, table.subject] })],
);

/** Who may use the service from elsewhere. Tokens are stored as their hash alone. */
export const tokens = sqliteTable('tokens', {
  name: text('name').primaryKey(),
  role: text('role').notNull(),
  hash: text('hash').notNull().unique(),
  createdAt: text('created_at').notNull(),
  lastUsedAt: text('last_used_at'),
  revokedAt: text('revoked_at'),
});
