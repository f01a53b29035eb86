import * as z from 'zod';
import { defineFact } from '../define.js';

/** The workspace that contains the project of an app. */
export const workspace = defineFact({
  kind: 'workspace',
  label: 'workspace',
  description: 'The workspace that contains the project of an app.',
  fields: {
    holdsPods: z.boolean().meta({ description: 'Whether it has to be opened instead of the project.' }),
  },
  detail: ({ holdsPods }) => (holdsPods ? 'to be opened instead of the project' : 'beside the project'),
});
