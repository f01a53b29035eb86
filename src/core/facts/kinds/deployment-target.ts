import { defineFact } from '../define.js';

/** The lowest version of iOS that a variant runs on. */
export const deploymentTarget = defineFact({
  kind: 'deployment-target',
  label: 'deployment target',
  description: 'The lowest version of iOS that a variant runs on.',
  fields: {},
  identity: () => '',
});
