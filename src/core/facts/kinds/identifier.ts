import { defineFact } from '../define.js';

/** The application ID or bundle ID of a variant. */
export const identifier = defineFact({
  kind: 'identifier',
  label: 'identifier',
  description: 'The application ID or bundle ID of a variant.',
  fields: {},
  identity: () => '',
});
