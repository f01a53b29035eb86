import * as z from 'zod';
import { defineFact } from '../define.js';

/** A version that a build takes whatever its dependencies ask for. */
export const forcedVersion = defineFact({
  kind: 'forced-version',
  label: 'forced version',
  description: 'A version that the build uses for a package, whatever version is declared.',
  fields: {
    by: z
      .string()
      .meta({ description: 'What forces it, as the build tool calls it: force, constraints, overrides.' }),
  },
  detail: ({ by }) => `by ${by}`,
});
