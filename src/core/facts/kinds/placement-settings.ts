import { defineFact } from '../define.js';

/** The settings that a placebook gives a placement. */
export const placementSettings = defineFact({
  kind: 'placement-settings',
  label: 'placement settings',
  description: 'The settings that a placebook gives a placement, in words.',
  fields: {},
});
