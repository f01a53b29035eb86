import { defineFact } from '../define.js';

/** The file of a network that goes with an app, and the identifier in it. */
export const companion = defineFact({
  kind: 'companion',
  label: 'companion file',
  description: 'The companion file of a network; the value is the identifier that it was made for.',
  fields: {},
});
