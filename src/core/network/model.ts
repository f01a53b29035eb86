import * as z from 'zod';
import { CodeNeeds } from './calls.js';
import { Inventory, TagAddress } from './exchange.js';
import { Report } from './report.js';
import { anchorNames, audienceNames, sizeNames } from '../words/names.js';
import { Serving } from './serving.js';
import { AndroidNeeds, IosNeeds, StackNeeds } from './needs.js';
import { Duration, Format, Platform, reasoned, Slug, Why } from '../words/words.js';

export type { AndroidNeeds, IosNeeds } from './needs.js';

export const IdKind = z.lazy(() =>
  z
    .strictObject({
      label: z.string().min(2).max(60).meta({ description: 'The network’s name for this ID.' }),
      scope: z
        .enum(['edition', 'placement', 'account'])
        .meta({ description: 'What one ID stands for: an edition, a placement, or the whole account.' }),
      pattern: z.string().min(3).max(200).meta({
        description:
          'A regular expression for the whole ID; the groups `account` and `platform` may be named in it.',
      }),
      platforms: z
        .record(z.string(), Platform)
        .optional()
        .meta({ description: 'What the `platform` group of the pattern stands for.' }),
      needles: z.array(z.string().min(3).max(40)).max(8).default([]).meta({
        description:
          'Substrings: every ID contains at least one of them, so that IDs are found wherever they are. Omit them for IDs without any fixed text: such an ID is recognised where a place or a call takes it, and anywhere if it equals a value of the roster.',
      }),
      samples: z
        .partialRecord(Platform, z.union([z.string(), z.partialRecord(Format, z.string())]))
        .default({})
        .meta({
          description: 'The IDs that the network publishes for testing: one per platform, or one per format.',
        }),
    })
    .meta({ description: 'One kind of ID of the network.' }),
);
export type IdKind = z.infer<typeof IdKind>;

export const idKinds = ['app', 'unit'] as const;
export type IdKindName = (typeof idKinds)[number];

const FormatRules = z.lazy(() =>
  z.strictObject({
    platforms: z.array(Platform).min(1).optional().meta({ description: 'Only on these platforms.' }),
    refresh: z
      .strictObject({
        min: Duration,
        max: Duration,
        managed: z.boolean().default(false),
        off: z.boolean().default(true),
      })
      .optional()
      .meta({ description: 'The bounds of a refresh time; absent if the format is never refreshed.' }),
    content: z
      .array(z.enum(['text', 'image', 'video']))
      .optional()
      .meta({ description: 'The content kinds to choose from.' }),
    reward: z.boolean().optional().meta({ description: 'Whether a reward must be set.' }),
    skippable: z
      .boolean()
      .optional()
      .meta({ description: 'Whether the user may skip the ad; absent if it can be chosen.' }),
    'end-card': z
      .boolean()
      .optional()
      .meta({ description: 'Whether there is an end card; absent if it can be chosen.' }),
    sizes: z.array(z.enum(sizeNames)).optional().meta({ description: 'The size classes to choose from.' }),
    anchors: z.array(z.enum(anchorNames)).optional().meta({ description: 'Where it may be on the screen.' }),
    cap: z
      .strictObject({ max: z.number().int().min(1).max(1000), per: Duration })
      .optional()
      .meta({ description: 'The maximum number of impressions that the network allows per period.' }),
    every: z
      .strictObject({ min: z.number().int().min(1).max(1000) })
      .optional()
      .meta({ description: 'In a list: the minimum number of items between two ads.' }),
    timeout: z
      .strictObject({ min: Duration, max: Duration })
      .optional()
      .meta({ description: 'The bounds of the time to wait for an ad.' }),
  }),
);

/** Something that opens an account or a service, and must never are in a file. */
const Credential = z.lazy(() =>
  z
    .strictObject({
      label: z.string().min(2).max(60),
      scope: z
        .enum(['account', 'edition'])
        .meta({ description: 'One for the publisher, or one per edition.' }),
      platforms: z.array(Platform).min(1).optional(),
      formats: z.array(Format).min(1).optional().meta({ description: 'Only needed for these formats.' }),
      why: Why,
    })
    .meta({ description: 'A secret of the network: the roster only contains its name.' }),
);

export const Profile = z.lazy(() =>
  z
    .strictObject({
      profile: z
        .literal(1, 'This service reads profiles of version 1.')
        .meta({ description: 'Version of this format.' }),
      id: Slug,
      name: z.string().min(2).max(60),
      about: z.string().min(8).max(400),
      site: z.url().optional().meta({ description: 'The address of the network’s console.' }),
      terms: Why.optional().meta({ description: 'What must be accepted before ads are served, and why.' }),
      ids: z.strictObject({ app: IdKind.optional(), unit: IdKind.optional() }),
      credentials: z
        .record(Slug, Credential)
        .default({})
        .meta({ description: 'Secrets by name. Rosters refer to them as secret:NAME.' }),
      formats: z
        .partialRecord(Format, FormatRules)
        .refine((formats) => Object.keys(formats).length > 0, 'At least one format.'),
      audiences: reasoned({ allowed: z.array(z.enum(audienceNames)).min(1) })
        .optional()
        .meta({ description: 'The audiences that the network serves; default: all.' }),
      'serving-delay': Duration.optional().meta({
        description: 'How long a new unit may take until it serves ads.',
      }),
      'app-ads': z
        .array(
          reasoned({
            domain: z
              .string()
              .regex(/^([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/, 'A domain in small letters.'),
            relationship: z.enum(['DIRECT', 'RESELLER']),
            certification: z.string().min(1).max(64).optional(),
            account: z.string().min(1).max(100).optional().meta({
              description:
                'The account field, if it is not just the publisher’s number: the same text for every publisher, or a text with {account} in place of the number, such as pub-{account}.',
            }),
          }),
        )
        .default([])
        .meta({ description: 'Records that the network requires in app-ads.txt.' }),
      tag: TagAddress.optional(),
      inventory: Inventory.optional(),
      report: Report.optional(),
      serving: Serving.optional(),
      android: AndroidNeeds.optional(),
      ios: IosNeeds.optional(),
      stacks: StackNeeds.default({}),
      code: CodeNeeds.default({}),
    })
    .meta({
      title: 'Network profile',
      description: 'The IDs of an ad network, and the requirements of its SDK.',
    }),
);
export type Profile = z.infer<typeof Profile>;
