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
      .meta({ description: 'The current value in the configuration; null if there is none.' }),
  },
  detail: ({ expected }) => `${expected ?? 'nothing'} in the configuration`,
});
