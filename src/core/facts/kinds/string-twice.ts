import { defineFact } from '../define.js';

/** A string resource that one source set defines twice: the build stops there. */
export const stringTwice = defineFact({
  kind: 'string-twice',
  label: 'string defined twice',
  description: 'A string resource with an ID of a network that is defined twice where it may be only once.',
  fields: {},
  identity: ({ name, place }) => `${name ?? ''} ${place.path}`,
});
