import { defineFact } from '../define.js';

/** An ID in the attribution list of an app. */
export const attributionId = defineFact({
  kind: 'attribution-id',
  label: 'attribution ID',
  description: 'An ID in the attribution list (SKAdNetworkItems) of an app.',
  fields: {},
  identity: ({ value }) => value,
});
