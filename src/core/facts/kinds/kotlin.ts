import { defineFact } from '../define.js';

/** The version of the Kotlin plugin that compiles a module. */
export const kotlin = defineFact({
  kind: 'kotlin',
  label: 'Kotlin',
  description: 'The version of the Kotlin plugin of a module.',
  fields: {},
  identity: () => '',
});
