import { defineFact } from '../define.js';

/** The Android level that a variant is compiled against. */
export const compileSdk = defineFact({
  kind: 'compile-sdk',
  label: 'compileSdk',
  description: 'The Android API level that a variant is compiled against.',
  fields: {},
  identity: () => '',
});
