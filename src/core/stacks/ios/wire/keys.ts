import { trackingKey } from '../../../formats/plist/keys.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { propertyKeys } from '../survey/property-keys.js';
import type { IosWireContext } from './context.js';
import { addKey, targetLists, type TargetList } from './lists.js';
import { contentOf, plainLines, type PlainValue } from '../../../formats/plist/plain.js';
import {
  existingKeyEdits,
  isKeyMet,
  joinedValue,
  keyRules,
  keyStep,
  type Key,
} from '../../common/plist/keys.js';
import { keyMark } from '../../common/plist/marks.js';

const platform = 'ios' as const;
/** Keys that enrolled networks need in the property list, each with its type; the text for tracking comes from the roster. */
export function wireKeys(context: IosWireContext): StackWiring {
  const { title, profiles } = context;
  const lists = targetLists(context) ?? [];
  const asking = profiles.filter(({ id }) => isEnrolled(title, id, platform));
  const parts = asking.flatMap((profile) =>
    (profile.ios?.keys ?? []).flatMap((key) => {
      const value = joinedValue(title, asking, key.key);
      return lists.map((list) => wireKey(context, profile, { key, value }, list));
    }),
  );
  return {
    changes: parts.flatMap(({ changes }) => changes),
    byHand: parts.flatMap(({ byHand }) => byHand),
  };
}

function wireKey(
  { tree, ...context }: IosWireContext,
  profile: Profile,
  { key, value }: { key: Key; value: PlainValue | undefined },
  list: TargetList,
): StackWiring {
  const given = {
    platform,
    network: profile.id,
    topic: 'keys' as const,
    rules: keyRules,
  };
  const lacking = list.variants.filter(
    (variant) =>
      !propertyKeys(tree, variant).some(
        (held) =>
          held.key === key.key &&
          !held.ignored &&
          isKeyMet({ type: held.type, value: held.text, ...contentOf(held.value) }, key, value),
      ),
  );
  if (lacking.length === 0) return { changes: [], byHand: [] };
  if (value === undefined) return { changes: [], byHand: [keyStep(profile, key, list.path)] };
  const existing = list.text && existingKeyEdits(list.text, list.root, key, value);
  if (existing) return { changes: [{ ...given, path: list.path, kind: 'edit', ...existing }], byHand: [] };
  const lines = plainLines(value, key.type);
  const change = { ...given, adds: [keyMark(key.key)] };
  return { changes: addKey({ tree, ...context }, list, key.key, lines, change), byHand: [] };
}

/** What has to be declared at the store when a network requires permission to track: no file can say it. */
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
    why: 'The store compares its privacy answers with what the build requests, and rejects the version when they differ.',
    where: null,
  }));
}
