import { defineFact } from '../define.js';

/** A permission that the merged manifest of a variant requires. */
export const permission = defineFact({
  kind: 'permission',
  label: 'permission',
  description: 'An Android permission.',
  fields: {},
});
