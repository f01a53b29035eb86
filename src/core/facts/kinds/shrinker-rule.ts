import { defineFact } from '../define.js';

/** A shrinker rule that a profile requires, in a file that a build which shrinks its code takes in. */
export const shrinkerRule = defineFact({
  kind: 'shrinker-rule',
  label: 'shrinker rule',
  description: 'A shrinker rule that a network requires.',
  fields: {},
});
