import { defineFact } from '../define.js';

/** A flag written by hand that chooses between test and production. */
export const handFlag = defineFact({
  kind: 'hand-flag',
  label: 'flag',
  description: 'A flag written by hand that chooses between test and production.',
  fields: {},
});
