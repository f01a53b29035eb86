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
  /** Set for IDs that the network publishes for testing. */
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
  /**
   * Recognises an exact value; with white space around it, it is not an ID. An ID without any fixed text is recognised
   * only if it is in the roster.
   * @param of a network whose ID it is by its place: then its patterns alone decide
   */
  recognise: (value: string, of?: string) => Recognised[];
  /** Plain texts; every ID of these networks contains one of them. */
  readonly needles: readonly string[];
}

/** An ID that is on record for a network. */
export interface RecordedId {
  id: string;
  network: string;
}

/** Whether a network has IDs without any fixed text. */
export function hasBareIds({ ids }: Profile): boolean {
  return idKinds.some((kind) => ids[kind]?.needles.length === 0);
}

/** Recognises IDs by the profiles' patterns, and those without any fixed text by the IDs on record. */
export function recogniser(profiles: readonly Profile[], record: readonly RecordedId[] = []): Recogniser {
  const bare = new Set(profiles.filter(hasBareIds).map(({ id }) => id));
  const recorded = record.filter(({ network }) => bare.has(network));
  const onRecord = new Set(recorded.map(({ id, network }) => `${network} ${id}`));
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
    needles: [...new Set([...matchers.flatMap(({ kind }) => kind.needles), ...recorded.map(({ id }) => id)])],
    recognise(value, of) {
      if (value.length > maxIdLength) return [];
      return matchers.flatMap(({ network, name, kind, whole, samples }): Recognised[] => {
        const mayBe =
          network === of ||
          (kind.needles.length === 0
            ? onRecord.has(`${network} ${value}`)
            : kind.needles.some((needle) => value.includes(needle)));
        const groups = mayBe && whole.groupsOf(value);
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

/** The sample ID for a platform (and format); undefined if the network has none. */
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
