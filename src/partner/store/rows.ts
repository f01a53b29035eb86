import { createHash } from 'node:crypto';
import type { Format, Platform } from '../../core/words/words.js';
import type { InventoryUnit, UnitSettings } from '../../core/inventory/model.js';
import type { accounts, apps, units } from './schema.js';

export type Account = typeof accounts.$inferSelect;

export type AppRow = typeof apps.$inferSelect;

export type UnitRow = typeof units.$inferSelect;

/** The SHA-256 of a key, in hexadecimal. Keys themselves are not stored. */
export function hashOf(key: string): string {
  return createHash('sha256').update(key).digest('hex');
}

/** A unit of the books as the inventory tells of it. */
export function unitOf(row: UnitRow): InventoryUnit {
  const { id, name, format, platform, app, status, servesFrom, settings } = row;
  return {
    id,
    name,
    format: format as Format,
    platform,
    app,
    status,
    servesFrom,
    settings: settings as UnitSettings,
  };
}

/** A unit as somebody adds it. */
export interface GivenUnit {
  app: string | null;
  platform: Platform;
  format: Format;
  name: string;
  settings: UnitSettings;
  id?: string;
  /** Whether it serves at once. */
  serves?: boolean;
  /** From when it serves, in ISO 8601; after the usual delay where this is left out. */
  servesFrom?: string;
}
