import { defineFact } from '../define.js';

/** A library that a network hands out as a file, where a build takes it in. */
export const binary = defineFact({
  kind: 'binary',
  label: 'local library',
  description: 'A library file of a network; the value is its path.',
  fields: {},
});
