import { defineFact } from '../define.js';

/** A library, pod or package that a build declares. */
export const dependency = defineFact({
  kind: 'dependency',
  label: 'dependency',
  description: 'A library, pod or package that the build declares; the value is its version or range.',
  fields: {},
});
