import * as z from 'zod';
import { anchorNames, sizeNames } from './names.js';
import { Duration, Slug } from './words.js';

export const Settings = z
  .strictObject({
    refresh: z
      .union([z.enum(['managed', 'off']), Duration], 'One of managed, off, or a time such as 60s.')
      .optional()
      .meta({
        description: 'When a banner is refreshed: as the network decides, never, or after this time.',
      }),
    cap: z
      .strictObject({ count: z.number().int().min(1).max(1000), per: Duration.optional() })
      .optional()
      .meta({ description: 'The frequency cap; without a period, a finding says so.' }),
    content: z.array(z.enum(['text', 'image', 'video'])).optional(),
    skippable: z.boolean().optional(),
    reward: z.strictObject({ amount: z.number().int().min(1), item: z.string().min(1).max(60) }).optional(),
    'end-card': z.boolean().optional(),
    size: z.enum(sizeNames).optional(),
    anchor: z.enum(anchorNames).optional(),
    every: z
      .number()
      .int()
      .min(1)
      .max(1000)
      .optional()
      .meta({ description: 'In a list: the number of items between two ads.' }),
    first: z
      .number()
      .int()
      .min(0)
      .max(1000)
      .optional()
      .meta({ description: 'In a list: the number of items before the first ad.' }),
    timeout: Duration.optional(),
    fallback: z.array(Slug).optional().meta({ description: 'The networks to try, in order.' }),
  })
  .meta({ description: 'Settings of a placement, checked against what each network allows.' });
export type Settings = z.infer<typeof Settings>;
