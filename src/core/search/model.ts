import * as z from 'zod';
import { Platform, Stage } from '../words/words.js';

export const hitKinds = ['id', 'title', 'placement', 'network', 'rule'] as const;

export const SearchHit = z
  .object({
    kind: z.enum(hitKinds),
    name: z.string().meta({ description: 'What was found: the ID itself, a name, or the ID of a rule.' }),
    where: z.string().meta({ description: 'Where it is, in words.' }),
    title: z.string().nullable(),
    placement: z.string().nullable(),
    network: z.string().nullable(),
    platform: Platform.nullable(),
    stage: Stage.nullable(),
  })
  .meta({
    title: 'Search hit',
    description: 'Something whose name or ID contains the searched text.',
  });
export type SearchHit = z.infer<typeof SearchHit>;

/** A longer search text cannot be a name or an ID. */
export const longestSearch = 200;
