import { platformNames } from '../../core/words/names.js';
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

export const accounts = sqliteTable(
  'accounts',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    network: text('network').notNull(),
    name: text('name').notNull(),
    /** The account as it is in IDs, where IDs carry it. */
    number: text('number'),
    keyHash: text('key_hash').notNull(),
    /** Clicks in development builds on ads that earn money. */
    strikes: integer('strikes').notNull().default(0),
    /** Why it is suspended; null if it is not. */
    suspended: text('suspended'),
    /** The credential that opens its delivery of notifications, as a hash. */
    pushHash: text('push_hash'),
    /** Where rewards are reported, and the key that signs the reports. */
    rewardAddress: text('reward_address'),
    rewardKey: text('reward_key'),
  },
  (table) => [uniqueIndex('accounts_by_key').on(table.network, table.keyHash)],
);

export const apps = sqliteTable(
  'apps',
  {
    row: integer('row').primaryKey({ autoIncrement: true }),
    network: text('network').notNull(),
    account: integer('account').notNull(),
    id: text('id').notNull(),
    platform: text('platform', { enum: platformNames }).notNull(),
    identifier: text('identifier').notNull(),
    name: text('name').notNull(),
    audience: text('audience').notNull(),
    terms: integer('terms', { mode: 'boolean' }).notNull(),
  },
  (table) => [
    uniqueIndex('apps_by_id').on(table.network, table.id),
    uniqueIndex('apps_by_identifier').on(table.network, table.platform, table.identifier),
  ],
);

export const units = sqliteTable(
  'units',
  {
    row: integer('row').primaryKey({ autoIncrement: true }),
    network: text('network').notNull(),
    account: integer('account').notNull(),
    id: text('id').notNull(),
    app: text('app'),
    platform: text('platform', { enum: platformNames }).notNull(),
    format: text('format').notNull(),
    name: text('name').notNull(),
    status: text('status', { enum: ['active', 'paused', 'removed'] }).notNull(),
    servesFrom: text('serves_from').notNull(),
    settings: text('settings', { mode: 'json' }).notNull(),
  },
  (table) => [
    uniqueIndex('units_by_id').on(table.network, table.id),
    index('units_by_account').on(table.network, table.account, table.row),
  ],
);

/** Registered test devices. */
export const devices = sqliteTable(
  'devices',
  {
    network: text('network').notNull(),
    account: integer('account').notNull(),
    id: text('id').notNull(),
  },
  (table) => [primaryKey({ columns: [table.network, table.account, table.id] })],
);

/** Served ads. */
export const ads = sqliteTable(
  'ads',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    network: text('network').notNull(),
    unit: text('unit').notNull(),
    account: integer('account'),
    format: text('format').notNull(),
    isTest: integer('is_test', { mode: 'boolean' }).notNull(),
    isDevelopment: integer('is_development', { mode: 'boolean' }).notNull(),
    /** Thousandths of a currency unit, for a thousand impressions. */
    price: integer('price').notNull(),
    given: text('given').notNull(),
  },
  (table) => [index('ads_by_unit').on(table.network, table.unit)],
);

/** Events of served ads, each once. */
export const adEvents = sqliteTable(
  'ad_events',
  {
    ad: integer('ad').notNull(),
    event: text('event').notNull(),
    at: text('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.ad, table.event] })],
);

/** Answers to calls that carried an idempotency key. */
export const answers = sqliteTable(
  'answers',
  {
    account: integer('account').notNull(),
    key: text('key').notNull(),
    request: text('request').notNull(),
    status: integer('status').notNull(),
    body: text('body', { mode: 'json' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.account, table.key] })],
);

/** What the stores list. */
export const listings = sqliteTable(
  'listings',
  {
    platform: text('platform', { enum: platformNames }).notNull(),
    identifier: text('identifier').notNull(),
    name: text('name').notNull(),
    site: text('site'),
  },
  (table) => [primaryKey({ columns: [table.platform, table.identifier] })],
);

/** Where the developer sites are, as local addresses. */
export const sites = sqliteTable('sites', {
  domain: text('domain').primaryKey(),
  address: text('address').notNull(),
});
