import { readPattern, type Pattern } from '../text/patterns.js';
import { valueAt } from '../text/own-values.js';
import { idKinds, type IdKind, type IdKindName, type Profile } from './model.js';
import { type Format, type Platform } from '../words/words.js';
import { samplesOf } from './samples.js';

/** What a value is to one network. */
export interface Recognised {
  network: string;
  kind: IdKindName;
  /** The platform that the ID itself names; undefined when it names none. */
  platform?: Platform;
  account?: string;
  /** Set for the IDs that the network gives out for testing. */
  sample?: { platform: Platform; format?: Format }[];
}

/** Values longer than this are no IDs. */
export const maxIdLength = 200;

interface Matcher {
  network: string;
  name: IdKindName;
  kind: IdKind;
  whole: Pattern;
  samples: Map<string, { platform: Platform; format?: Format }[]>;
}

/** Tells what a value is to the networks that it was made for. */
export interface Recogniser {
  /** What the value is, exactly as it is; white space around it makes it nothing, and so does the lack of every needle. */
  recognise: (value: string) => Recognised[];
  /** Plain texts of which every ID of these networks holds one. */
  readonly needles: readonly string[];
}

/** Recognises IDs by the profiles' patterns alone. */
export function recogniser(profiles: readonly Profile[]): Recogniser {
  const matchers = profiles.flatMap((profile) =>
    idKinds.flatMap((name): Matcher[] => {
      const kind = profile.ids[name];
      if (!kind) return [];
      const samples: Matcher['samples'] = new Map();
      for (const { id, platform, format } of samplesOf(kind)) {
        samples.set(id, [...(samples.get(id) ?? []), { platform, ...(format ? { format } : {}) }]);
      }
      return [{ network: profile.id, name, kind, whole: readPattern(kind.pattern), samples }];
    }),
  );
  return {
    needles: [...new Set(matchers.flatMap(({ kind }) => kind.needles))],
    recognise(value) {
      if (value.length > maxIdLength) return [];
      return matchers.flatMap(({ network, name, kind, whole, samples }): Recognised[] => {
        const groups = kind.needles.some((needle) => value.includes(needle)) && whole.groupsOf(value);
        if (!groups) return [];
        const code = groups.get('platform');
        const platform = code === undefined ? undefined : valueAt(kind.platforms, code);
        const account = groups.get('account');
        const sample = samples.get(value);
        return [
          {
            network,
            kind: name,
            ...(platform ? { platform } : {}),
            ...(account ? { account } : {}),
            ...(sample ? { sample } : {}),
          },
        ];
      });
    },
  };
}

/** The sample ID for a platform (and format); undefined when the network gives out none. */
export function sampleFor(
  profile: Profile,
  kind: IdKindName,
  platform: Platform,
  format?: Format,
): string | undefined {
  const samples = profile.ids[kind]?.samples[platform];
  return samples === undefined || typeof samples === 'string' ? samples : format && samples[format];
}

/** Whether a network has a format on a platform. */
export function offers(profile: Profile, format: Format, platform: Platform): boolean {
  const rules = profile.formats[format];
  if (!rules || !profile[platform]) return false;
  return !rules.platforms || rules.platforms.includes(platform);
}
