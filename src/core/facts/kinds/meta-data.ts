import * as z from 'zod';
import { defineFact } from '../define.js';

/** A meta-data element of the merged manifest that a profile requires, other than the one with the app ID. */
export const metaData = defineFact({
  kind: 'meta-data',
  label: 'meta-data',
  description: 'A meta-data element of the merged manifest that a network requires.',
  fields: {
    as: z.enum(['value', 'resource']).meta({
      description: 'Whether android:value or android:resource gives it.',
    }),
  },
});
