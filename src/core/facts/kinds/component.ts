import * as z from 'zod';
import { defineFact } from '../define.js';
import { Place } from '../evidence.js';

/** A component that the merged manifest declares and a profile names. */
export const component = defineFact({
  kind: 'component',
  label: 'component',
  description: 'A component of the merged manifest; the name is its element.',
  fields: {
    attributes: z
      .record(z.string(), z.string())
      .optional()
      .meta({ description: 'Its attributes in the merged manifest, by name without prefix.' }),
    places: z
      .record(z.string(), Place)
      .optional()
      .meta({ description: 'Where the values that come from the module’s own manifests are.' }),
  },
});
