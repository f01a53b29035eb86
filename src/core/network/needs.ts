import * as z from 'zod';
import { orNone, Version, type StackParts } from '../stacks/description.js';
import { Format, reasoned, TreePath, Why } from '../words/words.js';
import { described } from './described.js';

const AppIdPlace = z.lazy(() =>
  z.discriminatedUnion('place', [
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
  ]),
);

const VersionRange = z.lazy(() =>
  reasoned({ min: Version.optional(), below: Version.optional() }).refine(
    ({ min, below }) => min !== undefined || below !== undefined,
    'Give min, below, or both.',
  ),
);
const Permission = z.lazy(() => reasoned({ name: z.string().regex(/^[\w.]+$/) }));
const Level = z.lazy(() => reasoned({ value: z.number().int().min(1).max(99) }));

/** A configuration file that the network's pages give out for one application. */
const Companion = z.lazy(() =>
  reasoned({
    file: TreePath.meta({
      description: 'Where the file has to lie, below the application module or the target’s folder.',
    }),
    format: z.enum(['json', 'plist']),
    identifier: z
      .array(z.string().min(1))
      .min(1)
      .max(8)
      .meta({ description: 'The way to the application identifier in it, key by key; * for each entry.' }),
  }).meta({ description: 'A file that the network’s pages give out per application.' }),
);
export type Companion = z.infer<typeof Companion>;

/** A library that is handed out as a file. */
const Binary = z.lazy(() =>
  reasoned({
    file: z.string().regex(/^[\w.-]+\.(aar|jar|xcframework|framework)$/, 'A file name of a library.'),
    sha256: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .optional(),
    version: Version,
  }).meta({ description: 'A library that is handed out as a file instead of being published.' }),
);

const ViewClass = z.lazy(() =>
  reasoned({
    class: z.string().regex(/^[\w.]+$/),
    format: Format,
    unit: z
      .string()
      .regex(/^\w+$/)
      .optional()
      .meta({ description: 'The attribute that takes the unit ID, without its prefix.' }),
    size: z.string().regex(/^\w+$/).optional().meta({ description: 'The attribute that takes the size.' }),
  }).meta({ description: 'A view of the network that a layout or storyboard may name.' }),
);
export type ViewClass = z.infer<typeof ViewClass>;

export const AndroidNeeds = z.lazy(() =>
  z.strictObject({
    'app-id': AppIdPlace.optional(),
    'min-sdk': Level.optional(),
    'compile-sdk': Level.optional(),
    kotlin: VersionRange.optional().meta({ description: 'The Kotlin versions that the SDK works with.' }),
    permissions: z.array(Permission).default([]),
    repositories: z.array(reasoned({ url: z.url() })).default([]),
    dependencies: z
      .array(reasoned({ coordinate: z.string().regex(/^[\w.-]+:[\w.-]+$/), version: Version }))
      .default([]),
    binaries: z.array(Binary).default([]),
    components: z
      .array(
        reasoned({
          kind: z.enum(['activity', 'service', 'receiver', 'provider']),
          name: z.string().regex(/^[\w.$]+$/),
          attributes: z.record(z.string().regex(/^android:\w+$/), z.string()).default({}),
          actions: z.array(z.string().min(1)).default([]),
        }),
      )
      .default([])
      .meta({ description: 'Components that the manifest must declare.' }),
    application: reasoned({ class: z.string().regex(/^[\w.]+$/) })
      .optional()
      .meta({ description: 'The application class that must be declared, or extended by the title’s own.' }),
    companion: Companion.optional(),
    plugin: reasoned({ id: z.string().regex(/^[\w.-]+$/), version: Version })
      .optional()
      .meta({ description: 'The Gradle plugin that the application module must apply.' }),
    views: z.array(ViewClass).default([]),
  }),
);
export type AndroidNeeds = z.infer<typeof AndroidNeeds>;

export const IosNeeds = z.lazy(() =>
  z.strictObject({
    'app-id': AppIdPlace.optional(),
    'deployment-target': reasoned({ value: z.string().regex(/^\d+(\.\d+)?$/) }).optional(),
    pods: z.array(reasoned({ name: z.string().min(1), version: Version })).default([]),
    packages: z.array(reasoned({ url: z.url(), product: z.string().min(1), version: Version })).default([]),
    binaries: z.array(Binary).default([]),
    keys: z
      .array(
        reasoned({
          key: z.string().min(1),
          type: z.enum(['string', 'boolean', 'array', 'dict']),
          value: z.union([z.string(), z.boolean()]).optional(),
        }),
      )
      .default([])
      .meta({ description: 'Further keys that the property list must hold.' }),
    'linker-flags': z
      .array(reasoned({ flag: z.string().regex(/^-[\w-]+$/) }))
      .default([])
      .meta({ description: 'Flags that OTHER_LDFLAGS must hold.' }),
    attribution: reasoned({
      ids: z
        .array(z.string().regex(/^[a-z0-9]{6,40}\.skadnetwork$/, 'Such as 4xk2m9f7qd.skadnetwork.'))
        .min(1),
      list: z.url().optional().meta({ description: 'Where the network publishes its list.' }),
    })
      .optional()
      .meta({ description: 'The SKAdNetwork identifiers that the property list must name.' }),
    companion: Companion.optional(),
    views: z.array(ViewClass).default([]),
  }),
);
export type IosNeeds = z.infer<typeof IosNeeds>;

/** What the stacks that build for both platforms need, on top of what the native trees inside them need. */
export const StackNeeds = z.lazy(() =>
  z
    .strictObject(
      Object.fromEntries(
        described.flatMap(({ id, packages }) => (packages ? [[id, orNone(packages.needs)]] : [])),
      ) as Record<string, z.ZodType<StackParts[string]>>,
    )
    .meta({ description: 'Packages for the stacks that build for both platforms.' }),
);
