import { defineFact } from '../define.js';

/** The name under which people see an app on their device. */
export const appLabel = defineFact({
  kind: 'app-label',
  label: 'label of the app',
  description: 'The display name of the app on a device.',
  fields: {},
});
