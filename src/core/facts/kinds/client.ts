import { defineFact } from '../define.js';

/** Why a project has no development client of its own. */
export const client = defineFact({
  kind: 'client',
  label: 'development client',
  description: 'Why a project has no development client of its own.',
  fields: {},
});
