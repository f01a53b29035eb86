import { defineFact } from '../define.js';

/** A call that readies the framework of an app. */
export const frameworkCall = defineFact({
  kind: 'framework-call',
  label: 'framework call',
  description: 'A call that readies the framework of an app.',
  fields: {},
});
