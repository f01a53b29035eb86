import { defineFact } from '../define.js';

/** A library that a build declares for less than what ships. */
export const narrowDependency = defineFact({
  kind: 'narrow-dependency',
  label: 'dependency not in the app',
  description:
    'A library that is declared, but not for the app of these variants: for tests, for the compiler alone, or for other variants. The value is what declares it, such as testImplementation.',
  fields: {},
});
