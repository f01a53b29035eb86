import * as z from 'zod';
import { HeldAt, heldAtText } from '../evidence.js';
import { Format } from '../../words/words.js';
import { defineFact } from '../define.js';

const CallAction = z
  .enum([
    'start',
    'consent',
    'test-devices',
    'listen',
    'stop-listening',
    'identify',
    'load',
    'view',
    'show',
    'release',
  ])
  .meta({ description: 'What the call does.' });
export type CallAction = z.infer<typeof CallAction>;

/** A call of the SDK of a network in the code of an app. */
export const call = defineFact({
  kind: 'call',
  label: 'call',
  description: 'A call of the SDK of a network; the value is the call.',
  fields: {
    action: CallAction,
    format: Format.optional().meta({ description: 'The format that the call concerns.' }),
    follows: z
      .array(z.enum(['start', 'consent']))
      .optional()
      .meta({
        description:
          'The calls of the same network whose closure contains it, or whose completion it waits for.',
      }),
    awaited: z.boolean().optional().meta({ description: 'Whether the code waits for it.' }),
    anchor: HeldAt.optional().meta({ description: 'Where the view that it creates is anchored.' }),
  },
  subject: ({ action, format }) => [action.replace('-', ' '), format].filter(Boolean).join(' '),
  detail: ({ anchor }) => anchor && `anchored to ${heldAtText[anchor]}`,
});
