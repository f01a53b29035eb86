import { putAt, valueAt } from '../../text/own-values.js';
import type { Title } from '../model.js';

/** What has to be known of a network to use it for titles. */
export interface OfferingNetwork {
  id: string;
  formats: readonly string[];
  platforms: readonly string[];
}

/**
 * A title that uses a network: at every placement whose format the network offers, where it has an edition on one of the
 * network's platforms. IDs are set later, or made at the network.
 * @returns the title, and at how many placements it is new
 */
export function enrol(title: Title, network: OfferingNetwork): { title: Title; placements: number } {
  const hasEdition = Object.keys(title.editions).some((platform) => network.platforms.includes(platform));
  if (!hasEdition) return { title, placements: 0 };
  const next = structuredClone(title);
  if (valueAt(next.networks, network.id) === undefined) putAt(next.networks, network.id, {});
  let count = 0;
  for (const placement of Object.values(next.placements))
    if (network.formats.includes(placement.format) && valueAt(placement.units, network.id) === undefined) {
      putAt(placement.units, network.id, {});
      count++;
    }
  return { title: next, placements: count };
}
