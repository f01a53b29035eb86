import { defineFact } from '../define.js';

/** A target that is built into an app and is not an app itself. */
export const extension = defineFact({
  kind: 'extension',
  label: 'extension',
  description: 'A target that is embedded in the app; the value is its product type.',
  fields: {},
});
