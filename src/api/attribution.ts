import * as z from 'zod';
import { listForms } from '../core/formats/attribution-list/read.js';
import { AttributionComparison, NeededIds } from '../core/roster/attribution-needs.js';

const ListText = z.string().max(4_000_000);

export const AttributionNeeds = z
  .object({ needed: z.array(NeededIds), ids: z.array(z.string()) })
  .meta({ title: 'Attribution needs', description: 'The SKAdNetwork identifiers that the roster requires.' });
export const AttributionText = z.object({ text: ListText });
export const AttributionLint = z
  .object({
    form: z.enum(listForms),
    ids: z.array(z.string()).meta({ description: 'In standard form, sorted, each once.' }),
    problems: z.array(
      z.object({ line: z.number(), column: z.number(), message: z.string(), fix: z.string() }),
    ),
  })
  .meta({ title: 'Attribution list' });
export type AttributionLint = z.infer<typeof AttributionLint>;
export const AttributionMergeRequest = z.object({
  text: ListText,
  path: z.string().max(1000).default('list'),
  lists: z.array(ListText).max(50).default([]),
});
export const AttributionMerge = z
  .object({ text: z.string(), patch: z.string(), ids: z.array(z.string()) })
  .meta({ title: 'Merged attribution list' });
export const AttributionQuestion = z.object({
  title: z.string().nullable().default(null),
  lists: z.array(ListText).max(50).default([]),
});
export { AttributionComparison };
