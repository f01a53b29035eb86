import type { IosNeeds } from '../../../network/needs.js';
import type { Title } from '../../../roster/model.js';
import { escapeXml } from '../../../formats/xml/edit.js';
import { setString } from '../../../formats/plist/edit.js';
import type { PlistValue } from '../../../formats/plist/read.js';
import type { TextDocument } from '../../../text/document.js';
import type { Edit } from '../../../text/edit.js';
import type { ByHand } from '../../../edits/model.js';
import type { Profile } from '../../../network/model.js';

/** A key that a network needs in the property list. */
export type Key = IosNeeds['keys'][number];
/** Asks the user for permission to track: its text comes from the roster. */
export const trackingKey = 'NSUserTrackingUsageDescription';

/** The rules that writing such keys satisfies. */
export const keyRules = [
  'plist/key-missing',
  'plist/key-wrong-type',
  'privacy/tracking-text-missing',
  'privacy/tracking-text-empty',
];

function textOf(title: Title, { key, value }: Key): string | undefined {
  if (key === trackingKey) return title.editions.ios?.tracking;
  return typeof value === 'string' ? value : undefined;
}

/** The lines of a value; undefined where nobody has said it. */
export function valueOf(title: Title, key: Key): string[] | undefined {
  if (key.type === 'boolean') return [key.value === false ? '<false/>' : '<true/>'];
  const text = textOf(title, key);
  if (key.type === 'string') return text === undefined ? undefined : [`<string>${escapeXml(text)}</string>`];
  if (text === undefined) return undefined;
  const items = text.split(',').map((item) => `  <string>${escapeXml(item.trim())}</string>`);
  return key.type === 'array' ? ['<array>', ...items, '</array>'] : undefined;
}

/** The edits that give a key its value in a list that has it; undefined where the list has none. */
export function existingKeyEdits(
  { text, lineEnd }: TextDocument,
  root: PlistValue & { type: 'dict' },
  key: Key,
  title: Title,
): Edit[] | undefined {
  const existing = root.entries.find((entry) => entry.key === key.key);
  const value = valueOf(title, key);
  if (!existing || value === undefined) return undefined;
  const { element } = existing.value;
  return key.type === 'string'
    ? setString(text, root, key.key, textOf(title, key) ?? '', lineEnd)
    : [{ start: element.start, end: element.end, text: value.join(lineEnd) }];
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
