import { valueAt } from '../text/own-values.js';
import * as z from 'zod';
import { InventoryApp, InventoryUnit, UnitSettings } from '../inventory/model.js';
import { unitName } from '../inventory/names.js';
import { type Profile } from '../network/model.js';
import { Format, Platform, platforms } from '../words/words.js';
import { offers } from '../network/recognise.js';
import { settingDifferences, settingsFor } from './settings.js';
import type { Title } from '../roster/model.js';
import { usesNetwork } from '../roster/expected.js';

const Base = { network: z.string(), platform: Platform };

export const ProvisionStep = z
  .discriminatedUnion('do', [
    z.object({
      ...Base,
      do: z.literal('create-app'),
      identifier: z.string(),
      name: z.string(),
      audience: z.string(),
    }),
    z.object({ ...Base, do: z.literal('take-app'), app: InventoryApp, isNew: z.boolean() }),
    z.object({
      ...Base,
      do: z.literal('create-unit'),
      placement: z.string(),
      format: Format,
      name: z.string(),
      settings: UnitSettings,
    }),
    z.object({
      ...Base,
      do: z.literal('take-unit'),
      placement: z.string(),
      unit: InventoryUnit,
      isNew: z.boolean(),
    }),
    z.object({
      ...Base,
      do: z.literal('settle'),
      placement: z.string(),
      unit: InventoryUnit,
      setting: z.string(),
      roster: z.unknown(),
      partner: z.unknown(),
    }),
    z.object({
      ...Base,
      do: z.literal('by-hand'),
      placement: z.string().nullable(),
      what: z.string(),
      why: z.string(),
    }),
  ])
  .meta({
    description:
      'One step: create or take over an app or a unit, settle a setting that differs, or what a person has to do.',
  });
export type ProvisionStep = z.infer<typeof ProvisionStep>;
export type CreateApp = Extract<ProvisionStep, { do: 'create-app' }>;
export type CreateUnit = Extract<ProvisionStep, { do: 'create-unit' }>;

export interface ProvisionInput {
  id: string;
  title: Title;
  profile: Profile;
  apps: readonly InventoryApp[];
  units: readonly InventoryUnit[];
  /** How units are named. */
  pattern: string;
  platforms?: readonly Platform[];
}

/** What would make a network's list and the roster agree, in the order in which it has to be done. */
export function planProvision(input: ProvisionInput): ProvisionStep[] {
  const { title, profile } = input;
  if (!usesNetwork(title, profile.id)) return [];
  return platforms
    .filter(
      (platform) =>
        title.editions[platform] && profile[platform] && (input.platforms?.includes(platform) ?? true),
    )
    .flatMap((platform) => [...appSteps(input, platform), ...unitSteps(input, platform)]);
}

function appSteps({ title, profile, apps }: ProvisionInput, platform: Platform): ProvisionStep[] {
  const edition = title.editions[platform];
  if (!edition || !profile.inventory?.http?.apps) return [];
  const base = { network: profile.id, platform };
  const own = valueAt(title.networks, profile.id)?.[platform]?.production?.app;
  const there = apps.filter((app) => app.platform === platform);
  const same = there.find(({ identifier }) => identifier === edition.identifier);
  const held = own === undefined ? undefined : there.find(({ id }) => id === own);
  const byHand = (what: string, why: string): ProvisionStep[] => [
    { ...base, do: 'by-hand', placement: null, what, why },
  ];
  if (held && held.identifier !== edition.identifier)
    return byHand(
      `At ${profile.name} ${own} belongs to ${held.identifier}; the ${platform} edition is ${edition.identifier}. Correct one of them.`,
      'An ID that was made for another application earns nothing, and can cost the account.',
    );
  if (own !== undefined && !held && profile.ids.app)
    return byHand(
      `${profile.name} does not know ${own}. Take it out of the roster, or look whose it is.`,
      'IDs that the network does not know earn nothing.',
    );
  if (same) {
    const steps: ProvisionStep[] = [
      { ...base, do: 'take-app', app: same, isNew: !!profile.ids.app && own === undefined },
    ];
    if (same.terms === false)
      steps.push(
        ...byHand(
          `Accept the terms of ${profile.name} for ${same.name}.`,
          profile.terms ?? 'Nothing serves until they are accepted.',
        ),
      );
    return steps;
  }
  return [
    {
      ...base,
      do: 'create-app',
      identifier: edition.identifier,
      name: title.name,
      audience: title.audience,
    },
    ...(profile.terms === undefined || profile.inventory.http.apps.fields.terms === undefined
      ? []
      : byHand(`Accept the terms of ${profile.name} for ${title.name}.`, profile.terms)),
  ];
}

function unitSteps(
  { id, title, profile, units, pattern }: ProvisionInput,
  platform: Platform,
): ProvisionStep[] {
  const byId = new Map(units.map((unit) => [unit.id, unit]));
  const byName = new Map(
    units
      .filter((unit) => unit.status !== 'removed' && unit.platform === platform)
      .map((unit) => [`${unit.format} ${unit.name}`, unit]),
  );
  return Object.entries(title.placements).flatMap(([placement, { format, units: ids, settings }]) => {
    if (!valueAt(ids, profile.id) || !offers(profile, format, platform)) return [];
    const base = { network: profile.id, platform, placement };
    const own = valueAt(ids, profile.id)?.[platform]?.production;
    const name = unitName(pattern, { title: id, placement, format, platform });
    const unit = own === undefined ? byName.get(`${format} ${name}`) : byId.get(own);
    if (unit)
      return [
        { ...base, do: 'take-unit', unit, isNew: own === undefined },
        ...settingDifferences(profile, settings, unit.settings).map((difference): ProvisionStep => ({
          ...base,
          do: 'settle',
          unit,
          ...difference,
        })),
      ];
    if (own !== undefined)
      return [
        {
          ...base,
          do: 'by-hand',
          what: `${profile.name} does not know ${own}. Take it out of the roster, or look whose it is.`,
          why: 'IDs that the network does not know earn nothing.',
        },
      ];
    return [{ ...base, do: 'create-unit', format, name, settings: settingsFor(profile, settings, format) }];
  });
}
