import { defineFact } from '../define.js';

/** A setting that keeps a package from being linked into native builds. */
export const linking = defineFact({
  kind: 'linking',
  label: 'linking',
  description: 'A setting that keeps a package from being linked.',
  fields: {},
});
