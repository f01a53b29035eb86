import * as z from 'zod';
import { players, type PlayerName } from '../core/rehearsal/tags/choose.js';
import { Platform, Stage } from '../core/words/words.js';
import { actionNames } from '../core/rehearsal/tags/playback.js';

const url = z.string().max(8_000);
const Place = { line: z.number(), column: z.number() };

const Answer = z.object({
  url,
  text: z
    .string()
    .max(2_100_000)
    .optional()
    .meta({ description: 'The document; absent where there was none.' }),
  failed: z.enum(['unreachable', 'timeout', 'status', 'too-large', 'redirects', 'not-text']).optional(),
  status: z.number().int().optional(),
  redirects: z.number().int().optional(),
  said: z
    .string()
    .max(500)
    .optional()
    .meta({ description: 'The reason that the network gives for having no ad.' }),
  ms: z.number().optional(),
});

const Reached = z.object({
  url,
  status: z.number().int().optional(),
  timedOut: z.boolean().optional(),
});

/** What is known of a tag; documents and files that are still to be asked for are named in the answer. */
export const TagQuestion = z.object({
  start: url.meta({ description: 'The address of the tag, or the name of a file.' }),
  answers: z.array(Answer).max(40),
  reached: z.array(Reached).max(40).default([]),
  wrappers: z.number().int().min(0).max(20).default(5).meta({
    description: 'How many wrappers may follow one another.',
  }),
  device: z.enum(Object.keys(players) as [PlayerName, ...PlayerName[]]).default('phone'),
  bitrate: z.number().int().min(1).max(1_000_000).optional().meta({
    description: 'The bandwidth, in kilobits per second; default: that of the device.',
  }),
  at: z.iso.datetime().meta({ description: 'The time for [TIMESTAMP].' }),
  seed: z.number().int().min(0).max(99_999_999).meta({
    description: 'The first number for [CACHEBUSTING].',
  }),
});
export type TagQuestion = z.infer<typeof TagQuestion>;

export const TagLint = z
  .array(
    z.object({
      title: z.string(),
      placement: z.string(),
      network: z.string(),
      platform: Platform,
      stage: Stage,
      url: z.string(),
      problems: z.array(
        z.object({ severity: z.enum(['error', 'warning']), message: z.string(), fix: z.string() }),
      ),
    }),
  )
  .meta({
    title: 'Tags on record',
    description: 'Every unit that is a tag URL, and its faults.',
  });
export type TagLint = z.infer<typeof TagLint>;

const TagProblem = z.object({
  ...Place,
  severity: z.enum(['error', 'warning']),
  message: z.string(),
  fix: z.string(),
  section: z.string().optional().meta({ description: 'The section of VAST 4.2 that says so.' }),
});

const Media = z.object({
  ...Place,
  url: z.string(),
  type: z.string(),
  delivery: z.string(),
  width: z.number(),
  height: z.number(),
  bitrate: z.number().optional().meta({ description: 'Kilobits per second.' }),
  framework: z.string().optional(),
});

const TagAd = z.object({
  document: z.number().meta({ description: 'The index of the document that holds it.' }),
  id: z.string().nullable(),
  sequence: z.number().nullable().meta({ description: 'Its place in a pod.' }),
  systems: z.array(z.string()).meta({ description: 'The systems it came through, the outermost first.' }),
  title: z.string(),
  duration: z.number().nullable().meta({ description: 'Milliseconds.' }),
  skip: z
    .number()
    .nullable()
    .meta({ description: 'The position, in milliseconds, from which it can be skipped.' }),
  choice: z.object({
    file: Media.nullable(),
    why: z.string(),
    error: z.number().optional(),
    passed: z.array(z.object({ url: z.string(), why: z.string() })),
  }),
  impressions: z.number(),
  quartiles: z.record(z.string(), z.number()).meta({ description: 'How many calls each quartile makes.' }),
  trackers: z.number(),
  clickThrough: z.string().nullable(),
  clickTracking: z.number(),
  companions: z.array(
    z.object({
      ...Place,
      width: z.number(),
      height: z.number(),
      resource: z.object({ kind: z.enum(['static', 'frame', 'html']), value: z.string() }).nullable(),
      clickThrough: z.string().optional(),
    }),
  ),
  verifications: z.array(z.object({ ...Place, vendor: z.string(), scripts: z.array(z.string()) })),
  icons: z.number(),
  nonLinears: z.number(),
  interactive: z.number(),
});

export const TagReport = z
  .object({
    documents: z.array(
      z.object({
        url: z.string(),
        depth: z.number().meta({ description: 'How many wrappers lead here.' }),
        version: z.string().nullable(),
        redirects: z.number(),
        ms: z.number().nullable(),
        failed: z.string().nullable(),
        ads: z.number(),
        problems: z.array(TagProblem),
      }),
    ),
    next: z.array(z.string()).meta({ description: 'Addresses to fetch before the report is complete.' }),
    media: z.array(z.string()).meta({ description: 'Media files whose availability the client may check.' }),
    ads: z.array(TagAd),
    deadEnds: z.array(
      z.object({
        code: z.number().meta({ description: 'The error code of VAST.' }),
        why: z.string(),
        fix: z.string(),
        step: z.number(),
        place: z.object(Place).optional(),
        sequence: z.number().nullable(),
      }),
    ),
    insecure: z.array(z.object({ what: z.string(), url: z.string() })),
    macros: z.object({
      unfilled: z.array(z.object({ macro: z.string(), what: z.string() })),
      withoutValue: z.array(z.string()),
    }),
  })
  .meta({ title: 'Tag', description: 'What a VAST tag shows on a device, and what is wrong with it.' });
export type TagReport = z.infer<typeof TagReport>;

export const TagPlayQuestion = TagQuestion.extend({
  actions: z
    .array(z.object({ at: z.number().min(0).max(86_400_000), do: z.enum(actionNames) }))
    .max(200)
    .meta({ description: 'What the user and the device do, in milliseconds from the start of the break.' }),
});

const PlayLine = z.object({
  at: z.number().meta({ description: 'Milliseconds from the start of the break.' }),
  ad: z.number().nullable().meta({ description: 'The number of the ad in the break.' }),
  what: z.enum(['event', 'error', 'ignored', 'stuck', 'content']),
  name: z.string(),
  playhead: z.number().optional().meta({ description: 'The position in the video, in milliseconds.' }),
  code: z.number().optional(),
  note: z.string().optional(),
  calls: z.array(z.string()).meta({ description: 'Addresses that are called, with their macros filled.' }),
});
export type PlayLine = z.infer<typeof PlayLine>;

/** Which tag the service is to follow. */
export const TagFollow = TagQuestion.pick({
  start: true,
  wrappers: true,
  device: true,
  bitrate: true,
}).extend({
  text: z.string().max(2_000_000).optional().meta({
    description: 'The document itself, if it has no address; `start` is then its name.',
  }),
  media: z.boolean().default(false).meta({ description: 'Whether to check that media files are available.' }),
  partner: z.boolean().default(false).meta({
    description: 'Whether requests to hosts under `.example` go to the simulated partner.',
  }),
});
export const TagFollowed = z
  .object({
    question: TagQuestion.meta({
      description: 'The requests and responses: the body of a call that plays it.',
    }),
    report: TagReport,
  })
  .meta({
    title: 'Tag, followed',
    description: 'What a VAST tag shows, with its documents.',
  });
export type TagFollowed = z.infer<typeof TagFollowed>;

export const TagPlayed = z.object({ report: TagReport, lines: z.array(PlayLine) });
export type TagPlayed = z.infer<typeof TagPlayed>;

/** What the command prints: with `--fire`, what came of each call. */
export const TagPlayPrinted = TagPlayed.extend({
  fired: z.array(
    z.object({
      url: z.string(),
      outcome: z.string().meta({ description: 'The status of the response, or why there was none.' }),
    }),
  ),
});
