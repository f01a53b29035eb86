import { defineFact } from '../define.js';

/** A Gradle plugin of a network that a module applies. */
export const buildPlugin = defineFact({
  kind: 'build-plugin',
  label: 'build plugin',
  description: 'A Gradle plugin of a network; the value is its version.',
  fields: {},
});
