import * as z from 'zod';
import { heldAtNames, type HeldAt as HeldAtName } from '../words/names.js';

export const Place = z
  .object({
    path: z.string(),
    line: z.number().int().min(1),
    column: z.number().int().min(1),
    endLine: z.number().int().min(1).optional(),
    endColumn: z.number().int().min(1).optional(),
  })
  .meta({ description: 'A place in a file. Lines and columns start at 1; columns count UTF-16 units.' });
export type Place = z.infer<typeof Place>;

export const ChainStep = z
  .object({ what: z.string(), value: z.string().nullable(), place: Place.nullable() })
  .meta({ description: 'One link in the evidence for a fact: what was read, what it said, and where.' });
export type ChainStep = z.infer<typeof ChainStep>;

const Conditions = z
  .array(z.object({ text: z.string(), holds: z.boolean() }))
  .meta({ description: 'The conditions that must hold, or must not, for it to run.' });
const Methods = z.array(z.string()).meta({ description: 'The methods around it, the outermost first.' });

export const CodePlace = z
  .object({
    type: z.string().nullable().meta({ description: 'The class around it.' }),
    methods: Methods,
    conditions: Conditions,
    looped: z.literal(true).optional().meta({
      description: 'Whether it is in a loop, or in a closure that is called for each of several.',
    }),
    flow: z
      .discriminatedUnion('into', [
        z.object({ into: z.literal('constant'), name: z.string() }),
        z.object({
          into: z.literal('argument'),
          of: z.string(),
          at: z.union([z.number(), z.string()]).meta({ description: 'Counted from 0, or its label.' }),
        }),
      ])
      .optional()
      .meta({ description: 'What an ID is assigned or passed to, if that is clear.' }),
    argument: z
      .object({ written: z.string(), ids: z.array(z.string()) })
      .optional()
      .meta({ description: 'The ID argument of a call, as written and as resolved.' }),
    calledAt: z
      .array(
        z.object({
          methods: Methods,
          conditions: Conditions,
          follows: z.array(z.enum(['start', 'consent'])).optional(),
          line: z.number().int().min(1),
          column: z.number().int().min(1),
        }),
      )
      .optional()
      .meta({
        description: 'Where the same file calls the method around a call, directly or through another.',
      }),
    empty: z.boolean().optional().meta({ description: 'Whether a callback does nothing.' }),
    waits: z.enum(['open', 'limited']).optional().meta({
      description: 'Whether code waits for a call: without a limit, or with a time limit.',
    }),
  })
  .meta({ description: 'Where in the code something is.' });
export type CodePlace = z.infer<typeof CodePlace>;

export const HeldAt = z.enum(heldAtNames).meta({ description: 'Where on its screen a view is anchored.' });
export type HeldAt = z.infer<typeof HeldAt>;

/** Where a view is held, for people. */
export const heldAtText: Record<HeldAtName, string> = {
  'top-edge': 'top edge',
  'bottom-edge': 'bottom edge',
  'no-edge': 'no edge',
  'scrolling-view': 'a scrolling view',
  'whole-layout': 'the whole layout',
  'own-component': 'its own component',
};
