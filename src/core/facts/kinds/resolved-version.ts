import * as z from 'zod';
import { defineFact } from '../define.js';

/** The version that a lock file holds for a declared package. */
export const resolvedVersion = defineFact({
  kind: 'resolved-version',
  label: 'installed version',
  description: 'The installed version of a package; empty if the lock file does not list it.',
  fields: {
    lock: z.string().meta({ description: 'The name of the lock file, such as pubspec.lock.' }),
    state: z
      .enum(['locked', 'missing', 'no-lock'])
      .meta({ description: 'Whether the lock file lists the package, lacks it, or does not exist.' }),
  },
  detail: ({ lock, state }) =>
    ({ locked: `in ${lock}`, missing: `not in ${lock}`, 'no-lock': `no ${lock}` })[state],
});
