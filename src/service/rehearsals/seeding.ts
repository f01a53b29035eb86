import { randomBytes } from 'node:crypto';
import type { InventoryReading } from '../../core/inventory/model.js';
import type { Profile } from '../../core/network/model.js';
import { samplesOf } from '../../core/network/samples.js';
import { deviceIds } from '../../core/rehearsal/messages.js';
import type { Title } from '../../core/roster/model.js';
import { valueAt } from '../../core/text/own-values.js';
import { readPattern } from '../../core/text/patterns.js';
import { platformNames, stageNames } from '../../core/words/names.js';
import { controlPartnerAt, type PartnerCard } from '../../disk/partner/partner-process.js';

/** What a partner that is started for a rehearsal gets to know. */
export interface Seed {
  title: Title;
  profiles: readonly Profile[];
  /** What was last read of the networks' lists: what is paused, too new, or without accepted terms there is so here. */
  inventories: readonly InventoryReading[];
  /** Whether the push credential of a network is named in the roster and held. */
  holdsPush: (network: string) => boolean;
  now: string;
}

/**
 * Puts the IDs of a title into the books of a partner, as the networks would have them.
 * @returns the push credentials that were deposited, made up for this partner alone
 */
export async function seedPartner(card: PartnerCard, seed: Seed): Promise<Map<string, string>> {
  const push = new Map<string, string>();
  const control = (name: string, body: unknown) => controlPartnerAt(card, name, body);
  await control('clock', { now: seed.now });
  for (const platform of platformNames) {
    const identifier = seed.title.editions[platform]?.identifier;
    if (identifier !== undefined) await control('listings', { platform, identifier, name: seed.title.name });
  }
  for (const profile of seed.profiles) {
    if (!usedBy(seed.title, profile)) continue;
    const { id: network } = profile;
    const key = randomBytes(12).toString('hex');
    const number = accountIn(profile, seed.title);
    await control('accounts', {
      network,
      name: 'Rehearsal',
      key,
      ...(number === undefined ? {} : { number }),
    });
    await control('market', { network, fill: 1 });
    await control('devices', { network, key, device: deviceIds.registered });
    if (seed.holdsPush(network)) {
      const credential = randomBytes(18).toString('base64url');
      push.set(network, credential);
      await control('push', { network, key, credential });
    }
    await seedNetwork(control, seed, profile, key);
  }
  return push;
}

type Control = (name: string, body: unknown) => Promise<unknown>;

async function seedNetwork(
  control: Control,
  { title, inventories, now }: Seed,
  profile: Profile,
  key: string,
): Promise<void> {
  const { id: network } = profile;
  const seen = inventories.find((one) => one.network === network);
  const isSample = (kind: 'app' | 'unit', id: string) => {
    const rules = profile.ids[kind];
    return rules !== undefined && samplesOf(rules).some((sample) => sample.id === id);
  };
  for (const platform of platformNames) {
    const identifier = title.editions[platform]?.identifier;
    if (identifier === undefined) continue;
    const stages = stageNames.map((stage) => valueAt(title.networks, network)?.[platform]?.[stage]?.app);
    const production = valueAt(title.networks, network)?.[platform]?.production?.app;
    const own = stages.filter((id) => id !== undefined && !isSample('app', id));
    for (const [index, id] of [...new Set(own)].entries())
      await control('apps', {
        network,
        key,
        platform,
        // An application has one app ID at a network; another one for testing is another application.
        identifier: index === 0 ? identifier : `${identifier}.test`,
        name: title.name,
        audience: title.audience,
        terms: seen?.apps.find((app) => app.id === id)?.terms ?? true,
        id,
      });
    const placements = Object.values(title.placements).flatMap(({ format, units }) =>
      stageNames.map((stage) => ({ format, stage, unit: valueAt(units, network)?.[platform]?.[stage] })),
    );
    const known = new Set<string>();
    for (const { format, stage, unit } of placements) {
      if (unit === undefined || known.has(unit) || isSample('unit', unit)) continue;
      known.add(unit);
      const listed = seen?.units.find(({ id }) => id === unit);
      // A list that was read does not have it: so the network does not.
      if (seen && !listed) continue;
      const from = listed?.servesFrom;
      await control('units', {
        network,
        key,
        // Builds for testing often have identifiers of their own.
        app: stage === 'production' && production !== undefined ? production : null,
        platform: listed?.platform ?? platform,
        format: listed?.format ?? format,
        name: listed?.name ?? unit,
        id: unit,
        serves: true,
        ...(from && from > now ? { 'serves-from': from } : {}),
      });
      if (listed?.status && listed.status !== 'active')
        await control('unit', { network, unit, status: listed.status });
    }
  }
}

function usedBy(title: Title, { id }: Profile): boolean {
  return (
    valueAt(title.networks, id) !== undefined ||
    Object.values(title.placements).some(({ units }) => valueAt(units, id) !== undefined)
  );
}

/** The account number that a title's IDs carry, where a network's IDs do. */
function accountIn(profile: Profile, title: Title): string | undefined {
  const pattern = profile.ids.unit && readPattern(profile.ids.unit.pattern);
  for (const { units } of Object.values(title.placements))
    for (const platform of platformNames) {
      const id = valueAt(units, profile.id)?.[platform]?.production;
      const account = id === undefined ? undefined : pattern?.groupsOf(id)?.get('account');
      if (account !== undefined) return account;
    }
  return undefined;
}
