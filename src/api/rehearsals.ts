import * as z from 'zod';
import { Platform } from '../core/words/words.js';

const Names = z.array(z.string().min(1).max(200)).min(1).max(500);

export const RehearsalRequest = z
  .object({
    title: z.string().max(64).nullable().default(null),
    scenario: z
      .union([
        z.object({ name: z.string().max(60) }).meta({ description: 'A built-in scenario.' }),
        z.object({ document: z.string().max(200_000) }).meta({ description: 'A scenario as YAML.' }),
      ])
      .default({ name: 'first-session' }),
    seed: z.number().int().min(0).max(4_294_967_295).default(1),
    variants: Names.optional(),
    platforms: z.array(Platform).min(1).max(2).optional(),
    placements: Names.optional(),
    offline: z.boolean().default(false).meta({ description: 'The device has no connection.' }),
    noFill: z.boolean().default(false).meta({ description: 'No network fills a request.' }),
    slow: z.boolean().default(false).meta({ description: 'Ads take 12 seconds to arrive.' }),
    trace: z
      .boolean()
      .default(false)
      .meta({ description: 'Whether to include the events and the exchanges with the partner.' }),
  })
  .meta({ description: 'What to rehearse, and how.' });
export type RehearsalRequest = z.infer<typeof RehearsalRequest>;

export const ScenarioList = z
  .array(z.object({ id: z.string(), name: z.string(), about: z.string(), source: z.string() }))
  .meta({ title: 'Scenarios', description: 'The built-in scenarios.' });
export type ScenarioList = z.infer<typeof ScenarioList>;
