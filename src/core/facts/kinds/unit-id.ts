import * as z from 'zod';
import { carrierText } from '../carriers.js';
import { defineFact } from '../define.js';

/** A unit ID of a network that something in the tree carries. */
export const unitId = defineFact({
  kind: 'unit-id',
  label: 'unit ID',
  description: 'A unit ID of a network.',
  fields: {
    carrier: z
      .enum([
        'code',
        'placebook',
        'resource',
        'build-config',
        'layout',
        'storyboard',
        'property-list',
        'document',
      ])
      .meta({ description: 'What carries the unit ID.' }),
  },
  identity: ({ value }) => value,
  subject: ({ placement }) => placement,
  detail: ({ carrier }) => carrierText[carrier],
});
