import { defineFact } from '../define.js';

/** That a variant shrinks its code, and the file of the module's own in which its rules are. */
export const shrinking = defineFact({
  kind: 'shrinking',
  label: 'shrinking',
  description: 'That the code of a variant is shrunk; the value is the file with the module’s own rules.',
  fields: {},
  identity: () => '',
});
