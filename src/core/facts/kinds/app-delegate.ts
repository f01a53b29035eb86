import { defineFact } from '../define.js';

/** A class that could be the delegate of an iOS app, or the one that the app is given as its delegate. */
export const appDelegate = defineFact({
  kind: 'app-delegate',
  label: 'app delegate',
  description:
    'The delegate class of an iOS app. With a name, the value is the class that it extends; without one, it is the class that the app uses.',
  fields: {},
});
