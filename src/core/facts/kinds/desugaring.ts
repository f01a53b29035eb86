import { defineFact } from '../define.js';

/** Whether newer parts of the Java library are brought along for older devices. */
export const desugaring = defineFact({
  kind: 'desugaring',
  label: 'desugaring',
  description:
    'Core library desugaring: the name is the switch or the library, the value its state or version.',
  fields: {},
});
