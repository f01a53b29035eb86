import * as z from 'zod';
import { Format, Platform, reasoned, Slug, Why } from '../words/words.js';

/** The name of a field of an answer, or of a column of a table. */
export const FieldName = z.string().min(1).max(60);

/** Where an HTTP interface is, and how the key is sent. */
export const accessFields = {
  address: z.url({ protocol: /^https?$/ }),
  key: Slug.meta({ description: 'The credential that gives access.' }),
  header: z.string().regex(/^[A-Za-z][\w-]*$/),
  prefix: z.string().max(40).default('').meta({ description: 'The text before the key.' }),
};

/** How a long list is requested page by page. */
export const PageQuery = z.lazy(() =>
  z.strictObject({
    cursor: FieldName.meta({ description: 'The query parameter that names the next page.' }),
    size: FieldName,
    next: FieldName.meta({ description: 'The field of the response with the next page.' }),
    limit: z.number().int().min(1).max(1000).default(100),
    total: FieldName.optional().meta({
      description: 'The field of the response with the total count.',
    }),
  }),
);

const UnitFields = z.lazy(() =>
  z.strictObject({
    id: FieldName,
    name: FieldName,
    format: FieldName,
    platform: FieldName.optional(),
    app: FieldName.optional(),
    status: FieldName.optional(),
    'serves-from': FieldName.optional().meta({
      description: 'When the unit starts to serve ads, in ISO 8601.',
    }),
    refresh: FieldName.optional(),
    content: FieldName.optional(),
    'reward-amount': FieldName.optional(),
    'reward-item': FieldName.optional(),
    skippable: FieldName.optional(),
  }),
);
export type UnitFields = z.infer<typeof UnitFields>;

const AppFields = z.lazy(() =>
  z.strictObject({
    id: FieldName,
    platform: FieldName,
    identifier: FieldName,
    name: FieldName,
    status: FieldName.optional(),
    audience: FieldName.optional(),
    terms: FieldName.optional().meta({ description: 'Whether the terms were accepted for it.' }),
  }),
);
export type AppFields = z.infer<typeof AppFields>;

const List = <Fields extends z.ZodType>(fields: Fields) =>
  z.strictObject({
    path: z.string().regex(/^\/[\w/-]*$/, 'A path below the address.'),
    items: FieldName.meta({ description: 'The field of the response with the list.' }),
    fields,
  });

/** The words that a network uses for what Syndexa names otherwise. */
const Words = z.lazy(() =>
  z
    .strictObject({
      platform: z.partialRecord(Platform, z.array(z.string().min(1)).min(1)).default({}),
      format: z.partialRecord(Format, z.array(z.string().min(1)).min(1)).default({}),
      status: z
        .partialRecord(z.enum(['active', 'paused', 'removed']), z.array(z.string().min(1)).min(1))
        .default({}),
    })
    .meta({
      description:
        'The network’s words for a platform, a format or a status; the first one is used for writing.',
    }),
);

export const Inventory = z.lazy(() =>
  z
    .strictObject({
      words: Words.default({ platform: {}, format: {}, status: {} }),
      http: z
        .strictObject({
          ...accessFields,
          page: PageQuery,
          apps: List(AppFields).optional(),
          units: List(UnitFields),
          create: z
            .boolean()
            .default(false)
            .meta({ description: 'Whether apps and units can be created, by POST to the same paths.' }),
          why: Why,
        })
        .optional(),
      csv: z
        .strictObject({ columns: UnitFields })
        .optional()
        .meta({ description: 'The column names of an exported table of units.' }),
    })
    .meta({ description: 'How the network’s list of apps and units is fetched.' }),
);
export type Inventory = z.infer<typeof Inventory>;
export type InventoryHttp = NonNullable<Inventory['http']>;

/** The required parameters of a tag URL, for networks whose units are URLs. */
export const TagAddress = z.lazy(() =>
  z
    .strictObject({
      parameters: z
        .array(
          reasoned({
            name: z
              .string()
              .regex(/^[A-Za-z][\w.-]{0,39}$/, 'The name of a parameter, as it is in the address.'),
            value: z.string().max(200).optional().meta({
              description: 'The required value, such as [CACHEBUSTING]; default: any value.',
            }),
          }),
        )
        .min(1),
    })
    .meta({ description: 'The parameters that every tag URL of the network must have.' }),
);
