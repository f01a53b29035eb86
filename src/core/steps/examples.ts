import { described, stackNamed } from '../network/described.js';
import type { Format } from '../words/words.js';
import { languageNamed, languageOf, type LanguageName } from '../languages/index.js';
import type { StepContext } from './model.js';

/** The language that most of a tree's own code is in; the first of its stack where no code was read. */
function languageFor({ platform, reading }: Pick<StepContext, 'platform' | 'reading'>): LanguageName {
  const stack =
    stackNamed(reading?.edition.stack ?? '') ?? described.find(({ native }) => native === platform);
  const languages = stack?.languages ?? [];
  const written = (reading?.facts ?? []).flatMap(
    ({ code, place }) => (code && languageOf(place.path)?.id) ?? [],
  );
  const count = (language: LanguageName) => written.filter((id) => id === language).length;
  const [usual] = [...languages].sort((a, b) => count(b) - count(a));
  if (!usual) throw new Error(`No stack builds ${platform}.`);
  return usual;
}

/** How the start-up call looks in the language of a tree, the app ID named through the placebook. */
export function startExample(context: StepContext): { text: string; why: string } | null {
  const { profile } = context;
  const language = languageFor(context);
  const start = profile.code[language]?.start;
  if (!start) return null;
  return {
    text: start.example.replaceAll('APP_ID', languageNamed(language).reference.app(profile.id)),
    why: start.why,
  };
}

/** How a placement is loaded in the language of a tree, its unit named through the placebook. */
export function loadExample(
  context: StepContext,
  format: Format | undefined,
  placement: string,
): string | null {
  const { profile } = context;
  const language = languageFor(context);
  const example = format && profile.code[language]?.formats[format]?.example;
  if (!example) return null;
  return example.replaceAll('UNIT_ID', languageNamed(language).reference.unit(placement, profile.id));
}
