import { defineFact } from '../define.js';

/** The entry of a network’s plugin in an app configuration. */
export const pluginEntry = defineFact({
  kind: 'plugin-entry',
  label: 'plugin entry',
  description: 'The entry of a plugin in an app configuration; the value lists its options.',
  fields: {},
});
