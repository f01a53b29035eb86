import { z } from 'zod';
import { formatNames, platformNames, stageNames } from './names.js';

export const Platform = z.enum(platformNames).meta({ description: 'The platform of an edition.' });
export type Platform = z.infer<typeof Platform>;
export const platforms = Platform.options;

export const Stage = z.enum(stageNames).meta({ description: 'What a variant is for.' });
export type Stage = z.infer<typeof Stage>;
export const stages = Stage.options;

export const Format = z.enum(formatNames).meta({ description: 'The format of a placement.' });
export type Format = z.infer<typeof Format>;

export const Slug = z
  .string()
  .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/, 'Small letters, digits and single dashes only, a letter first.')
  .max(64);

export const Duration = z
  .string()
  .regex(/^[1-9]\d{0,5}(s|m|h|d)$/, 'A whole number with its unit: 60s, 5m, 2h or 1d.')
  .meta({ description: 'A time: a whole number and s, m, h or d.' });

const Why = z
  .string()
  .min(8)
  .max(400)
  .meta({ description: 'Why the network asks for it, from its integration page.' });

const reasoned = <Shape extends z.ZodRawShape>(shape: Shape) => z.strictObject({ ...shape, why: Why });

export const IdKind = z
  .strictObject({
    label: z.string().min(2).max(60).meta({ description: 'What the network calls this ID.' }),
    scope: z.enum(['edition', 'placement', 'account']),
    pattern: z.string().min(3).max(200).meta({
      description:
        'A regular expression for the whole ID; the groups `account` and `platform` may be named in it.',
    }),
    platforms: z
      .record(z.string(), Platform)
      .optional()
      .meta({ description: 'What the `platform` group of the pattern stands for.' }),
    needles: z.array(z.string().min(3).max(40)).min(1).max(8).meta({
      description: 'Plain texts of which every ID holds one; files without any of them are not looked into.',
    }),
    secret: z.boolean().default(false),
    samples: z
      .partialRecord(Platform, z.union([z.string(), z.partialRecord(Format, z.string())]))
      .default({})
      .meta({
        description: 'The IDs that the network gives out for testing: one per platform, or one per format.',
      }),
  })
  .meta({ description: 'One kind of ID that the network gives out.' });
export type IdKind = z.infer<typeof IdKind>;

export const idKinds = ['app', 'unit'] as const;
export type IdKindName = (typeof idKinds)[number];

const FormatRules = z.strictObject({
  platforms: z.array(Platform).min(1).optional().meta({ description: 'Only on these platforms.' }),
  refresh: z
    .strictObject({
      min: Duration,
      max: Duration,
      managed: z.boolean().default(false),
      off: z.boolean().default(true),
    })
    .optional()
    .meta({ description: 'The bounds of a refresh time; left out where the format is never refreshed.' }),
  content: z
    .array(z.enum(['text', 'image', 'video']))
    .optional()
    .meta({ description: 'The content kinds to choose from.' }),
  reward: z.boolean().optional().meta({ description: 'Whether a reward must be named.' }),
  skippable: z.boolean().optional().meta({ description: 'Whether the user may skip the ad.' }),
});

const AppIdPlace = z.discriminatedUnion('place', [
  z.strictObject({
    place: z.literal('manifest'),
    key: z
      .string()
      .min(3)
      .meta({ description: 'android:name of the meta-data element in the application element.' }),
    resource: z
      .string()
      .regex(/^[a-z][a-z0-9_]*$/)
      .meta({ description: 'Name of the string resource that holds the ID per source set.' }),
    why: Why,
  }),
  z.strictObject({
    place: z.literal('plist'),
    key: z.string().min(3).meta({ description: 'Key in the property list of the application.' }),
    setting: z
      .string()
      .regex(/^[A-Z][A-Z0-9_]*$/)
      .meta({ description: 'Name of the build setting that holds the ID per configuration.' }),
    why: Why,
  }),
  z.strictObject({ place: z.literal('code'), why: Why }),
]);

const Permission = reasoned({ name: z.string().regex(/^[\w.]+$/) });
const Level = reasoned({ value: z.number().int().min(1).max(99) });
const AndroidNeeds = z.strictObject({
  'app-id': AppIdPlace.optional(),
  'min-sdk': Level.optional(),
  'compile-sdk': Level.optional(),
  permissions: z.array(Permission).default([]),
  repositories: z.array(reasoned({ url: z.url() })).default([]),
  dependencies: z
    .array(reasoned({ coordinate: z.string().regex(/^[\w.-]+:[\w.-]+$/), version: z.string().min(1) }))
    .default([]),
});

const IosNeeds = z.strictObject({
  'app-id': AppIdPlace.optional(),
  'deployment-target': reasoned({ value: z.string().regex(/^\d+(\.\d+)?$/) }).optional(),
  pods: z.array(reasoned({ name: z.string().min(1), version: z.string().min(1) })).default([]),
  packages: z
    .array(reasoned({ url: z.url(), product: z.string().min(1), version: z.string().min(1) }))
    .default([]),
  keys: z
    .array(reasoned({ key: z.string().min(1), type: z.enum(['string', 'boolean', 'array', 'dict']) }))
    .default([])
    .meta({ description: 'Further keys that the property list must hold.' }),
});
export type AndroidNeeds = z.infer<typeof AndroidNeeds>;
export type IosNeeds = z.infer<typeof IosNeeds>;

export const Profile = z
  .strictObject({
    profile: z
      .literal(1, 'This service reads profiles of version 1.')
      .meta({ description: 'Version of this format.' }),
    id: Slug,
    name: z.string().min(2).max(60),
    about: z.string().min(8).max(400),
    ids: z.strictObject({ app: IdKind.optional(), unit: IdKind.optional() }),
    formats: z
      .partialRecord(Format, FormatRules)
      .refine((formats) => Object.keys(formats).length > 0, 'At least one format.'),
    'serving-delay': Duration.optional().meta({
      description: 'How long a new unit may take until it serves.',
    }),
    'app-ads': z
      .array(
        reasoned({
          domain: z
            .string()
            .regex(/^([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z]{2,}$/, 'A domain in small letters.'),
          relationship: z.enum(['DIRECT', 'RESELLER']),
          certification: z.string().min(1).max(64).optional(),
          account: z
            .string()
            .min(1)
            .max(100)
            .optional()
            .meta({ description: 'For a reseller: the same account for every publisher.' }),
        }),
      )
      .default([])
      .meta({ description: 'Records that the network asks for in app-ads.txt.' }),
    android: AndroidNeeds.optional(),
    ios: IosNeeds.optional(),
  })
  .meta({ title: 'Network profile', description: 'What an ad network gives out and what its SDK needs.' });
export type Profile = z.infer<typeof Profile>;
