import * as z from 'zod';
import { Format, Platform } from '../words/words.js';
import { Settings } from '../words/settings.js';

export const UnitStatus = z.enum(['active', 'paused', 'removed']);
export type UnitStatus = z.infer<typeof UnitStatus>;

/** The settings of a placement that networks keep too. */
export const UnitSettings = Settings.pick({
  refresh: true,
  content: true,
  reward: true,
  skippable: true,
}).meta({ description: 'The settings of a unit at a network.' });
export type UnitSettings = z.infer<typeof UnitSettings>;

export const InventoryApp = z
  .object({
    id: z.string(),
    platform: Platform.nullable(),
    identifier: z.string(),
    name: z.string(),
    status: z
      .string()
      .nullable()
      .meta({ description: 'The state of its store listing, according to the network.' }),
    audience: z.string().nullable(),
    terms: z.boolean().nullable().meta({ description: 'Whether the terms were accepted for it.' }),
  })
  .meta({ description: 'An application at a network.' });
export type InventoryApp = z.infer<typeof InventoryApp>;

export const InventoryUnit = z
  .object({
    id: z.string(),
    name: z.string(),
    format: Format.nullable(),
    platform: Platform.nullable(),
    app: z.string().nullable(),
    status: UnitStatus.nullable(),
    servesFrom: z.string().nullable().meta({ description: 'When it starts to serve ads, in ISO 8601.' }),
    settings: UnitSettings,
  })
  .meta({ description: 'A unit at a network.' });
export type InventoryUnit = z.infer<typeof InventoryUnit>;

/** A row that could not be taken over, and why. */
export const InvalidRow = z.object({
  row: z.number().int().meta({ description: 'Counted from 1; for a table, its line.' }),
  id: z.string().nullable(),
  message: z.string(),
});
export type InvalidRow = z.infer<typeof InvalidRow>;

/** What was last read of a network's list. */
export const InventoryReading = z
  .object({
    network: z.string(),
    source: z.enum(['http', 'csv']),
    readAt: z.string(),
    apps: z.array(InventoryApp),
    units: z.array(InventoryUnit),
    /** What each unit was called when it was first seen, where that differs. */
    knownAs: z.record(z.string(), z.string()),
  })
  .meta({ description: 'A network’s list of apps and units, as last read.' });
export type InventoryReading = z.infer<typeof InventoryReading>;
