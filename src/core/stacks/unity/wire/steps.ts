import { trackingKey } from '../../../formats/plist/keys.js';
import type { Profile } from '../../../network/model.js';
import type { Platform } from '../../../words/words.js';
import { profileFor } from '../../../network/for-stack.js';
import { isSameGeneratedText } from '../../../languages/common/placebook.js';
import { expectedIds, isEnrolled } from '../../../roster/expected.js';
import type { Title } from '../../../roster/model.js';
import type { Fact } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change, ChangeBase } from '../../../edits/model.js';
import { appIdRules } from '../../common/by-hand-steps.js';
import type { PlainValue } from '../../../formats/plist/plain.js';
import { isKeyMet, keyStep, wantedValue, type Key } from '../../common/plist/keys.js';
import { titleEditions } from '../../common/joint-wiring.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { assetField, settingsAsset } from '../survey/assets.js';
import { isOurs, existingSteps } from '../survey/build-steps.js';
import { isDevelopment } from '../survey/builds.js';
import type { UnityProject } from '../survey/project.js';
import { listEntries, type StagedId, type StepsContents } from './steps-contents.js';
import { isNothing, stepsScript } from './steps-script.js';

const rules = [
  ...appIdRules,
  'attribution/id-missing',
  'plist/key-missing',
  'plist/linker-flag-missing',
  'privacy/tracking-text-missing',
  'privacy/tracking-text-empty',
];

/** How the builds of a project tell the stages apart. */
export type StageSplit = 'by development' | 'all test' | 'all production' | 'not at all';

/** Whether the switch for development builds is what keeps the stages apart. */
export function stageSplit(context: WireContext): StageSplit {
  const variants = titleEditions(context).flatMap((edition) => edition.variants);
  const all = (stage: string) => variants.every((variant) => variant.stage === stage);
  if (all('test')) return 'all test';
  if (all('production')) return 'all production';
  const apart = variants.every(
    (variant) => variant.stage === (isDevelopment(variant) ? 'test' : 'production'),
  );
  return apart ? 'by development' : 'not at all';
}

/** The app IDs of a network on a platform as builds take them; undefined where the roster lacks one that is built. */
export function stagedIds(
  title: Title,
  profile: Profile,
  platform: Platform,
  split: StageSplit,
): StagedId | undefined {
  const ids = expectedIds(title, [profile], platform).filter(({ kind }) => kind === 'app');
  const of = (stage: string) => ids.find((one) => one.stage === stage)?.id;
  const [test, production] = [of('test'), of('production')];
  if (split === 'all test') return test === undefined ? undefined : { test, production: test };
  if (split === 'all production')
    return production === undefined ? undefined : { test: production, production };
  return test === undefined || production === undefined ? undefined : { test, production };
}

/** Whether every variant of a platform already has something, other than by our own steps. */
function isThere(
  tree: Tree,
  { survey, title }: WireContext,
  platform: Platform,
  isIt: (fact: Fact) => boolean,
): boolean {
  const editions = titleEditions({ survey, title }).filter((one) => one.platform === platform);
  const facts = survey.facts.filter(
    (fact) => fact.platform === platform && isIt(fact) && !isOurs(tree, fact.place.path),
  );
  return editions.every(({ module, variants }) =>
    variants.every(({ name }) =>
      facts.some((fact) => fact.module === module && fact.variants.includes(name)),
    ),
  );
}

/** What a network asks build steps for. */
function asked(
  tree: Tree,
  project: UnityProject,
  context: WireContext,
  profile: Profile,
): { steps: StepsContents; byHand: ByHand[] } {
  const { title } = context;
  const split = stageSplit(context);
  const needs = profileFor(profile, 'unity');
  const steps: StepsContents = {
    assets: [],
    metaData: [],
    keys: [],
    texts: [],
    entries: [],
    attribution: [],
    linkerFlags: [],
  };
  const byHand: ByHand[] = [];
  const settings = settingsAsset(profile);
  for (const { platform } of titleEditions(context)) {
    if (!isEnrolled(title, profile.id, platform)) continue;
    const ids = stagedIds(title, profile, platform, split);
    const field = settings?.fields[platform];
    const place = needs[platform]?.['app-id'];
    if (settings && field !== undefined) {
      const isKept =
        settings.script !== undefined || assetField(tree, project, settings, field) !== undefined;
      // Where the stages do not differ, what is in the asset is enough.
      if (ids && isKept && ids.test !== ids.production)
        steps.assets.push({ asset: settings.asset, field, ids });
    } else if (ids && place?.place === 'manifest') steps.metaData.push({ key: place.key, ids });
    else if (ids && place?.place === 'plist') steps.keys.push({ key: place.key, value: ids });
    if (platform !== 'ios') continue;
    for (const needed of needs.ios?.keys ?? []) {
      const value = wantedValue(title, needed);
      if (isThere(tree, context, platform, (fact) => isKey(fact, needed, value))) continue;
      if (!addKey(steps, needed, value)) byHand.push(keyStep(profile, needed, stepsPath(project)));
    }
    for (const id of needs.ios?.attribution?.ids ?? [])
      if (
        !isThere(
          tree,
          context,
          platform,
          ({ kind, value }) => kind === 'attribution-id' && value.toLowerCase() === id,
        )
      )
        steps.attribution.push(id);
    for (const { flag } of needs.ios?.['linker-flags'] ?? [])
      if (!isThere(tree, context, platform, ({ kind, value }) => kind === 'linker-flag' && value === flag))
        steps.linkerFlags.push(flag);
  }
  return { steps, byHand };
}

/** Has a key of the property list set; false where the value is not known, or is more than the steps can write. */
function addKey(
  { keys, texts, entries }: StepsContents,
  { key, type }: Key,
  value: PlainValue | undefined,
): boolean {
  if (type === 'boolean') keys.push({ key, value: value !== false });
  else if (key === trackingKey && typeof value === 'string') texts.push({ key, value });
  else if (typeof value === 'string') keys.push({ key, value: { test: value, production: value } });
  else {
    const parts = value === undefined ? undefined : listEntries(value, [key], type);
    if (!parts) return false;
    entries.push(...parts);
  }
  return true;
}

/** Whether a fact shows a key as a network wants it. */
function isKey(fact: Fact, needed: Key, value: PlainValue | undefined): boolean {
  return fact.kind === 'plist-key' && fact.name === needed.key && isKeyMet(fact, needed, value);
}

/** Where the build steps go. */
function stepsPath({ root }: UnityProject): string {
  return below(root, 'Assets/Editor/AdsBuildSteps.cs');
}

/** All that several networks require, each thing once; of some only what a script has already. */
function together(parts: readonly { steps: StepsContents; only?: string | undefined }[]): StepsContents {
  const once = <Item>(
    pick: (steps: StepsContents) => readonly Item[],
    mark: (item: Item) => string,
  ): Item[] => {
    const found = parts.flatMap(({ steps, only }) =>
      pick(steps).filter((item) => only === undefined || only.includes(`"${mark(item)}"`)),
    );
    return [...new Map(found.map((item) => [JSON.stringify(item), item])).values()];
  };
  return {
    assets: once(
      (steps) => steps.assets,
      ({ asset }) => asset,
    ),
    metaData: once(
      (steps) => steps.metaData,
      ({ key }) => key,
    ),
    keys: once(
      (steps) => steps.keys,
      ({ key }) => key,
    ),
    texts: once(
      (steps) => steps.texts,
      ({ key }) => key,
    ),
    entries: once(
      (steps) => steps.entries,
      ({ way }) => way[0] ?? '',
    ),
    attribution: once(
      (steps) => steps.attribution,
      (id) => id,
    ),
    linkerFlags: once(
      (steps) => steps.linkerFlags,
      (flag) => flag,
    ),
  };
}

/** The build steps of the title: for the networks to wire, and for those that they are for already. */
export function wireSteps(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const existing = existingSteps(tree, project);
  const { profiles, allProfiles, title } = context;
  const used = allProfiles.filter(({ id }) =>
    titleEditions(context).some(({ platform }) => isEnrolled(title, id, platform)),
  );
  const found = used.map((profile) => ({ profile, ...asked(tree, project, context, profile) }));
  const mine = found.filter(({ profile }) => profiles.includes(profile));
  const wanted = together(
    found.map(({ profile, steps }) => ({
      steps,
      only: profiles.includes(profile) ? undefined : (existing?.text ?? ''),
    })),
  );
  const byHand = mine.flatMap((one) => one.byHand);
  if (stageSplit(context) === 'not at all' && (wanted.assets.length > 0 || wanted.metaData.length > 0))
    return { changes: [], byHand: [...byHand, splitStep(project)] };
  return { changes: stepsChanges(project, existing, wanted, context), byHand };
}

/** The build steps without a network; none where nothing is left for them to do. */
export function unwireSteps(tree: Tree, project: UnityProject, context: WireContext): Change[] {
  const existing = existingSteps(tree, project);
  if (!existing) return [];
  const { allProfiles, title } = context;
  const left = allProfiles.filter(({ id }) =>
    titleEditions(context).some(({ platform }) => isEnrolled(title, id, platform)),
  );
  const wanted = together(
    left.map((profile) => ({ steps: asked(tree, project, context, profile).steps, only: existing.text })),
  );
  return stepsChanges(project, existing, wanted, context);
}

function stepsChanges(
  project: UnityProject,
  existing: { path: string; text: string } | undefined,
  wanted: StepsContents,
  context: WireContext,
): Change[] {
  const [first, ...others] = titleEditions(context).map(({ platform }) => platform);
  const path = existing?.path ?? stepsPath(project);
  const base: ChangeBase = {
    path,
    platform: first ?? 'android',
    also: others,
    network: null,
    topic: 'build-steps',
    rules,
  };
  if (isNothing(wanted)) return existing ? [{ ...base, kind: 'remove' }] : [];
  const content = stepsScript(wanted, context.revision);
  return existing && isSameGeneratedText(existing.text, content)
    ? []
    : [{ ...base, kind: 'create', content }];
}

function splitStep({ path }: UnityProject): ByHand {
  return {
    platform: null,
    network: null,
    rule: 'app-id/missing',
    what: 'Give development builds the test stage and all others production, then wire again.',
    why: 'Only the switch for development builds distinguishes two builds of one Unity project.',
    where: path,
  };
}
