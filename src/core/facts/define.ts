import * as z from 'zod';
import { Platform } from '../words/words.js';
import { Effective } from './effective.js';
import { ChainStep, CodePlace, Place } from './evidence.js';

/** What facts of every kind have. */
export const commonFields = {
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
  effective: Effective,
  code: CodePlace.optional(),
  place: Place,
  chain: z.array(ChainStep),
};

type Schema<Kind extends string, Fields extends z.ZodRawShape> = z.ZodObject<
  { kind: z.ZodLiteral<Kind> } & typeof commonFields & Fields
>;

/** A kind of fact: its own fields, and how it is shown. */
export interface FactDefinition<Kind extends string, Fields extends z.ZodRawShape> {
  kind: Kind;
  /** What it is called in front of people. */
  label: string;
  /** One sentence for the documentation. */
  description: string;
  /** The fields that only this kind has. */
  fields: Fields;
  /**
   * What tells a fact from others of its kind and network in one variant; its name or value unless this says otherwise.
   * Empty where there can be only one.
   */
  identity?(fact: z.infer<Schema<Kind, Fields>>): string;
  /** What a fact is about, after the label; the placement or the name unless this says otherwise. */
  subject?(fact: z.infer<Schema<Kind, Fields>>): string | undefined;
  /** What else there is to say of a fact, as a short phrase. */
  detail?(fact: z.infer<Schema<Kind, Fields>>): string | undefined;
}

/** Makes a kind of fact from its definition. */
export function defineFact<const Kind extends string, const Fields extends z.ZodRawShape>(
  definition: FactDefinition<Kind, Fields>,
): FactDefinition<Kind, Fields> & { schema: Schema<Kind, Fields> } {
  const { kind, description, fields } = definition;
  const schema = z.object({ kind: z.literal(kind), ...commonFields, ...fields }).meta({ description });
  return { ...definition, schema: schema };
}
