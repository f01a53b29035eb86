import * as z from 'zod';
import { Duration, reasoned } from '../words/words.js';

const common = {
  'consent-first': z
    .boolean()
    .default(false)
    .meta({ description: 'Whether requests must wait for the user’s answer about consent.' }),
  keeps: Duration.optional().meta({
    description: 'How long a loaded ad may be shown; default: no limit.',
  }),
};

/** Where and how an SDK requests ads from its network. */
export const Serving = z.lazy(() =>
  z
    .discriminatedUnion('by', [
      reasoned({
        by: z.literal('openrtb'),
        address: z
          .url({ protocol: /^https$/ })
          .meta({ description: 'Where the SDK sends its bid requests (OpenRTB 2.6).' }),
        ...common,
      }),
      reasoned({
        by: z.literal('tag').meta({ description: 'The unit ID is the address of a VAST document.' }),
        ...common,
      }),
    ])
    .meta({
      description:
        'Where and how the SDK requests ads. Rehearsals send the same requests to the simulated partner.',
    }),
);
export type Serving = z.output<typeof Serving>;
