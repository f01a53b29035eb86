import * as z from 'zod';
import { Settings } from '../../words/settings.js';
import { Format, Stage } from '../../words/words.js';
import { defineFact } from '../define.js';
import { TraceEvent, Verdict } from '../trace.js';

/** What a rehearsal saw of one placement on one network. */
export const rehearsed = defineFact({
  kind: 'rehearsed',
  label: 'rehearsed placement',
  description: 'What a rehearsal observed for a placement on a network; the value is the scenario.',
  fields: {
    stage: Stage,
    format: Format,
    unit: z.string().nullable().meta({ description: 'The unit ID that is requested; null for none.' }),
    settings: Settings.meta({ description: 'The settings in the build.' }),
    verdict: Verdict,
    events: z.array(TraceEvent).meta({ description: 'What happened to the placement, in order.' }),
    screen: z
      .object({ width: z.number(), height: z.number() })
      .meta({ description: 'The screen of the device, in density-independent pixels.' }),
    covers: z.string().optional().meta({ description: 'The navigation that the view covers.' }),
    heldAt: z.string().optional().meta({ description: 'Where on its screen the view is anchored.' }),
  },
  subject: ({ placement }) => placement,
  detail: ({ verdict }) => verdict.is.replace('-', ' '),
});
