import * as z from 'zod';
import { defineFact } from '../define.js';

/** A permission that the merged manifest of a variant requires. */
export const permission = defineFact({
  kind: 'permission',
  label: 'permission',
  description: 'An Android permission.',
  fields: {
    maxSdk: z.string().optional().meta({
      description:
        'The highest API level on which the permission is requested. Without it there is no limit.',
    }),
  },
  detail: ({ maxSdk }) => (maxSdk === undefined ? undefined : `up to API level ${maxSdk}`),
});
