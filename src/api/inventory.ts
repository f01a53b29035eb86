import * as z from 'zod';
import { HeldElsewhere, UnitMatch, Unmatched } from '../core/inventory/match.js';
import { InventoryReading, InvalidRow } from '../core/inventory/model.js';
import { Platform } from '../core/words/words.js';
import { ProvisionStep } from '../core/provision/plan.js';

export const ProvisionRequest = z.object({
  networks: z.array(z.string().max(64)).max(50).optional(),
  platforms: z.array(Platform).optional(),
  names: z.string().max(80).optional().meta({
    description: 'The pattern for unit names: {title}, {placement}, {format} and {platform} are filled in.',
  }),
  settle: z.enum(['roster', 'partner']).optional().meta({
    description: 'Whose settings to keep where the two differ; by default, differences are only shown.',
  }),
  dryRun: z.boolean().default(false),
  plan: z
    .string()
    .max(64)
    .optional()
    .meta({ description: 'The digest of the confirmed plan; any other plan is refused.' }),
});
export type ProvisionRequest = z.infer<typeof ProvisionRequest>;

export const ProvisionAnswer = z
  .object({
    title: z.string(),
    plan: z.string().meta({ description: 'Digest of the plan.' }),
    networks: z.array(
      z.object({
        network: z.string(),
        name: z.string(),
        steps: z.array(ProvisionStep),
        odd: z.array(InvalidRow),
      }),
    ),
    applied: z.boolean(),
    done: z.array(
      z.object({
        network: z.string(),
        platform: Platform,
        placement: z.string().nullable(),
        what: z.enum(['app created', 'app taken over', 'unit created', 'unit taken over', 'setting changed']),
        id: z.string(),
      }),
    ),
  })
  .meta({
    title: 'Provision',
    description: 'The steps that make the networks and the roster agree, and what was done.',
  });
export type ProvisionAnswer = z.infer<typeof ProvisionAnswer>;

export const CollectRequest = z.object({
  network: z.string().max(64),
  table: z
    .string()
    .max(60_000_000)
    .optional()
    .meta({ description: 'A CSV table; default: the list is fetched from the network.' }),
  columns: z.record(z.string().max(40), z.string().max(100)).optional(),
  separator: z.string().length(1).optional(),
  dryRun: z.boolean().default(false),
  takeLow: z
    .boolean()
    .default(false)
    .meta({ description: 'Whether to accept matches of low confidence too.' }),
  acceptNames: z
    .boolean()
    .default(false)
    .meta({ description: 'Whether to accept the current names of units as the expected ones.' }),
  plan: z.string().max(64).optional(),
});
export type CollectRequest = z.infer<typeof CollectRequest>;

export const CollectAnswer = z
  .object({
    title: z.string(),
    network: z.string(),
    source: z.enum(['http', 'csv']),
    plan: z.string(),
    units: z.number(),
    matches: z.array(UnitMatch),
    unmatched: z.array(Unmatched).meta({ description: 'At most 1000; see `unmatchedCount`.' }),
    unmatchedCount: z.number(),
    elsewhere: z.array(HeldElsewhere).meta({ description: 'At most 1000; see `elsewhereCount`.' }),
    elsewhereCount: z.number(),
    odd: z.array(InvalidRow).meta({ description: 'At most 1000; see `oddCount`.' }),
    oddCount: z.number(),
    taken: z.number().meta({ description: 'IDs that were written into the roster.' }),
    applied: z.boolean(),
  })
  .meta({ title: 'Collect', description: 'What an inventory holds for a title.' });
export type CollectAnswer = z.infer<typeof CollectAnswer>;

export const InventoryAnswer = InventoryReading.nullable();

export const SecretList = z
  .array(
    z.object({
      name: z.string(),
      from: z.enum(['environment', 'file', 'nowhere']),
      fingerprint: z.string().nullable(),
      usedBy: z.array(z.string()),
      hosts: z.array(z.string()).meta({ description: 'The hosts that the owner allowed for it.' }),
    }),
  )
  .meta({ description: 'The secrets that the roster names: where each comes from, never its value.' });
export type SecretList = z.infer<typeof SecretList>;
