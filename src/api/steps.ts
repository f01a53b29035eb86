import * as z from 'zod';
import { Platform } from '../core/words/words.js';

export { Steps, StoreListing } from '../core/steps/model.js';

export const TickWrite = z.object({
  step: z.string().max(64),
  platform: Platform,
  network: z.string().max(64).nullable().default(null),
  note: z.string().max(500).nullable().default(null),
  done: z.boolean().default(true).meta({ description: 'False removes the mark.' }),
});
export type TickWrite = z.infer<typeof TickWrite>;
