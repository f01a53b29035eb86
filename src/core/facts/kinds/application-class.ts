import { defineFact } from '../define.js';

/** The class of the application element of a manifest. */
export const applicationClass = defineFact({
  kind: 'application-class',
  label: 'application class',
  description: 'The application class of an Android app.',
  fields: {},
});
