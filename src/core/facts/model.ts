import * as z from 'zod';
import { Platform, Stage } from '../words/words.js';

export const Place = z
  .object({
    path: z.string(),
    line: z.number().int().min(1),
    column: z.number().int().min(1),
    endLine: z.number().int().min(1).optional(),
    endColumn: z.number().int().min(1).optional(),
  })
  .meta({ description: 'A place in a file. Lines and columns start at 1; columns count UTF-16 units.' });
export type Place = z.infer<typeof Place>;

export const ChainStep = z
  .object({ what: z.string(), value: z.string().nullable(), place: Place.nullable() })
  .meta({ description: 'One link in the evidence for a fact: what was read, what it said, where.' });
export type ChainStep = z.infer<typeof ChainStep>;

export const FactKind = z.enum([
  'identifier',
  'min-sdk',
  'compile-sdk',
  'target-sdk',
  'deployment-target',
  'app-id',
  'unit-id',
  'permission',
  'dependency',
  'plist-key',
  'attribution-id',
  'companion',
  'repository',
  'kotlin',
  'build-plugin',
  'binary',
  'component',
  'application-class',
  'merge-conflict',
  'locale-override',
  'banner-view',
  'linker-flag',
  'resolved-version',
  'extension',
  'workspace',
  'callback',
  'call',
  'placement-use',
  'placement-settings',
  'framework',
  'framework-call',
  'hand-flag',
  'linking',
  'left-open',
  'plugin-entry',
  'client',
  'stale-folder',
  'symbol',
  'template',
  'native-libraries',
]);
export type FactKind = z.infer<typeof FactKind>;

export const CodePlace = z
  .object({
    type: z.string().nullable().meta({ description: 'The class around it.' }),
    methods: z.array(z.string()).meta({ description: 'The methods around it, the outermost first.' }),
    conditions: z
      .array(z.object({ text: z.string(), holds: z.boolean() }))
      .meta({ description: 'What must hold, or must not, for it to run.' }),
    flow: z.string().optional().meta({ description: 'What an ID flows into, when that is plain.' }),
    argument: z
      .object({ written: z.string(), ids: z.array(z.string()) })
      .optional()
      .meta({ description: 'What a call is given as its ID, as written and as worked out.' }),
    empty: z.boolean().optional().meta({ description: 'Whether a callback does nothing.' }),
    waits: z.enum(['open', 'limited']).optional().meta({
      description: 'Whether code waits for a call: for as long as it takes, or within a limit of time.',
    }),
  })
  .meta({ description: 'Where in the code a fact stands.' });
export type CodePlace = z.infer<typeof CodePlace>;

export const Fact = z
  .object({
    kind: FactKind,
    network: z.string().nullable(),
    placement: z
      .string()
      .optional()
      .meta({ description: 'The placement that the roster gives this unit ID to.' }),
    platform: Platform,
    module: z.string().meta({ description: 'The Gradle module or Xcode target that it concerns.' }),
    variants: z.array(z.string()),
    name: z
      .string()
      .optional()
      .meta({ description: 'The key, permission, coordinate or constant that carries the value.' }),
    value: z.string(),
    standsIn: z.string().optional().meta({
      description:
        'What holds an ID: application, another component, property list, resource, code, placebook.',
    }),
    code: CodePlace.optional(),
    place: Place,
    chain: z.array(ChainStep),
  })
  .meta({ description: 'One observation in a survey.' });
export type Fact = z.infer<typeof Fact>;

export const Unresolved = z
  .object({
    what: z.string(),
    reason: z.string(),
    standsIn: z.string().optional(),
    kind: FactKind,
    network: z.string().nullable(),
    platform: Platform,
    module: z.string(),
    variants: z.array(z.string()),
    place: Place,
    chain: z.array(ChainStep),
  })
  .meta({ description: 'A value that reading alone cannot work out, with the reason.' });
export type Unresolved = z.infer<typeof Unresolved>;

export const Variant = z.object({
  name: z.string(),
  type: z.string().meta({ description: 'Build type or configuration.' }),
  flavours: z.array(z.string()),
  stage: Stage.nullable(),
  stageWhy: z.string().meta({ description: 'What gives the variant its stage, or why it has none.' }),
});
export type Variant = z.infer<typeof Variant>;

export const SurveyEdition = z
  .object({
    platform: Platform,
    stack: z.string(),
    module: z.string(),
    identifier: z
      .string()
      .nullable()
      .meta({ description: 'The identifier of the variant that ships; null when it cannot be told.' }),
    identifiers: z.record(z.string(), z.string()).meta({ description: 'The identifier of each variant.' }),
    variants: z.array(Variant),
    home: Place.meta({
      description: 'Where declarations for the whole application stand: its manifest or property list.',
    }),
  })
  .meta({ description: 'An application that a tree builds for one platform.' });
export type SurveyEdition = z.infer<typeof SurveyEdition>;

export const Survey = z
  .object({
    tree: z.string(),
    title: z.string().nullable(),
    stacks: z.array(z.object({ stack: z.string(), root: z.string(), evidence: z.array(z.string()) })),
    passedOver: z
      .array(z.object({ root: z.string(), why: z.string() }))
      .default([])
      .meta({ description: 'What looks like an application and is none of this tree’s own.' }),
    editions: z.array(SurveyEdition),
    facts: z.array(Fact),
    unresolved: z.array(Unresolved),
    problems: z.array(
      z.object({ path: z.string(), line: z.number(), column: z.number(), message: z.string() }),
    ),
  })
  .meta({ title: 'Survey', description: 'Everything about ads that a snapshot says.' });
export type Survey = z.infer<typeof Survey>;
