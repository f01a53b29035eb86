import * as z from 'zod';
import { audienceNames } from '../words/names.js';
import { Settings } from '../words/settings.js';
import { Format, Platform, Slug, Stage } from '../words/words.js';

export const SecretName = z
  .string()
  .regex(
    /^secret:[A-Z][A-Z0-9_]{1,60}$/,
    'A reference such as secret:COBALT_HERON_KEY: the roster contains only the names of secrets.',
  )
  .meta({ description: 'The name of a secret, never the secret itself.' });

const Credentials = z
  .record(Slug, SecretName)
  .meta({ description: 'Credentials, by their names in the profile.' });

/** An ID as it is typed; its shape is judged against the profiles, not here. */
export const IdValue = z.string().min(1).max(200);

const PerStage = <Value extends z.ZodType>(value: Value) => z.partialRecord(Stage, value);

export const Placement = z
  .strictObject({
    format: Format,
    where: z.string().min(1).max(200).optional().meta({ description: 'Where the title shows it, in words.' }),
    settings: Settings.default({}),
    units: z
      .record(Slug, z.partialRecord(Platform, PerStage(IdValue)))
      .default({})
      .meta({ description: 'The unit IDs: network, then platform, then stage.' }),
  })
  .meta({ description: 'A named spot for ads, the same on all platforms.' });
export type Placement = z.infer<typeof Placement>;

export const Enrolment = z
  .partialRecord(
    Platform,
    PerStage(
      z.strictObject({
        app: IdValue.optional(),
        devices: z.array(z.string().min(1).max(100)).max(200).optional().meta({
          description: 'Test devices to register with the network; for the test stage only.',
        }),
        credentials: Credentials.optional(),
      }),
    ),
  )
  .meta({ description: 'The app-level IDs on one network: platform, then stage.' });
export type Enrolment = z.infer<typeof Enrolment>;

export const Edition = z.strictObject({
  identifier: z
    .string()
    .min(3)
    .max(200)
    .regex(
      /^[A-Za-z0-9]([A-Za-z0-9_-]*)(\.[A-Za-z0-9_-]+)+$/,
      'Parts of letters, digits, dashes or underscores, joined by dots.',
    )
    .meta({ description: 'The application ID (Android) or bundle ID (iOS).' }),
  module: z.string().min(1).max(200).optional().meta({
    description: 'The module, as survey names it, when several applications in a tree share an identifier.',
  }),
  tracking: z
    .string()
    .min(10)
    .max(500)
    .optional()
    .meta({ description: 'iOS: the text of the system prompt that asks for permission to track.' }),
});
export type Edition = z.infer<typeof Edition>;

const Matches = z.array(z.string().min(1).max(100));

export const Stages = z.strictObject({ test: Matches.default([]), production: Matches.default([]) }).meta({
  description:
    'The build types, configurations, flavours or variants that belong to each stage; case is ignored.',
});
export type Stages = z.infer<typeof Stages>;

export const Title = z
  .strictObject({
    name: z.string().min(1).max(100),
    audience: z.enum(audienceNames).default('general'),
    stages: Stages.default({ test: ['debug'], production: ['release'] }),
    editions: z.partialRecord(Platform, Edition).default({}),
    networks: z.record(Slug, Enrolment).default({}),
    placements: z.record(Slug, Placement).default({}),
  })
  .meta({ description: 'One product, across platforms.' });
export type Title = z.infer<typeof Title>;

export const Publisher = z.strictObject({
  name: z.string().min(1).max(100),
  domain: z
    .string()
    .regex(
      /^([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/,
      'A domain in small letters, without a scheme or path.',
    )
    .max(200),
  accounts: z
    .record(
      Slug,
      z
        .string()
        .min(1)
        .max(100)
        .regex(/^[^\s,;#=]+$/, 'One word, as written by the network.'),
    )
    .optional()
    .meta({ description: 'The account at each network whose IDs do not carry it, as app-ads.txt needs it.' }),
  credentials: z
    .record(Slug, Credentials)
    .optional()
    .meta({ description: 'The credentials of the account at each network, as secret:NAME.' }),
});
export type Publisher = z.infer<typeof Publisher>;

/** A finding that somebody accepts, as a document carries it. */
export const AcceptedFinding = z
  .strictObject({
    rule: z.string().max(100),
    message: z.string().max(2_000),
    reason: z.string().min(1).max(500),
    until: z.iso.date().meta({ description: 'The last day on which it holds.' }),
    who: z.string().max(200),
    at: z.string().max(40).meta({ description: 'When it was accepted, ISO 8601.' }),
  })
  .meta({ description: 'An accepted finding: why, and until when.' });
export type AcceptedFinding = z.infer<typeof AcceptedFinding>;

/** Accepted findings by title and by the fingerprint of the finding. */
export const AcceptedFindings = z.record(Slug, z.record(z.string().max(100), AcceptedFinding));
export type AcceptedFindings = z.infer<typeof AcceptedFindings>;

export const Roster = z
  .strictObject({
    syndexa: z
      .literal(1, 'This service reads rosters of version 1.')
      .meta({ description: 'Version of this format.' }),
    revision: z.number().int().min(0).optional().meta({
      description: 'The revision of the roster that this document was written from. Do not change it.',
    }),
    publisher: Publisher.optional(),
    titles: z.record(Slug, Title).default({}),
    accepted: AcceptedFindings.optional().meta({
      description:
        'Findings that are accepted, by title and fingerprint. If absent, an import does not change them.',
    }),
  })
  .meta({ title: 'Syndexa roster', description: 'Titles, editions, networks, placements and their IDs.' });
export type Roster = z.infer<typeof Roster>;
