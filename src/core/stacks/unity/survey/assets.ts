import { readUnityYaml, unityNode, type UnityNode } from '../../../formats/unity-yaml/read.js';
import type { Profile } from '../../../network/model.js';
import type { Platform } from '../../../words/words.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition, Unresolved, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { unity } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { BuildStep } from './build-steps.js';
import type { UnityProject } from './project.js';

/** The asset that a network's package keeps its settings in. */
export interface SettingsAsset {
  asset: string;
  fields: Partial<Record<Platform, string>>;
  script: string | undefined;
}

export function settingsAsset(profile: Profile): SettingsAsset | undefined {
  const settings = unity.needsOf(profile)?.settings;
  if (!settings) return undefined;
  const { 'android-app-id': android, 'ios-app-id': ios } = settings.fields;
  const fields = { ...(android === undefined ? {} : { android }), ...(ios === undefined ? {} : { ios }) };
  return { asset: settings.asset, fields, script: settings.script };
}

/** The field of an asset; undefined where the asset is not there, or has no such field. */
export function assetField(
  tree: Tree,
  project: UnityProject,
  { asset }: Pick<SettingsAsset, 'asset'>,
  field: string,
): { path: string; holder: UnityNode; node: UnityNode | undefined } | undefined {
  const path = below(project.root, asset);
  const yaml = tree.has(path) ? tree.read(path, readUnityYaml) : undefined;
  const holder = yaml && unityNode(yaml, ['MonoBehaviour']);
  return holder && { path, holder, node: holder.children.find(({ key }) => key === field) };
}

/** The app IDs that a variant gets from settings assets, and from the steps that set them while it is built. */
export function assetFacts(
  tree: Tree,
  project: UnityProject,
  { platform, module }: SurveyEdition,
  { variant, steps, context }: { variant: Variant; steps: readonly BuildStep[]; context: SurveyContext },
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const profile of context.profiles) {
    const settings = settingsAsset(profile);
    const field = settings?.fields[platform];
    if (!settings || field === undefined) continue;
    const edition = { platform, module, variants: [variant.name] };
    const base = { kind: 'app-id' as const, network: profile.id, ...edition, effective: true as const };
    const held = assetField(tree, project, settings, field);
    const chain: ChainStep[] = [];
    if (held?.node) {
      const place = placeAt(held.path, tree.text(held.path), held.node.valueSpan);
      chain.push({ what: 'settings asset', value: held.node.value, place });
    }
    const step = steps.find(
      ({ does, name, more }) =>
        does === 'asset' && below(project.root, name) === held?.path && more === field,
    );
    if (step) {
      const { value, place } = step;
      const last = { what: 'build step', value, place };
      const own = { name: field, value, carrier: 'build-step' as const };
      facts.push({ ...base, ...own, place, chain: [...chain, last] });
    } else if (held?.node && held.node.value !== '') {
      const [{ place }] = chain as [ChainStep];
      const { value } = held.node;
      if (place) facts.push({ ...base, name: field, value, carrier: 'settings-asset', place, chain });
    } else if (held && held.holder.children.length === 0) {
      const place = { path: held.path, line: 1, column: 1 };
      const what = `the app ID of ${profile.name}`;
      const reason = 'the settings asset is not in text form';
      unresolved.push({ ...base, what, reason, place, chain });
    }
  }
  return { facts, unresolved };
}
