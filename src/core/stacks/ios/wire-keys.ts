import { setString } from '../../formats/plist/edit.js';
import { escapeXml } from '../../formats/xml/edit.js';
import type { IosNeeds, Profile } from '../../network/model.js';
import { isEnrolled } from '../../roster/expected.js';
import type { ByHand, Change } from '../../edits/model.js';
import type { PlistValue } from '../../formats/plist/read.js';
import type { Title } from '../../roster/model.js';
import type { TextDocument } from '../../text/document.js';
import type { Edit } from '../../text/edit.js';
import type { StackWiring } from '../stack.js';
import { propertyKeys } from './property-keys.js';
import type { IosWireContext } from './wire-context.js';
import { addKey, targetLists, type TargetList } from './wire-lists.js';

type Key = IosNeeds['keys'][number];

const platform = 'ios' as const;
const trackingKey = 'NSUserTrackingUsageDescription';
export const keyRules = [
  'plist/key-missing',
  'plist/key-wrong-type',
  'privacy/tracking-text-missing',
  'privacy/tracking-text-empty',
];

/** Keys that enrolled networks need in the property list, each with its type; the text for tracking comes from the roster. */
export function wireKeys(context: IosWireContext): StackWiring {
  const { title, profiles } = context;
  const lists = targetLists(context) ?? [];
  const parts = profiles
    .filter(({ id }) => isEnrolled(title, id, platform))
    .flatMap((profile) =>
      (profile.ios?.keys ?? []).flatMap((key) => lists.map((list) => wireKey(context, profile, key, list))),
    );
  return {
    changes: parts.flatMap(({ changes }) => changes),
    byHand: parts.flatMap(({ byHand }) => byHand),
  };
}

function wireKey(context: IosWireContext, profile: Profile, key: Key, list: TargetList): StackWiring {
  const nothing: StackWiring = { changes: [], byHand: [] };
  const given = {
    platform,
    network: profile.id,
    topic: 'keys' as const,
    rules: keyRules,
  };
  const lacking = list.variants.filter(
    (variant) =>
      !propertyKeys(context.tree, variant).some(
        (held) => held.key === key.key && !held.ignored && held.text.trim() !== '' && held.type === key.type,
      ),
  );
  if (lacking.length === 0) return nothing;
  const value = valueOf(context.title, key);
  if (value === undefined) return { changes: [], byHand: [keyStep(profile, key, list.path)] };
  const edits = list.text ? standingEdits(list.text, list.root, key, context.title) : undefined;
  return edits
    ? { changes: [{ ...given, path: list.path, kind: 'edit', edits }], byHand: [] }
    : { changes: addKey(context, list, key.key, value, { ...given, adds: [`key ${key.key}`] }), byHand: [] };
}

/** The edits that give a key its value in a list that has it; undefined where the list has none. */
export function standingEdits(
  { text, lineEnd }: TextDocument,
  root: PlistValue & { type: 'dict' },
  key: Key,
  title: Title,
): Edit[] | undefined {
  const standing = root.entries.find((entry) => entry.key === key.key);
  const value = valueOf(title, key);
  if (!standing || value === undefined) return undefined;
  const { element } = standing.value;
  return key.type === 'string'
    ? setString(text, root, key.key, textOf(title, key) ?? '', lineEnd)
    : [{ start: element.start, end: element.end, text: value.join(lineEnd) }];
}

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

/** What a person has to say, or to write, for a key that nobody has given a value. */
export function keyStep(profile: Profile, key: Pick<Key, 'key' | 'type' | 'why'>, path: string): ByHand {
  const tracking = key.key === trackingKey;
  return {
    platform,
    network: profile.id,
    rule: tracking ? 'privacy/tracking-text-missing' : 'plist/key-missing',
    what: tracking
      ? 'Say in the roster why the app asks for leave to track (editions.ios.tracking), in words that a user understands; then wire again.'
      : `Give the property list the key ${key.key} (${key.type}).`,
    why: `${profile.name}: ${key.why}`,
    where: tracking ? 'syndexa title set TITLE --tracking "…"' : path,
  };
}

/** What has to be declared at the store when a network asks for leave to track: no file can say it. */
export function storeSteps(
  { title, profiles, survey }: IosWireContext,
  changes: readonly Change[],
): ByHand[] {
  const asking = profiles.filter(
    ({ id, ios }) => isEnrolled(title, id, platform) && ios?.keys.some(({ key }) => key === trackingKey),
  );
  const fresh = asking.filter(({ id }) =>
    changes.some(({ network, topic }) => network === id && (topic === 'keys' || topic === 'app-id')),
  );
  const [edition] = survey.editions.filter((each) => each.platform === platform);
  return fresh.map(({ id, name }) => ({
    platform,
    network: id,
    rule: null,
    what: `Declare at the store that ${edition?.identifier ?? 'the app'} tracks users for advertising with ${name}.`,
    why: 'The store compares its privacy answers with what the build asks for, and turns the version down when they differ.',
    where: null,
  }));
}
