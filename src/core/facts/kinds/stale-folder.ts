import * as z from 'zod';
import { defineFact } from '../define.js';

/** A generated native folder that differs from the configuration it was made from. */
export const staleFolder = defineFact({
  kind: 'stale-folder',
  label: 'stale folder',
  description: 'A value in a generated native folder that differs from the configuration.',
  fields: {
    expected: z
      .string()
      .nullable()
      .meta({ description: 'What the configuration says now; null when it says nothing.' }),
  },
  detail: ({ expected }) => `${expected ?? 'nothing'} in the configuration`,
});
