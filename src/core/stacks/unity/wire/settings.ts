import { platformNames } from '../../../words/names.js';
import { valueAt } from '../../../text/own-values.js';
import { addUnityEntry, removeUnityEntry, setUnityValue } from '../../../formats/unity-yaml/edit.js';
import { unityNode, readUnityYaml } from '../../../formats/unity-yaml/read.js';
import type { Profile } from '../../../network/model.js';
import type { Platform } from '../../../words/words.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import { Draft } from '../../../text/draft.js';
import { baseOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { appIdRules, holeStep } from '../../common/by-hand-steps.js';
import { titleEditions } from '../../common/joint-wiring.js';
import { othersNeedOn } from '../../common/others-need.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { existingTemplates } from '../survey/android-files.js';
import { assetField, settingsAsset, type SettingsAsset } from '../survey/assets.js';
import { symbolsIn } from '../survey/builds.js';
import { unityNames, type UnityProject } from '../survey/project.js';
import { symbolsAsked } from '../survey/settings.js';
import { stagedIds, stageSplit } from './steps.js';

/** The editions of the title in which it uses a network. */
function platformsOf(context: WireContext, network: string): Platform[] {
  return titleEditions(context)
    .map(({ platform }) => platform)
    .filter((platform) => isEnrolled(context.title, network, platform));
}

/** Scripting symbols that networks want, added to those of each platform. */
export function wireSymbols(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const document = tree.text(project.path);
  if (!document) return { changes: [], byHand: [] };
  const asking = context.profiles.map((profile) => ({ profile, on: platformsOf(context, profile.id) }));
  const adds: string[] = [];
  const networks = new Set<string>();
  const platforms: Platform[] = [];
  const draft = new Draft(document.text);
  for (const platform of platformNames) {
    // An entry for one platform moves those of the other, so each is looked for in what was made so far.
    const { names, map, entry } = symbolsIn(readUnityYaml(draft.text), platform);
    const mine = asking.filter(({ on }) => on.includes(platform)).map(({ profile }) => profile);
    const missing = [...new Set(mine.flatMap(symbolsAsked))].filter((name) => !names.includes(name));
    if (missing.length === 0 || !map) continue;
    const value = [...names, ...missing].join(';');
    const key = unityNames[platform][0] ?? platform;
    const edits = entry
      ? setUnityValue(draft.text, entry, value)
      : addUnityEntry(draft.text, map, key, value, document.lineEnd);
    draft.apply(edits);
    platforms.push(platform);
    if (!entry) adds.push(`symbols of ${platform}`);
    for (const profile of mine)
      if (symbolsAsked(profile).some((name) => missing.includes(name))) networks.add(profile.id);
  }
  const [platform, ...also] = platforms;
  if (platform === undefined) return { changes: [], byHand: [] };
  const [only, ...others] = networks;
  const change: Change = {
    path: project.path,
    platform,
    also,
    network: others.length === 0 ? (only ?? null) : null,
    topic: 'symbols',
    rules: ['build/symbol-missing'],
    adds,
    kind: 'edit',
    edits: draft.edits,
  };
  return { changes: [change], byHand: [] };
}

/** The symbols of a removed network, on every platform where no other network needs them. */
export function unwireSymbols(tree: Tree, project: UnityProject, context: UnwireContext): Change[] {
  const document = tree.text(project.path);
  const { network, added } = context;
  if (!document) return [];
  const draft = new Draft(document.text);
  for (const platform of platformNames) {
    const { names, map, entry } = symbolsIn(readUnityYaml(draft.text), platform);
    const gone = symbolsAsked(network).filter(
      (name) =>
        names.includes(name) &&
        !othersNeedOn(context, platform, (profile) => symbolsAsked(profile).includes(name)),
    );
    if (!map || !entry || gone.length === 0) continue;
    const left = names.filter((name) => !gone.includes(name));
    const edits =
      left.length === 0 && added.has(`symbols of ${platform}`)
        ? [removeUnityEntry(draft.text, map, entry)]
        : setUnityValue(draft.text, entry, left.join(';'));
    draft.apply(edits);
  }
  const { edits } = draft;
  if (edits.length === 0) return [];
  return [
    {
      path: project.path,
      platform: 'android',
      network: network.id,
      topic: 'symbols',
      rules: [],
      kind: 'edit',
      edits,
    },
  ];
}

/** Templates that are there and switched off are switched on, where a network is used on Android. */
export function wireTemplates(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const document = tree.text(project.path);
  const asking = context.profiles.find(({ id }) => platformsOf(context, id).includes('android'));
  if (!document || !asking) return { changes: [], byHand: [] };
  const changes = existingTemplates(tree, project).flatMap(({ name, node, isOn }): Change[] => {
    if (isOn || !node) return [];
    return [
      {
        path: project.path,
        platform: 'android',
        network: null,
        topic: 'switches',
        rules: [
          'build/template-switched-off',
          'manifest/permission-missing',
          'app-id/missing',
          'build/dependency-missing',
        ],
        adds: [`switch ${name}`],
        kind: 'edit',
        edits: setUnityValue(document.text, node, '1'),
      },
    ];
  });
  return { changes, byHand: [] };
}

/** The IDs that are kept with the sources: those of production, which build steps exchange where they have to. */
export function wireAssets(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const split = stageSplit(context);
  for (const profile of context.profiles) {
    const settings = settingsAsset(profile);
    if (!settings || split === 'not at all') continue;
    const wanted = platformsOf(context, profile.id).flatMap((platform) => {
      const field = settings.fields[platform];
      const ids = stagedIds(context.title, profile, platform, split);
      if (field !== undefined && !ids) byHand.push(...holes(context, profile, platform));
      return field === undefined || !ids ? [] : [{ platform, field, value: ids.production }];
    });
    const path = below(project.root, settings.asset);
    const document = tree.text(path);
    const [first, ...others] = wanted.map(({ platform }) => platform);
    if (first === undefined) continue;
    const base = {
      path,
      platform: first,
      also: others,
      network: profile.id,
      topic: 'app-id' as const,
      rules: appIdRules,
    };
    if (!document) {
      if (settings.script === undefined) byHand.push(makeStep(profile, settings.asset));
      else changes.push({ ...base, kind: 'create', content: madeAsset(settings, wanted, settings.script) });
      continue;
    }
    const edits = wanted.flatMap(({ field, value }): Edit[] => {
      const held = assetField(tree, project, settings, field);
      if (!held) return [];
      return held.node
        ? setUnityValue(document.text, held.node, value)
        : addUnityEntry(document.text, held.holder, field, value, document.lineEnd);
    });
    if (edits.length > 0) changes.push({ ...base, kind: 'edit', edits });
  }
  return { changes, byHand };
}

function holes({ title }: WireContext, profile: Profile, platform: Platform): ByHand[] {
  const held = valueAt(title.networks, profile.id)?.[platform];
  return held?.production?.app === undefined
    ? [holeStep(platform, profile, 'production')]
    : [holeStep(platform, profile, 'test')];
}

function makeStep({ id, name }: Profile, asset: string): ByHand {
  return {
    platform: null,
    network: id,
    rule: 'app-id/missing',
    what: `Make the settings asset of ${name} in the editor, then wire again.`,
    why: 'An asset refers to its class by a number that only the package knows.',
    where: asset,
  };
}

const head = ['%YAML 1.1', '%TAG !u! tag:unity3d.com,2011:', '--- !u!114 &11400000', 'MonoBehaviour:'];

/** A settings asset as the editor would write it. */
function madeAsset(
  { asset }: SettingsAsset,
  fields: readonly { field: string; value: string }[],
  script: string,
): string {
  return [
    ...head,
    '  m_ObjectHideFlags: 0',
    '  m_CorrespondingSourceObject: {fileID: 0}',
    '  m_PrefabInstance: {fileID: 0}',
    '  m_PrefabAsset: {fileID: 0}',
    '  m_GameObject: {fileID: 0}',
    '  m_Enabled: 1',
    '  m_EditorHideFlags: 0',
    `  m_Script: {fileID: 11500000, guid: ${script}, type: 3}`,
    `  m_Name: ${baseOf(asset).replace(/\.asset$/, '')}`,
    '  m_EditorClassIdentifier: ',
    ...fields.map(({ field, value }) => `  ${field}: ${value}`),
    '',
  ].join('\n');
}

/** The asset of a removed network: deleted if wiring created it, otherwise without its IDs. */
export function unwireAssets(tree: Tree, project: UnityProject, context: UnwireContext): Change[] {
  const settings = settingsAsset(context.network);
  const path = settings && below(project.root, settings.asset);
  const document = path === undefined ? undefined : tree.text(path);
  if (!settings || path === undefined || !document) return [];
  const base = {
    path,
    platform: 'android' as const,
    network: context.network.id,
    topic: 'app-id' as const,
    rules: [],
  };
  const fields = Object.values(settings.fields).flatMap((field) => {
    const node = unityNode(readUnityYaml(document.text), ['MonoBehaviour', field]);
    return node ? [{ field, value: node.value, node }] : [];
  });
  const isMade =
    settings.script !== undefined &&
    document.text.replace(/\r\n/g, '\n') === madeAsset(settings, fields, settings.script);
  if (isMade) return [{ ...base, kind: 'remove' }];
  const edits = fields.flatMap(({ node }) => setUnityValue(document.text, node, ''));
  return edits.length > 0 ? [{ ...base, kind: 'edit', edits }] : [];
}
