import { valueAt } from '../text/own-values.js';
import type { Format } from '../words/words.js';
import { languageNamed, type LanguageName } from '../languages/index.js';
import type { StepContext } from './model.js';

/** The language of each stack that builds both platforms. */
const shared: Readonly<Record<string, LanguageName>> = {
  flutter: 'dart',
  'react-native': 'typescript',
  expo: 'typescript',
  unity: 'csharp',
  maui: 'csharp',
};
const native = { android: 'kotlin', ios: 'swift' } as const;

/** The language that a tree's own code is written in; without a tree that of the platform. */
function languageFor({ platform, reading }: Pick<StepContext, 'platform' | 'reading'>): LanguageName {
  return valueAt(shared, reading?.edition.stack ?? '') ?? native[platform];
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
