import * as z from 'zod';
import { defineFact } from '../define.js';

/** A localised string that replaces an ID. */
export const localeOverride = defineFact({
  kind: 'locale-override',
  label: 'locale override',
  description: 'A localised string that replaces an ID.',
  fields: {
    folder: z.string().meta({ description: 'The resource folder of the locale, such as values-de.' }),
  },
  detail: ({ folder }) => `in ${folder}`,
});
