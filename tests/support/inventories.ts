import type { InventoryApp, InventoryReading, InventoryUnit } from '../../src/core/inventory/model.js';

/** A unit as a network's list has it. */
export const unit = (id: string, changes: Partial<InventoryUnit> = {}): InventoryUnit => ({
  id,
  name: `unit ${id}`,
  format: 'banner',
  platform: 'android',
  app: 'CH-A-310772-QK4T8W2N',
  status: 'active',
  servesFrom: '2026-01-01T00:00:00Z',
  settings: {},
  ...changes,
});

/** An app as a network's list has it. */
export const app = (id: string, changes: Partial<InventoryApp> = {}): InventoryApp => ({
  id,
  platform: id.includes('-I-') ? 'ios' : 'android',
  identifier: 'example.brine.kelp',
  name: 'Kelp',
  status: 'listed',
  audience: 'general',
  terms: true,
  ...changes,
});

/** The apps of the title that the small trees are right for. */
export const kelpApps = [app('CH-A-310772-QK4T8W2N'), app('CH-I-310772-M6R9V3XC')];

/** What was read of Cobalt Heron. */
export const heron = (changes: Partial<InventoryReading> = {}): InventoryReading => ({
  network: 'cobalt-heron',
  source: 'http',
  readAt: '2026-06-01T11:00:00Z',
  apps: kelpApps,
  units: [],
  knownAs: {},
  ...changes,
});
