import * as z from 'zod';
import type { Reading } from '../board/model.js';
import { isIdFact } from '../facts/model.js';
import { Place } from '../facts/evidence.js';
import { InventoryUnit, type InventoryReading } from '../inventory/model.js';
import { idKinds, type Profile } from '../network/model.js';
import { recogniser } from '../network/recognise.js';
import type { Title } from '../roster/model.js';
import { heldIds } from '../roster/validate.js';
import { valueAt } from '../text/own-values.js';
import { Format, Platform, Stage } from '../words/words.js';

export const IdTrace = z
  .object({
    id: z.string(),
    is: z
      .array(
        z.object({
          network: z.string(),
          networkName: z.string(),
          kind: z.enum(idKinds),
          label: z.string().meta({ description: 'What the network calls such an ID.' }),
          platform: Platform.nullable().meta({ description: 'The platform that the ID itself shows.' }),
          sample: z
            .array(z.object({ platform: Platform, format: Format.optional() }))
            .nullable()
            .meta({
              description: 'What it stands for while testing, if the network publishes it for that.',
            }),
        }),
      )
      .meta({ description: 'What the ID is, by its shape.' }),
    record: z
      .array(
        z.object({
          title: z.string(),
          titleName: z.string(),
          network: z.string(),
          placement: z.string().nullable().meta({ description: 'Null for an app ID.' }),
          platform: Platform,
          stage: Stage,
        }),
      )
      .meta({ description: 'Where it is in the roster.' }),
    builds: z
      .array(
        z.object({
          title: z.string(),
          platform: Platform,
          tree: z.string(),
          readAt: z.string(),
          place: Place,
          variants: z.array(z.string()),
          placement: z
            .string()
            .nullable()
            .meta({ description: 'The placement that the roster assigns it to.' }),
        }),
      )
      .meta({ description: 'Where trees contain it, as last read.' }),
    listed: z
      .array(
        z.object({
          network: z.string(),
          readAt: z.string(),
          unit: InventoryUnit.nullable().meta({ description: 'Null for an app.' }),
          name: z.string(),
        }),
      )
      .meta({ description: 'What the networks’ own lists say of it.' }),
    changes: z
      .array(
        z.object({
          at: z.string(),
          who: z.string(),
          title: z.string().nullable(),
          path: z.string(),
          did: z.enum(['set', 'taken-out']),
        }),
      )
      .meta({ description: 'When it was set and removed, latest first.' }),
    earned: z
      .array(
        z.object({
          network: z.string(),
          from: z.string(),
          to: z.string(),
          currency: z.string(),
          requests: z.number().nullable(),
          impressions: z.number(),
          revenue: z.number().int().meta({ description: 'In micros.' }),
        }),
      )
      .meta({ description: 'Its numbers of the last four weeks on record.' }),
  })
  .meta({ title: 'ID trace', description: 'Everything known about an ID.' });
export type IdTrace = z.infer<typeof IdTrace>;

/** What an ID is traced through. */
export interface TraceSources {
  profiles: readonly Profile[];
  /** Titles that may hold it. */
  titles: readonly { id: string; title: Title }[];
  /** Last readings of trees that may carry it. */
  readings: readonly { title: string; reading: Reading }[];
  inventories: readonly InventoryReading[];
  changes: IdTrace['changes'];
  earned: IdTrace['earned'];
}

/** Puts together what is known of an ID, taken exactly as it is written. */
export function traceId(
  id: string,
  { profiles, titles, readings, inventories, ...rest }: TraceSources,
): IdTrace {
  const record = titles.flatMap(({ id: of, title }) =>
    heldIds(title)
      .filter((held) => held.id === id)
      .map(({ network, placement = null, platform, stage }) => ({
        title: of,
        titleName: title.name,
        network,
        placement,
        platform,
        stage,
      })),
  );
  const recognise = recogniser(
    profiles,
    record.map(({ network }) => ({ id, network })),
  );
  return {
    id,
    is: recognise.recognise(id).map(({ network, kind, platform, sample }) => {
      const profile = profiles.find((one) => one.id === network);
      const label = profile && valueAt(profile.ids, kind)?.label;
      return {
        network,
        networkName: profile?.name ?? network,
        kind,
        label: label ?? `${kind} ID`,
        platform: platform ?? null,
        sample: sample ?? null,
      };
    }),
    record,
    builds: readings.flatMap(({ title, reading }) => carried(id, title, reading)),
    listed: inventories.flatMap(({ network, readAt, units, apps }) => [
      ...units.filter((unit) => unit.id === id).map((unit) => ({ network, readAt, unit, name: unit.name })),
      ...apps.filter((app) => app.id === id).map(({ name }) => ({ network, readAt, unit: null, name })),
    ]),
    ...rest,
  };
}

function carried(id: string, title: string, { platform, tree, readAt, facts }: Reading): IdTrace['builds'] {
  return facts.filter(isIdFact).flatMap((fact) =>
    fact.value !== id || fact.platform !== platform
      ? []
      : [
          {
            title,
            platform,
            tree,
            readAt,
            place: fact.place,
            variants: [...fact.variants],
            placement: 'placement' in fact ? (fact.placement ?? null) : null,
          },
        ],
  );
}
