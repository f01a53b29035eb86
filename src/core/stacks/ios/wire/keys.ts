import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { propertyKeys } from '../survey/property-keys.js';
import type { IosWireContext } from './context.js';
import { addKey, targetLists, type TargetList } from './lists.js';
import {
  trackingKey,
  type Key,
  keyRules,
  keyStep,
  existingKeyEdits,
  valueOf,
} from '../../common/plist/keys.js';

const platform = 'ios' as const;
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
  const edits = list.text ? existingKeyEdits(list.text, list.root, key, context.title) : undefined;
  return edits
    ? { changes: [{ ...given, path: list.path, kind: 'edit', edits }], byHand: [] }
    : { changes: addKey(context, list, key.key, value, { ...given, adds: [`key ${key.key}`] }), byHand: [] };
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
