import * as z from 'zod';
import { Platform, Slug, Stage } from '../core/words/words.js';
import { Placement, Publisher, Title } from '../core/roster/model.js';

/** The parts of a title that are changed together. Spelt out, for a part that is left out must stay as it is. */
export const TitleHead = z.strictObject({
  name: Title.shape.name.optional(),
  audience: Title.shape.audience.unwrap().optional(),
  stages: Title.shape.stages.unwrap().optional(),
  editions: Title.shape.editions.unwrap().optional(),
});
export const NewTitle = z.object({ id: Slug, title: Title });

export const DraftRequest = z.object({
  snapshots: z.array(z.string().max(64)).min(1).max(20),
  id: Slug.optional(),
  name: z.string().min(1).max(100).optional(),
});
export const TakeDraft = z.object({
  document: z
    .string()
    .max(2_000_000)
    .meta({ description: 'The edited draft: a roster document with at least one title.' }),
});
export const TitleRecord = z
  .object({
    id: z.string(),
    version: z.number().int(),
    placementVersions: z.record(z.string(), z.number()),
    title: Title,
  })
  .meta({ title: 'Title record', description: 'A title with its version, and those of its placements.' });
export type TitleRecord = z.infer<typeof TitleRecord>;

export const TitleSummary = z.object({
  id: z.string(),
  name: z.string(),
  version: z.number(),
  platforms: z.array(Platform),
  networks: z.array(z.string()),
  placements: z.number(),
  ids: z.number(),
});
export type TitleSummary = z.infer<typeof TitleSummary>;

export const PlacementRecord = z.object({
  name: z.string(),
  version: z.number().int(),
  placement: Placement,
});
export type PlacementRecord = z.infer<typeof PlacementRecord>;

export const IdSlot = z.object({
  network: Slug,
  platform: Platform,
  stage: Stage,
  placement: Slug.nullable().default(null).meta({ description: 'Null for an app ID.' }),
});
export const IdWrite = IdSlot.extend({
  credential: z.string().max(64).optional().meta({
    description: 'A credential of the edition instead of an ID; its value is secret:NAME.',
  }),
  value: z.string().max(400).nullable().meta({ description: 'Null removes the ID.' }),
});
export type IdWrite = z.infer<typeof IdWrite>;

export const HistoryEntry = z
  .object({
    revision: z.number(),
    at: z.string(),
    who: z.string(),
    title: z.string().nullable(),
    path: z.string(),
    was: z.unknown(),
    is: z.unknown(),
  })
  .meta({
    title: 'History entry',
    description: 'A changed field: who changed it, when, and the values before and after.',
  });
export type HistoryEntry = z.infer<typeof HistoryEntry>;

export const RosterDocument = z.object({
  revision: z.number(),
  document: z.string(),
  profiles: z
    .array(z.object({ id: z.string(), text: z.string() }))
    .meta({ description: 'The profiles that are not built in, as YAML.' }),
});
export const FieldDifference = z
  .object({ path: z.string(), was: z.unknown().optional(), is: z.unknown().optional() })
  .meta({ description: 'One field that differs; `was` or `is` is missing where the field is absent.' });
export const RosterImport = z.object({
  document: z.string().max(16_000_000),
  dryRun: z.boolean().default(false),
  prune: z.boolean().default(false).meta({ description: 'Remove titles that the document does not name.' }),
  profiles: z.array(z.string().max(1_000_000)).max(200).default([]).meta({
    description: 'Profiles that belong to the document, as YAML. Those that are not known yet are added.',
  }),
});
export const RosterImported = z.object({
  revision: z.number(),
  changes: z.array(FieldDifference),
  applied: z.boolean(),
});
export type RosterImported = z.infer<typeof RosterImported>;
export { Publisher };
