import * as z from 'zod';
import { Title } from '../roster/model.js';
import { Place } from '../facts/evidence.js';
import { type Survey, type SurveyEdition } from '../facts/model.js';

export const Confidence = z.enum(['certain', 'likely', 'guess']);
export type Confidence = z.infer<typeof Confidence>;

export const Evidence = z
  .object({
    field: z.string().meta({ description: 'The field of the draft that it supports.' }),
    value: z.string(),
    confidence: Confidence,
    why: z.string(),
    place: Place.nullable(),
  })
  .meta({ description: 'Why a field of a draft is as it is.' });
export type Evidence = z.infer<typeof Evidence>;

export const OpenPoint = z.object({ what: z.string(), why: z.string(), place: Place.nullable() }).meta({
  description: 'Something that was found but is not in the draft, because it is not clear where it belongs.',
});
export type OpenPoint = z.infer<typeof OpenPoint>;

export const TitleDraft = z
  .object({
    id: z.string(),
    title: Title,
    document: z.string().meta({ description: 'The draft as a roster document, to edit before it is added.' }),
    evidence: z.array(Evidence),
    open: z.array(OpenPoint),
  })
  .meta({ title: 'Title draft', description: 'A title, as drafted from existing trees.' });
export type TitleDraft = z.infer<typeof TitleDraft>;

export type Draft = Pick<Title, 'editions' | 'networks' | 'placements' | 'stages'>;

/** A survey with the facts of the chosen editions alone. */
export function only(survey: Survey, chosen: readonly SurveyEdition[]): Survey {
  const facts = survey.facts.filter(({ platform, module }) =>
    chosen.some((edition) => edition.platform === platform && edition.module === module),
  );
  return { ...survey, facts };
}
