import * as z from 'zod';
import { Platform } from '../words/words.js';
import { Place } from './evidence.js';

/** Something that a build file declares and that might belong to an SDK, whichever it is. */
export const Declared = z
  .object({
    platform: Platform,
    kind: z.enum(['meta-data', 'plist-key', 'dependency', 'pod', 'package', 'repository']),
    name: z.string(),
    value: z.string(),
    place: Place,
  })
  .meta({ description: 'A declaration in a build file that might belong to an SDK.' });
export type Declared = z.infer<typeof Declared>;
