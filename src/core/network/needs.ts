import * as z from 'zod';
import { orNone, Version, type StackParts } from '../stacks/description.js';
import { Format, reasoned, Slug, TreePath, Why } from '../words/words.js';
import { isOfType, PlainValue, plainTypes } from '../formats/plist/plain.js';
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
      key: z.string().min(3).meta({ description: 'Property-list key of the application.' }),
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

/** A meta-data element beside the one that takes the app ID. */
const MetaData = z.lazy(() =>
  reasoned({
    key: z.string().min(3).max(200),
    value: z
      .union([z.string().max(1000), z.number(), z.boolean()])
      .optional()
      .meta({ description: 'The required value of android:value.' }),
    resource: z
      .string()
      .regex(/^@[\w+.]*[a-z]+\/[\w.]+$/, 'A reference to a resource, such as @xml/ad_services.')
      .optional()
      .meta({ description: 'The required value of android:resource.' }),
  })
    .refine(({ value, resource }) => value === undefined || resource === undefined, {
      path: ['resource'],
      error: 'An element can have only one of the two.',
    })
    .meta({
      description:
        'A meta-data element of the application. Without a value here, any value is fine: the app’s team decides.',
    }),
);

/** Elements of a manifest that directives may stand on. */
const mergeElements = [
  'application',
  'uses-permission',
  'activity',
  'service',
  'receiver',
  'provider',
  'meta-data',
] as const;

/** What the manifest merger must be told. Source: Android developer guide, "Manage manifest files". */
const Directive = z.lazy(() =>
  reasoned({
    element: z.enum(mergeElements),
    name: z
      .string()
      .regex(/^[\w.$]+$/)
      .optional()
      .meta({ description: 'android:name of the element; absent for the application element.' }),
    node: z
      .enum(['merge', 'merge-only-attributes', 'replace', 'strict', 'remove'])
      .optional()
      .meta({ description: 'The required value of tools:node.' }),
    replace: z
      .array(z.string().regex(/^android:\w+$/, 'An attribute, such as android:theme.'))
      .default([])
      .meta({ description: 'Attributes that tools:replace must list.' }),
  })
    .refine(({ element, name }) => (element === 'application') === (name === undefined), {
      path: ['name'],
      error: 'The application element must not have a name here, and every other element needs one.',
    })
    .refine(({ node, replace }) => node !== undefined || replace.length > 0, {
      path: ['node'],
      error: 'Give node, replace, or both.',
    })
    .meta({ description: 'What the manifest merger must do with an element.' }),
);
export type Directive = z.infer<typeof Directive>;

/** What a dependency may say besides its name and version. */
const forSome = {
  formats: z
    .array(Format)
    .min(1)
    .optional()
    .meta({ description: 'Only needed by titles that have a placement of one of these formats here.' }),
  together: Slug.optional().meta({
    description: 'The name of a group. All dependencies of one group must have the same version.',
  }),
};

/** A configuration file that the network's pages give out for one application. */
const Companion = z.lazy(() =>
  reasoned({
    file: TreePath.meta({
      description: 'Where the file belongs, below the application module or the target’s folder.',
    }),
    format: z.enum(['json', 'plist']),
    identifier: z
      .array(z.string().min(1))
      .min(1)
      .max(8)
      .meta({ description: 'The path to the application identifier in it, key by key; * for each entry.' }),
  }).meta({ description: 'A file that the network’s console provides for each application.' }),
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
  }).meta({ description: 'A library that is provided as a file instead of being published.' }),
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
    java: reasoned({ min: z.number().int().min(8).max(99) })
      .optional()
      .meta({ description: 'The lowest Java level that the module must be compiled for.' }),
    desugaring: reasoned({ version: Version }).optional().meta({
      description:
        'Set where the SDK needs core library desugaring: the lowest version of com.android.tools:desugar_jdk_libs.',
    }),
    shrinker: z
      .array(
        reasoned({
          rule: z
            .string()
            .regex(/^-[a-z]/, 'A rule begins with its option, such as -keep.')
            .max(600),
        }),
      )
      .default([])
      .meta({ description: 'Rules that a build with code shrinking needs.' }),
    permissions: z.array(Permission).default([]),
    repositories: z.array(reasoned({ url: z.url() })).default([]),
    dependencies: z
      .array(reasoned({ coordinate: z.string().regex(/^[\w.-]+:[\w.-]+$/), version: Version, ...forSome }))
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
    'meta-data': z.array(MetaData).default([]),
    merge: z
      .array(Directive)
      .default([])
      .meta({ description: 'Directives for the manifest merger, without which the build stops.' }),
    application: reasoned({ class: z.string().regex(/^[\w.]+$/) })
      .optional()
      .meta({
        description: 'The application class that must be declared, or extended by the title’s own class.',
      }),
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
    pods: z.array(reasoned({ name: z.string().min(1), version: Version, ...forSome })).default([]),
    packages: z
      .array(reasoned({ url: z.url(), product: z.string().min(1), version: Version, ...forSome }))
      .default([]),
    binaries: z.array(Binary).default([]),
    keys: z
      .array(
        reasoned({
          key: z.string().min(1),
          type: z.enum(plainTypes),
          value: PlainValue.optional().meta({
            description:
              'The required value. For an array or a dictionary: the required entries; others are allowed.',
          }),
        }).refine(({ type, value }) => value === undefined || isOfType(value, type), {
          path: ['value'],
          error: 'The value does not have the named type.',
        }),
      )
      .default([])
      .meta({ description: 'Further keys that the property list must contain.' }),
    'linker-flags': z
      .array(reasoned({ flag: z.string().regex(/^-[\w-]+$/) }))
      .default([])
      .meta({ description: 'Flags that OTHER_LDFLAGS must contain.' }),
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
