import { defineFact } from '../define.js';

/** The lowest Android level that a variant runs on. */
export const minSdk = defineFact({
  kind: 'min-sdk',
  label: 'minSdk',
  description: 'The lowest Android API level that a variant runs on.',
  fields: {},
  identity: () => '',
});
