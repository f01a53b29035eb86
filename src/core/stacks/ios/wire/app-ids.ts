import { removeEntry, setString } from '../../../formats/plist/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { expectedIds, type ExpectedId } from '../../../roster/expected.js';
import type { Profile } from '../../../network/model.js';
import type { Fact } from '../../../facts/model.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { appIdRules, holeStep } from '../../common/by-hand-steps.js';
import { appIdFixes } from '../../common/literal-fix.js';
import type { StackWiring } from '../../stack.js';
import { settingOf } from '../survey/settings.js';
import { plistOf } from '../survey/targets.js';
import type { IosWireContext } from './context.js';
import { addKey, targetLists, type TargetList } from './lists.js';
import { settingChanges } from './settings.js';

const platform = 'ios' as const;
const topic = 'app-id' as const;

/**
 * App IDs: a key in the property list that refers to a build setting, which each configuration sets. A setting
 * of another name that the list refers to already is kept.
 */
export function wireAppIds(context: IosWireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of context.profiles) {
    const place = profile.ios?.['app-id'];
    if (place?.place !== 'plist') continue;
    const expected = expectedIds(context.title, [profile], platform).filter(({ kind }) => kind === 'app');
    if (expected.length === 0 || agrees(context, profile, expected)) continue;
    const holes = expected
      .filter(({ id }) => id === undefined)
      .map(({ stage }) => holeStep(platform, profile, stage));
    const lists = targetLists(context);
    byHand.push(...holes, ...(lists ? [] : [listStep(context, profile)]));
    if (holes.length > 0 || !lists) continue;
    changes.push(
      ...(writtenInPlace(context, profile, expected) ?? inOwnForm(context, profile, place, lists, expected)),
    );
  }
  return { changes, byHand };
}

function factsOf({ survey, model }: IosWireContext, profile: Profile): Fact[] {
  return survey.facts.filter(
    (fact) => fact.kind === 'app-id' && fact.network === profile.id && fact.module === model.module,
  );
}

function agrees(context: IosWireContext, profile: Profile, expected: readonly ExpectedId[]): boolean {
  const facts = factsOf(context, profile);
  return context.variants.every(({ name, stage }) => {
    const mine = facts.filter((fact) => fact.variants.includes(name));
    return mine.length === 1 && mine[0]?.value === expected.find((item) => item.stage === stage)?.id;
  });
}

/** Right IDs written over the wrong ones, when every variant has one of its own. */
function writtenInPlace(
  context: IosWireContext,
  profile: Profile,
  expected: readonly ExpectedId[],
): Change[] | undefined {
  const facts = factsOf(context, profile);
  const values = context.variants.map(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    const [fact] = mine;
    const wanted = expected.find((item) => item.stage === stage)?.id ?? '';
    return mine.length === 1 && fact
      ? { variant: name, chain: fact.chain, value: fact.value, wanted }
      : undefined;
  });
  return appIdFixes(context.tree, values, { platform, network: profile.id });
}

/** A property list that cannot be edited, or none at all. */
function listStep({ tree, variants, model }: IosWireContext, profile: Profile): ByHand {
  const without = variants.filter((variant) => !plistOf(tree, variant)?.text);
  const named = without[0] && settingOf(without[0].scope, 'INFOPLIST_FILE')?.value;
  const what = named
    ? `Make ${named} a property list that can be edited as text (a binary one: plutil -convert xml1); it serves ${without.map(({ name }) => name).join(', ')}.`
    : `Give the target ${model.target.name} a property list (INFOPLIST_FILE, or GENERATE_INFOPLIST_FILE).`;
  return {
    platform,
    network: profile.id,
    rule: 'app-id/missing',
    what,
    why: 'The SDK reads its app ID from the property list.',
    where: named ?? model.project.path,
  };
}

function inOwnForm(
  context: IosWireContext,
  profile: Profile,
  place: { key: string; setting: string },
  lists: readonly TargetList[],
  expected: readonly ExpectedId[],
): Change[] {
  const network = profile.id;
  const setting = adoptedSetting(lists, place.key) ?? place.setting;
  const values = new Map(
    context.variants.map((variant) => [
      variant,
      expected.find(({ stage }) => stage === variant.stage)?.id ?? '',
    ]),
  );
  return [
    ...lists.flatMap((list) => listChanges(context, network, list, place.key, setting)),
    ...settingChanges(context, setting, values, { network, topic, rules: appIdRules }),
  ];
}

/** The setting that every property list refers to already. */
function adoptedSetting(lists: readonly TargetList[], key: string): string | undefined {
  const names = lists.map(({ root }) => {
    const value = root?.entries.find((entry) => entry.key === key)?.value;
    return value?.type === 'string' ? /^\$[({]([A-Za-z_]\w*)[)}]$/.exec(value.value.trim())?.[1] : undefined;
  });
  const [first] = names;
  return names.every((name) => name === first) ? first : undefined;
}

function listChanges(
  context: IosWireContext,
  network: string,
  list: TargetList,
  key: string,
  setting: string,
): Change[] {
  const base = { platform, network, topic, rules: appIdRules };
  const reference = `$(${setting})`;
  const existing = list.root?.entries.filter((entry) => entry.key === key) ?? [];
  if (!list.text || existing.length === 0)
    return addKey(context, list, key, [`<string>${escapeXml(reference)}</string>`], base);
  const { text, lineEnd } = list.text;
  const doubles = existing.slice(1).map((entry): Change => ({
    ...base,
    path: list.path,
    rules: ['app-id/duplicated', ...appIdRules],
    kind: 'edit',
    edits: [removeEntry(text, entry)],
  }));
  const edits = setString(text, list.root, key, reference, lineEnd);
  return edits.length > 0 ? [...doubles, { ...base, path: list.path, kind: 'edit', edits }] : doubles;
}
