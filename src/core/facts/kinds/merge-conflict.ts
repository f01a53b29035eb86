import { defineFact } from '../define.js';

/** An attribute that two manifests set to different values. */
export const mergeConflict = defineFact({
  kind: 'merge-conflict',
  label: 'merge conflict',
  description: 'An attribute that two manifests set to different values.',
  fields: {},
});
