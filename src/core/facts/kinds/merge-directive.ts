import * as z from 'zod';
import { defineFact } from '../define.js';

/** A merge directive that a profile requires on a manifest element, and whether the element has it. */
export const mergeDirective = defineFact({
  kind: 'merge-directive',
  label: 'merge directive',
  description: 'A directive for the manifest merger; the name is the element that it applies to.',
  fields: {
    given: z.boolean().meta({ description: 'Whether the element carries the directive.' }),
  },
  detail: ({ given }) => (given ? undefined : 'not given'),
});
