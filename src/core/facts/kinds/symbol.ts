import { defineFact } from '../define.js';

/** A scripting symbol that a package of a network requires. */
export const symbol = defineFact({
  kind: 'symbol',
  label: 'symbol',
  description: 'A scripting symbol that a build defines.',
  fields: {},
});
