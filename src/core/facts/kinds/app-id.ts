import * as z from 'zod';
import { carrierText } from '../carriers.js';
import { defineFact } from '../define.js';

/** An app ID of a network, as something in the build declares it. */
export const appId = defineFact({
  kind: 'app-id',
  label: 'app ID',
  description: 'An app ID of a network.',
  fields: {
    carrier: z
      .enum([
        'manifest',
        'property-list',
        'plugin-entry',
        'settings-asset',
        'build-step',
        'code',
        'placebook',
      ])
      .meta({ description: 'What declares the app ID.' }),
  },
  identity: () => '',
  subject: ({ placement }) => placement,
  detail: ({ carrier, effective }) => (effective === true ? carrierText[carrier] : undefined),
});
