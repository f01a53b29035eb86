import type { Profile } from '../../network/model.js';
import { putAt, valueAt } from '../../text/own-values.js';
import { platforms } from '../../words/words.js';
import type { Title } from '../model.js';
import { settingProblems } from '../settings.js';

/** A placement at which a network is not used, and why. */
export interface PassedOver {
  placement: string;
  message: string;
}

/**
 * A title that uses a network: at every placement whose format and settings the network offers, where it has an edition
 * on one of the network's platforms. IDs are set later, or created at the network.
 * @returns the title, and the skipped placements
 */
export function enrol(title: Title, profile: Profile): { title: Title; passedOver: PassedOver[] } {
  const hasEdition = platforms.some((platform) => profile[platform] && title.editions[platform]);
  if (!hasEdition) return { title, passedOver: [] };
  const next = structuredClone(title);
  if (valueAt(next.networks, profile.id) === undefined) putAt(next.networks, profile.id, {});
  const known = new Map([[profile.id, profile]]);
  const passedOver: PassedOver[] = [];
  for (const [name, placement] of Object.entries(next.placements)) {
    if (valueAt(placement.units, profile.id) !== undefined) continue;
    const units = { [profile.id]: {} };
    // A fallback may name networks that are not asked about here.
    const { fallback: _, ...settings } = placement.settings;
    const [problem] = settingProblems(name, { ...placement, settings, units }, known);
    if (problem) passedOver.push({ placement: name, message: problem.message });
    else putAt(placement.units, profile.id, {});
  }
  return { title: next, passedOver };
}
