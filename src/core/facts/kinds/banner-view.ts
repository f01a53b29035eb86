import * as z from 'zod';
import { HeldAt, heldAtText } from '../evidence.js';
import { Format } from '../../words/words.js';
import { defineFact } from '../define.js';

/** A view of a network in a layout or storyboard. */
export const bannerView = defineFact({
  kind: 'banner-view',
  label: 'view',
  description: 'A view of a network in a layout or storyboard; the value is its class.',
  fields: {
    format: Format,
    size: z.string().optional().meta({ description: 'The size of the view, where the layout sets one.' }),
    anchor: HeldAt.optional(),
    covers: z.string().optional().meta({ description: 'The navigation of the layout that the view covers.' }),
  },
  subject: ({ format, size }) => [format, size].filter(Boolean).join(' '),
  detail: ({ anchor }) => anchor && `anchored to ${heldAtText[anchor]}`,
});
