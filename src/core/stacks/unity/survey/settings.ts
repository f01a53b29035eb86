import type { UnityNode } from '../../../formats/unity-yaml/read.js';
import type { Platform } from '../../../words/words.js';
import type { Fact, PlainKind, SurveyEdition, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { unity } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import { frameworkFact, inEditions } from '../../common/package-facts.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { symbolsOf } from './builds.js';
import { platformEntry, playerEntry, type UnityProject } from './project.js';

/** The identifier of each platform that the settings for players give one. */
export function identifierEntry(project: UnityProject, platform: Platform): UnityNode | undefined {
  const entry = platformEntry(playerEntry(project, 'applicationIdentifier'), platform);
  return entry?.value ? entry : undefined;
}

type Level = { kind: PlainKind; key: string; what: string };

const levels: Record<Platform, Level[]> = {
  android: [
    { kind: 'min-sdk', key: 'AndroidMinSdkVersion', what: 'minSdk' },
    { kind: 'target-sdk', key: 'AndroidTargetSdkVersion', what: 'targetSdk' },
    // A project is compiled against the level that it targets.
    { kind: 'compile-sdk', key: 'AndroidTargetSdkVersion', what: 'compileSdk' },
  ],
  ios: [{ kind: 'deployment-target', key: 'iOSTargetOSVersionString', what: 'the deployment target' }],
};

/** Identifiers, levels, symbols and permissions that the settings for players give the builds of an edition. */
export function settingsFacts(
  tree: Tree,
  project: UnityProject,
  { platform, module, variants }: SurveyEdition,
  { profiles }: SurveyContext,
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const document = tree.text(project.path);
  const base = { platform, module, variants: variants.map(({ name }) => name), network: null };
  const at = (node: UnityNode) => placeAt(project.path, document, node.valueSpan);
  const tell = (kind: PlainKind, node: UnityNode, value = node.value, name?: string) => {
    const place = at(node);
    const chain = [{ what: 'player settings', value: node.value, place }];
    const named = name === undefined ? {} : { name };
    facts.push({ ...base, ...named, kind, value, effective: true, place, chain });
  };
  const identifier = identifierEntry(project, platform);
  if (identifier) tell('identifier', identifier);
  const label = playerEntry(project, 'productName');
  if (label?.value) tell('app-label', label);
  for (const { kind, key, what } of levels[platform]) {
    const node = playerEntry(project, key);
    if (!node) continue;
    if (kind !== 'min-sdk' && node.value === '0') {
      const place = at(node);
      const chain = [{ what: 'player settings', value: node.value, place }];
      const reason = 'the editor chooses it: the highest level that is installed';
      unresolved.push({ ...base, kind, what, reason, place, chain });
    } else tell(kind, node);
  }
  const internet = playerEntry(project, 'ForceInternetPermission');
  const permission = 'android.permission.INTERNET';
  const isAsked = profiles.some(({ android }) =>
    android?.permissions.some(({ name }) => name === permission),
  );
  if (platform === 'android' && internet?.value === '1' && isAsked)
    tell('permission', internet, permission, permission);
  const wanted = new Set(profiles.flatMap(symbolsAsked));
  const { names, entry } = symbolsOf(project, platform);
  for (const name of names) if (entry && wanted.has(name)) tell('symbol', entry, name, name);
  return { facts, unresolved };
}

/** The scripting symbols that a network's package wants. */
export function symbolsAsked(profile: SurveyContext['profiles'][number]): string[] {
  return unity.needsOf(profile)?.symbols ?? [];
}

/** The version of the editor that a project is kept for. */
export function editorFacts(
  tree: Tree,
  { editor }: UnityProject,
  editions: readonly SurveyEdition[],
): Fact[] {
  if (!editor) return [];
  const place = placeAt(editor.path, tree.text(editor.path), editor);
  return inEditions([frameworkFact('Unity', editor.version, place, 'editor version')], editions);
}
