import type { Format, Platform, Profile } from '../network/model.js';
import { appReference, unitReference } from '../placebook/references.js';

const languages = { android: 'kotlin', ios: 'swift' } as const;

/** How the start-up call looks in the language of a native tree, the app ID named through the placebook. */
export function startExample(profile: Profile, platform: Platform): { text: string; why: string } | null {
  const start = profile.code[languages[platform]]?.start;
  if (!start) return null;
  return {
    text: start.example.replaceAll('APP_ID', appReference(languages[platform], profile.id)),
    why: start.why,
  };
}

/** How a placement is loaded in the language of a native tree, its unit named through the placebook. */
export function loadExample(
  profile: Profile,
  platform: Platform,
  format: Format | undefined,
  placement: string,
): string | null {
  const example = format && profile.code[languages[platform]]?.formats[format]?.example;
  if (!example) return null;
  return example.replaceAll('UNIT_ID', unitReference(languages[platform], placement, profile.id));
}
