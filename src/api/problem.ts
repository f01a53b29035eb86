import * as z from 'zod';
import { ThreeWayChange } from '../core/roster/compare.js';

export const FieldFault = z.object({
  field: z.string(),
  message: z.string(),
  fix: z.string().optional(),
  place: z.object({ line: z.number(), column: z.number() }).optional(),
});
export type FieldFault = z.infer<typeof FieldFault>;

export const Problem = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.number(),
    code: z.string(),
    detail: z.string(),
    fix: z.string().optional(),
    errors: z.array(FieldFault).optional(),
    changes: z
      .array(ThreeWayChange)
      .optional()
      .meta({ description: 'For a stale import: the three-way difference.' }),
  })
  .meta({ title: 'Problem', description: 'An error in the form of RFC 9457, with what to do next.' });
export type Problem = z.infer<typeof Problem>;
