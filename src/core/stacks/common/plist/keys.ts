import { trackingKey } from '../../../formats/plist/keys.js';
import type { IosNeeds } from '../../../network/needs.js';
import type { Title } from '../../../roster/model.js';
import { mergeValue } from '../../../formats/plist/merge.js';
import { holdsPlain, plainOfWritten, serves, type PlainValue } from '../../../formats/plist/plain.js';
import type { PlistValue } from '../../../formats/plist/read.js';
import type { TextDocument } from '../../../text/document.js';
import type { Edit } from '../../../text/edit.js';
import type { ByHand } from '../../../edits/model.js';
import type { Profile } from '../../../network/model.js';
import { mergedMark } from './marks.js';

/** A key that a network needs in the property list. */
export type Key = IosNeeds['keys'][number];

/** The rules that writing such keys satisfies. */
export const keyRules = [
  'plist/key-missing',
  'plist/key-wrong-type',
  'privacy/tracking-text-missing',
  'privacy/tracking-text-empty',
];

/** What a network wants a key to hold: the text for tracking comes from the roster. Undefined where nobody has said it. */
export function wantedValue(title: Title, { key, type, value }: Key): PlainValue | undefined {
  if (key === trackingKey) return title.editions.ios?.tracking;
  return value ?? (type === 'boolean' ? true : undefined);
}

/** What several networks want a key to hold, together: arrays and dictionaries are joined, else the first one counts. */
export function joinedValue(title: Title, profiles: readonly Profile[], key: string): PlainValue | undefined {
  const wanted = profiles
    .flatMap(({ ios }) => ios?.keys ?? [])
    .filter((one) => one.key === key)
    .map((one) => wantedValue(title, one))
    .filter((value) => value !== undefined);
  return wanted.length === 0 ? undefined : wanted.reduce(joinedPlain);
}

/** What profiles say that a key must hold. */
export function valuesOf(profiles: readonly Profile[], key: string): PlainValue[] {
  return profiles
    .flatMap(({ ios }) => ios?.keys ?? [])
    .filter((one) => one.key === key)
    .map(({ value }) => value)
    .filter((value) => value !== undefined);
}

function joinedPlain(first: PlainValue, second: PlainValue): PlainValue {
  if (Array.isArray(first) && Array.isArray(second))
    return [...first, ...second.filter((item) => !first.some((one) => holdsPlain(one, item)))];
  if (typeof first !== 'object' || Array.isArray(first)) return first;
  if (typeof second !== 'object' || Array.isArray(second)) return first;
  const all = new Map(Object.entries(first));
  for (const [key, value] of Object.entries(second)) {
    const known = all.get(key);
    all.set(key, known === undefined ? value : joinedPlain(known, value));
  }
  return Object.fromEntries(all);
}

/** Whether what a list holds is of the type, and says all that is wanted; any text serves where nobody said one. */
export function isKeyMet(
  held: { type: string; value: string; content?: PlainValue | undefined },
  { key, type, value: asked }: Key,
  wanted: PlainValue | undefined,
): boolean {
  if (held.value.trim() === '' || !serves(held.type, type)) return false;
  if (key === trackingKey || asked === undefined || wanted === undefined) return true;
  return holdsPlain(plainOfWritten(held), wanted);
}

/** The edits that make a key of a list hold what is wanted, and what they add; undefined where the list has no such key. */
export function existingKeyEdits(
  { text, lineEnd }: TextDocument,
  root: PlistValue & { type: 'dict' },
  { key, type }: Pick<Key, 'key' | 'type'>,
  value: PlainValue,
): { edits: Edit[]; adds: string[] } | undefined {
  const existing = root.entries.find((entry) => entry.key === key);
  if (!existing) return undefined;
  const { edits, added } = mergeValue(text, existing.value, value, { type, lineEnd });
  return { edits, adds: added.map((one) => mergedMark(key, one)) };
}

/** What a person has to say, or to write, for a key that nobody has given a value. */
export function keyStep(profile: Profile, key: Pick<Key, 'key' | 'type' | 'why'>, path: string): ByHand {
  const tracking = key.key === trackingKey;
  return {
    platform: 'ios',
    network: profile.id,
    rule: tracking ? 'privacy/tracking-text-missing' : 'plist/key-missing',
    what: tracking
      ? 'Say in the roster why the app asks for permission to track (editions.ios.tracking), in words that a user understands. Then wire again.'
      : `Give the property list the key ${key.key} (${key.type}).`,
    why: `${profile.name}: ${key.why}`,
    where: tracking ? 'syndexa title set {title} --tracking "…"' : path,
  };
}
