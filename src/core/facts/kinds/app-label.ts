import { defineFact } from '../define.js';

/** The name under which people see an app on their device. */
export const appLabel = defineFact({
  kind: 'app-label',
  label: 'label of the app',
  description: 'The name under which people see the app on their device.',
  fields: {},
});
