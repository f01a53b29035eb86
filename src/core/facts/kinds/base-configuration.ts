import * as z from 'zod';
import { defineFact } from '../define.js';

/** The configuration file that a target with pods is based on. */
export const baseConfiguration = defineFact({
  kind: 'base-configuration',
  label: 'base configuration',
  description: 'The configuration file that a target with pods is based on; the value is its path.',
  fields: {
    pods: z.string().meta({ description: 'The settings of the pods, as the file has to include them.' }),
    includesPods: z
      .boolean()
      .meta({ description: 'Whether it includes them, itself or through other files.' }),
  },
  identity: ({ value }) => value,
  detail: ({ includesPods }) => (includesPods ? undefined : 'without the settings of the pods'),
});
