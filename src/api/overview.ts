import * as z from 'zod';
import { longestSearch, SearchHit } from '../core/search/model.js';

export const SearchQuery = z.object({
  text: z.string().max(longestSearch).meta({ description: 'A name or an ID, or a part of one.' }),
  most: z.coerce
    .number()
    .int()
    .min(1)
    .max(50)
    .default(8)
    .meta({ description: 'The maximum number of hits of each kind.' }),
});
export const SearchAnswer = z.array(SearchHit);
export type SearchAnswer = z.infer<typeof SearchAnswer>;

export const TraceQuery = z.object({ id: z.string().min(1).max(longestSearch) });
