import { defineFact } from '../define.js';

/** A method of an app that answers an event of a network. */
export const callback = defineFact({
  kind: 'callback',
  label: 'callback',
  description: 'A method that handles an event of a network; the name is the event.',
  fields: {},
});
