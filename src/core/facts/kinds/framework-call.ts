import { defineFact } from '../define.js';

/** A call that initialises the framework of an app. */
export const frameworkCall = defineFact({
  kind: 'framework-call',
  label: 'framework call',
  description: 'A call that initialises the framework of an app.',
  fields: {},
});
