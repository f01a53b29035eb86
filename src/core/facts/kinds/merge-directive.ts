import * as z from 'zod';
import { defineFact } from '../define.js';

/** A directive that a profile requires on an element of a manifest: whether the merger is told so. */
export const mergeDirective = defineFact({
  kind: 'merge-directive',
  label: 'merge directive',
  description: 'A directive for the merger of manifests; the name is the element that it is about.',
  fields: {
    given: z.boolean().meta({ description: 'Whether the element carries the directive.' }),
  },
  detail: ({ given }) => (given ? undefined : 'not given'),
});
