import * as z from 'zod';
import { defineFact } from '../define.js';

/** A repository or feed that a build names for the SDK of a network. */
export const repository = defineFact({
  kind: 'repository',
  label: 'repository',
  description: 'A repository that the SDK of a network comes from.',
  fields: {
    scope: z
      .enum(['settings', 'project', 'feed'])
      .meta({ description: 'Whether the settings of the build name it, one project, or a package manager.' }),
  },
  identity: ({ value }) => value,
  subject: () => undefined,
  detail: ({ scope }) => (scope === 'feed' ? undefined : `in ${scope}`),
});
