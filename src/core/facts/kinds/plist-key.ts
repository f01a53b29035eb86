import * as z from 'zod';
import { PlainValue } from '../../formats/plist/plain.js';
import { defineFact } from '../define.js';

/** A key of a property list that a profile requires. */
export const plistKey = defineFact({
  kind: 'plist-key',
  label: 'key',
  description: 'A key of a property list.',
  fields: {
    type: z.string().meta({ description: 'The type of the value: string, array, dict, true, …' }),
    list: z
      .enum(['info', 'privacy'])
      .meta({ description: 'Whether it is in the property list of the app or in its privacy manifest.' }),
    content: PlainValue.optional().meta({
      description: 'The content of an array or a dictionary, if a network requires certain content.',
    }),
  },
  detail: ({ type, list }) => (list === 'privacy' ? 'in the privacy manifest' : type),
});
