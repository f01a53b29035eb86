import type { Profile } from '../network/model.js';
import { samplesOf } from '../network/samples.js';
import type { Roster } from '../roster/model.js';
import { platforms, stages, type Format, type Platform, type Stage } from '../words/words.js';

/** What a unit or an app of a network is in the roster. */
export interface Owner {
  network: string;
  /** Null for IDs that the network publishes for testing. */
  title: string | null;
  /** Null for app IDs and for sample IDs. */
  placement: string | null;
  platform: Platform | null;
  format: Format | null;
  stage: Stage;
}

/** The owner of each ID. */
export class Owners {
  readonly #units = new Map<string, Owner>();
  readonly #apps = new Map<string, Owner>();

  constructor({ titles }: Pick<Roster, 'titles'>, profiles: readonly Profile[]) {
    for (const { id: network, ids } of profiles)
      for (const { id, platform, format } of ids.unit ? samplesOf(ids.unit) : [])
        this.#units.set(nameOf(network, id), {
          network,
          title: null,
          placement: null,
          platform: platform ?? null,
          format: format ?? null,
          stage: 'test',
        });
    for (const [title, { networks, placements }] of Object.entries(titles)) {
      for (const [network, editions] of Object.entries(networks))
        for (const platform of platforms)
          for (const stage of stages) {
            const id = editions[platform]?.[stage]?.app;
            const owner = { network, title, placement: null, platform, format: null, stage };
            if (id !== undefined) this.#apps.set(nameOf(network, id), owner);
          }
      for (const [placement, { format, units }] of Object.entries(placements))
        for (const [network, editions] of Object.entries(units))
          for (const platform of platforms)
            for (const stage of stages) {
              const id = editions[platform]?.[stage];
              const owner = { network, title, placement, platform, format, stage };
              if (id !== undefined) this.#units.set(nameOf(network, id), owner);
            }
    }
  }

  unit(network: string, id: string): Owner | undefined {
    return this.#units.get(nameOf(network, id));
  }

  app(network: string, id: string): Owner | undefined {
    return this.#apps.get(nameOf(network, id));
  }
}

function nameOf(network: string, id: string): string {
  return `${network} ${id}`;
}
