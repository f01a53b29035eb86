import { defineFact } from '../define.js';

/** A component that the merged manifest declares and a profile names. */
export const component = defineFact({
  kind: 'component',
  label: 'component',
  description: 'A component of the merged manifest; the name is its element.',
  fields: {},
});
