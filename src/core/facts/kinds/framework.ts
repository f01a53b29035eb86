import { defineFact } from '../define.js';

/** The version of the framework that a tree is built with. */
export const framework = defineFact({
  kind: 'framework',
  label: 'framework',
  description: 'The version of a framework, or the range that a tree allows.',
  fields: {},
});
