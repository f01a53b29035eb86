import type { InventoryReading } from '../inventory/model.js';
import type { ExpectedId } from '../roster/expected.js';
import { timeLeft } from '../text/time.js';

/** What a network's list adds to the state of an ID. */
export interface PartnerSays {
  record: 'unknown-to-partner' | 'too-new' | null;
  why: string;
  /** How long until it serves. */
  left: string | null;
}

const nothing: PartnerSays = { record: null, why: '', left: null };

/** What the network says of an ID of the roster's own; nothing when its list was not read. */
export function partnerSays(
  { id, kind, from }: ExpectedId,
  inventory: InventoryReading | undefined,
  now: string,
): PartnerSays {
  if (!inventory || id === undefined || from !== 'roster') return nothing;
  const read = `(its list was read ${inventory.readAt.slice(0, 16).replace('T', ' ')})`;
  if (kind === 'app') {
    const known = inventory.apps.length === 0 || inventory.apps.some((app) => app.id === id);
    return known
      ? nothing
      : { ...nothing, record: 'unknown-to-partner', why: `The network has no such app ${read}.` };
  }
  const unit = inventory.units.find((candidate) => candidate.id === id);
  if (!unit || unit.status === 'removed')
    return { ...nothing, record: 'unknown-to-partner', why: `The network has no such unit ${read}.` };
  const left = unit.servesFrom === null ? null : timeLeft(unit.servesFrom, now);
  if (left !== null) return { record: 'too-new', why: `It serves in ${left}.`, left };
  return unit.status === 'paused' ? { ...nothing, why: 'It is paused at the network.' } : nothing;
}
