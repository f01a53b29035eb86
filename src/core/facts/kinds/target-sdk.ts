import { defineFact } from '../define.js';

/** The Android level that a variant targets. */
export const targetSdk = defineFact({
  kind: 'target-sdk',
  label: 'targetSdk',
  description: 'The Android API level that a variant targets.',
  fields: {},
  identity: () => '',
});
