import { defineFact } from '../define.js';

/** A place in code that names a placement through the placebook. */
export const placementUse = defineFact({
  kind: 'placement-use',
  label: 'placement',
  description: 'A place in code that names a placement through the placebook.',
  fields: {},
});
