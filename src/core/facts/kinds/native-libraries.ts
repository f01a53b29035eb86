import * as z from 'zod';
import { defineFact } from '../define.js';

/** Whether the native libraries of a package were fetched. */
export const nativeLibraries = defineFact({
  kind: 'native-libraries',
  label: 'native libraries',
  description: 'The version of a package that its native libraries were fetched for.',
  fields: {
    state: z.enum(['fetched', 'older', 'not-fetched']).meta({
      description:
        'Whether they were fetched, fetched for an older version of the package, or never fetched.',
    }),
  },
  detail: ({ state }) => state.replace('-', ' '),
});
