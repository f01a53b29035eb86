import { defineFact } from '../define.js';

/** A class that could be the delegate of an iOS app, or the one that the app is given as its delegate. */
export const appDelegate = defineFact({
  kind: 'app-delegate',
  label: 'app delegate',
  description:
    'A class for the delegate of an iOS app; with a name it is what the class extends, without one the app is given it.',
  fields: {},
});
