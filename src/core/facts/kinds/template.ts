import * as z from 'zod';
import { defineFact } from '../define.js';

/** A template file of a Unity project, and whether the build uses it. */
export const template = defineFact({
  kind: 'template',
  label: 'template',
  description: 'A template file of a Unity project; the value says whether it is switched on.',
  fields: {
    file: z.string().meta({ description: 'The path of the template.' }),
    isOn: z.boolean().meta({ description: 'Whether the player settings switch it on.' }),
  },
  detail: ({ file }) => `in ${file}`,
});
