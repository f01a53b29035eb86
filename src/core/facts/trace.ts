import * as z from 'zod';

export const lanes = ['user', 'app', 'sdk', 'network'] as const;

/** What happens in a rehearsal, with the lane that it is drawn in. */
export const traceEvents = {
  launch: 'user',
  'consent-answered': 'user',
  'tracking-answered': 'user',
  'screen-opened': 'user',
  'screen-closed': 'user',
  tap: 'user',
  scroll: 'user',
  skip: 'user',
  click: 'user',
  'ad-closed': 'user',
  left: 'user',
  returned: 'user',
  rotated: 'user',
  stuck: 'user',
  killed: 'user',
  offline: 'network',
  online: 'network',
  stopped: 'app',
  'consent-asked': 'app',
  'start-called': 'app',
  load: 'app',
  'not-ready': 'app',
  show: 'app',
  'show-failed': 'app',
  fallback: 'app',
  released: 'app',
  kept: 'app',
  'listener-kept': 'app',
  refresh: 'sdk',
  started: 'sdk',
  'start-failed': 'sdk',
  request: 'network',
  filled: 'network',
  'no-fill': 'network',
  refused: 'network',
  failed: 'sdk',
  'timed-out': 'sdk',
  capped: 'sdk',
  expired: 'sdk',
  impression: 'sdk',
  'first-quartile': 'sdk',
  midpoint: 'sdk',
  'third-quartile': 'sdk',
  complete: 'sdk',
  reward: 'sdk',
  'row-bound': 'app',
  'row-reused': 'app',
  delivered: 'network',
  suspended: 'network',
} as const satisfies Record<string, (typeof lanes)[number]>;
export type TraceEventName = keyof typeof traceEvents;

export const TraceEvent = z
  .object({
    at: z.number().int().min(0).meta({ description: 'Virtual milliseconds since the first launch.' }),
    what: z.enum(Object.keys(traceEvents) as TraceEventName[]),
    network: z.string().optional(),
    placement: z.string().optional(),
    screen: z.string().optional(),
    ad: z.number().int().optional().meta({ description: 'The number of the ad in the session, from 1.' }),
    because: z.string().optional().meta({ description: 'What made the app do it.' }),
    code: z.string().optional().meta({ description: 'The reason of a refusal or failure, in one word.' }),
    text: z.string().optional().meta({ description: 'A note for people.' }),
    before: z
      .array(z.enum(['start', 'consent']))
      .optional()
      .meta({ description: 'For a request: what it came before.' }),
    test: z.boolean().optional().meta({ description: 'For an ad: whether it is a test ad.' }),
    row: z.number().int().optional().meta({ description: 'In a list: the row, from 0.' }),
    assumed: z
      .string()
      .optional()
      .meta({ description: 'What could not be read, so it was assumed to match the profile’s example.' }),
  })
  .meta({ description: 'One thing that happens in a rehearsal.' });
export type TraceEvent = z.infer<typeof TraceEvent>;

export const verdictNames = [
  'shown',
  'delivered',
  'refused',
  'no-ad',
  'timed-out',
  'failed',
  'never-shown',
  'never-requested',
  'stopped',
  'cannot-tell',
] as const;

export const Verdict = z
  .object({
    is: z.enum(verdictNames),
    after: z.number().optional().meta({ description: 'Milliseconds from the request to the ad.' }),
    test: z.boolean().optional().meta({ description: 'Whether the ad is a test ad.' }),
    code: z.string().optional(),
    text: z.string().optional().meta({ description: 'The reason, for people.' }),
  })
  .meta({ description: 'What became of a placement in a rehearsal.' });
export type Verdict = z.infer<typeof Verdict>;
