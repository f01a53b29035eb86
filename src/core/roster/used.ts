import { valueAt } from '../text/own-values.js';
import type { Title } from './model.js';

/** Whether a title names a network anywhere: as one that it uses, for a placement, or in an order of fallbacks. */
export function isUsedBy({ networks, placements }: Title, network: string): boolean {
  return (
    valueAt(networks, network) !== undefined ||
    Object.values(placements).some(
      ({ units, settings }) =>
        valueAt(units, network) !== undefined || (settings.fallback ?? []).includes(network),
    )
  );
}
