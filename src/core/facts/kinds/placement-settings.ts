import * as z from 'zod';
import { Format } from '../../words/words.js';
import { defineFact } from '../define.js';

/** The settings that a placebook gives a placement. */
export const placementSettings = defineFact({
  kind: 'placement-settings',
  label: 'placement settings',
  description: 'The settings that a placebook gives a placement, in words.',
  fields: {
    format: Format.optional().meta({ description: 'The format that the placebook gives it.' }),
    fields: z
      .record(z.string(), z.string())
      .meta({ description: 'The settings by their names in placebooks.' }),
  },
});
