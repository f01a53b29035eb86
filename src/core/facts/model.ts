import * as z from 'zod';
import { problemKinds } from '../text/problem.js';
import { Platform, Stage } from '../words/words.js';
import { Effective } from './effective.js';
import { ChainStep, Place } from './evidence.js';
import { factDefinitions } from './kinds/index.js';

type FactSchema = (typeof factDefinitions)[number]['schema'];
export type Fact = z.infer<FactSchema>;
export type FactKind = Fact['kind'];
/** A fact of one kind, or of some. */
export type FactOf<Kind extends FactKind> = Extract<Fact, { kind: Kind }>;

/** Kinds of facts that one setting of a build gives; none has fields of its own. */
export type PlainKind =
  | 'identifier'
  | 'min-sdk'
  | 'compile-sdk'
  | 'target-sdk'
  | 'deployment-target'
  | 'permission'
  | 'linker-flag'
  | 'symbol'
  | 'kotlin'
  | 'java-level'
  | 'app-label';

/** Whether a fact is an ID of a network: an app ID or a unit ID. */
export function isIdFact(fact: Fact): fact is FactOf<'app-id' | 'unit-id'> {
  return fact.kind === 'app-id' || fact.kind === 'unit-id';
}

export const FactKind = z.enum(factDefinitions.map(({ kind }) => kind));

export const Fact: z.ZodType<Fact> = z
  .discriminatedUnion('kind', factDefinitions.map(({ schema }) => schema) as [FactSchema, ...FactSchema[]])
  .meta({ description: 'One observation in a survey.' });

export const Unresolved = z
  .object({
    what: z.string(),
    reason: z.string(),
    kind: FactKind,
    network: z.string().nullable(),
    platform: Platform,
    module: z.string(),
    variants: z.array(z.string()),
    value: z
      .string()
      .optional()
      .meta({ description: 'The value that may or may not be used, if one is written.' }),
    effective: Effective.optional().meta({
      description: 'Why the build does not look there, if it does not.',
    }),
    cause: z.enum(['undefined', 'no-value', 'unread-script']).optional().meta({
      description:
        'Why the build cannot have a value either: it refers to something undefined, or nothing is written. Or that a script which may define anything was not read.',
    }),
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
  stageWhy: z.string().meta({ description: 'Why the variant has its stage, or has none.' }),
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
      .meta({ description: 'The identifier of the variant that ships; null when it cannot be determined.' }),
    identifiers: z.record(z.string(), z.string()).meta({ description: 'The identifier of each variant.' }),
    variants: z.array(Variant),
    dependencies: Place.optional().meta({
      description: 'Where a dependency of the edition is declared; default: its home.',
    }),
    home: Place.meta({
      description: 'Where declarations for the whole application are: its manifest or property list.',
    }),
  })
  .meta({ description: 'An application that a tree builds for one platform.' });
export type SurveyEdition = z.infer<typeof SurveyEdition>;

/** The version of the JSON shape of surveys. `docs/json.md` says what changed. */
export const surveyVersion = 2;

export const Survey = z
  .object({
    version: z.literal(surveyVersion).meta({ description: 'Version of this shape.' }),
    tree: z.string(),
    title: z.string().nullable(),
    stacks: z.array(z.object({ stack: z.string(), root: z.string(), evidence: z.array(z.string()) })),
    passedOver: z
      .array(z.object({ root: z.string(), why: z.string() }))
      .default([])
      .meta({ description: 'What looks like an application, but does not belong to this tree.' }),
    editions: z.array(SurveyEdition),
    facts: z.array(Fact),
    unresolved: z.array(Unresolved),
    problems: z.array(
      z.object({
        path: z.string(),
        line: z.number(),
        column: z.number(),
        kind: z.enum(problemKinds).meta({
          description: 'Whether the file breaks the rules of its format, is not text, or was not read.',
        }),
        message: z.string(),
      }),
    ),
  })
  .meta({ title: 'Survey', description: 'Everything about ads in a snapshot.' });
export type Survey = z.infer<typeof Survey>;
