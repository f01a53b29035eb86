import { valueAt } from '../../../text/own-values.js';
import { attribute } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { readPlist, topEntries } from '../../../formats/plist/read.js';
import type { Span } from '../../../text/problem.js';
import type { Platform } from '../../../words/words.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, PlainKind, SurveyEdition, Unresolved, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { frameworkFact, inEditions } from '../../common/package-facts.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { entriesOf, type PropertyValue } from './evaluate.js';
import { buildOf } from './parts.js';
import { platformFolder, type MauiProject } from './project.js';

/** A setting of a build, or why it is unknown. */
export type SettingOutcome =
  { value: string; chain: ChainStep[] } | { value: null; reason: string; chain: ChainStep[] };

function settingOutcome(property: PropertyValue): SettingOutcome {
  const { value, chain } = property;
  return value === null ? { value, reason: property.reason, chain } : { value, chain };
}

/** The identifier of a build: what the platform's own file says goes before the project's. */
export function identifierOf(
  tree: Tree,
  project: MauiProject,
  platform: Platform,
  configuration: string,
): SettingOutcome | undefined {
  const own = platform === 'ios' ? inPropertyList(tree, project) : inManifest(tree, project);
  if (own) return own;
  const property = buildOf(tree, project, platform, configuration).property('ApplicationId');
  return property && settingOutcome(property);
}

function written(tree: Tree, path: string, what: string, value: string, span: Span): SettingOutcome {
  return { value, chain: [{ what, value, place: placeAt(path, tree.text(path), span) }] };
}

function inManifest(tree: Tree, project: MauiProject): SettingOutcome | undefined {
  const path = `${platformFolder(project, 'android')}/AndroidManifest.xml`;
  const root = tree.has(path) ? tree.read(path, readXml)?.root : undefined;
  const named = root && attribute(root, 'package');
  return named?.value ? written(tree, path, 'manifest', named.value, named.valueSpan) : undefined;
}

function inPropertyList(tree: Tree, project: MauiProject): SettingOutcome | undefined {
  const path = `${platformFolder(project, 'ios')}/Info.plist`;
  const list = tree.has(path) ? tree.read(path, readPlist) : undefined;
  const found = list && topEntries(list).find(({ key }) => key === 'CFBundleIdentifier')?.value;
  return found?.type === 'string' && found.value.trim() !== ''
    ? written(tree, path, 'property list', found.value, found.element)
    : undefined;
}

/** The API level that each .NET is compiled against when a project names none. */
const usualLevels: Record<string, string> = {
  '6.0': '31',
  '7.0': '33',
  '8.0': '34',
  '9.0': '35',
  '10.0': '36',
};

/** Identifiers, levels and linker flags that a project gives a variant. */
export function settingsFacts(
  tree: Tree,
  project: MauiProject,
  { platform, module }: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const base = { network: null, platform, module, variants: [variant.name] };
  const build = buildOf(tree, project, platform, variant.name);
  const tell = (
    kind: PlainKind,
    what: string,
    told: SettingOutcome | undefined,
    plain = (value: string) => value,
  ) => {
    const place = told?.chain.at(-1)?.place;
    if (!told || !place) return;
    const { chain } = told;
    if (told.value === null) unresolved.push({ ...base, kind, what, reason: told.reason, place, chain });
    else facts.push({ ...base, kind, value: plain(told.value), effective: true, place, chain });
  };
  const property = (name: string): SettingOutcome | undefined => {
    const found = build.property(name);
    return found && settingOutcome(found);
  };
  tell('identifier', 'the identifier', identifierOf(tree, project, platform, variant.name));
  const label = property('ApplicationTitle');
  if (label?.value) tell('app-label', 'the label of the app', label);
  const lowest = property('SupportedOSPlatformVersion');
  if (platform === 'ios') tell('deployment-target', 'the deployment target', lowest);
  else {
    tell('min-sdk', 'minSdk', lowest, (value) => value.replace(/\.0+$/, ''));
    const framework = frameworkEntry(tree, project, platform);
    const value = project.frameworks.android ?? '';
    const level =
      /-android(\d+)/.exec(value)?.[1] ?? valueAt(usualLevels, /^net(\d+\.\d+)/.exec(value)?.[1] ?? '');
    if (framework && level !== undefined)
      tell('compile-sdk', 'compileSdk', {
        value: level,
        chain: [{ what: 'target framework', value, place: framework }],
      });
  }
  if (platform === 'ios') {
    const given = property('MtouchExtraArgs');
    const wanted = new Set(
      context.profiles.flatMap(({ ios }) => ios?.['linker-flags'].map(({ flag }) => flag) ?? []),
    );
    for (const flag of wanted)
      if (given?.value !== null && given?.value.split(/[\s="']+/).includes(flag))
        tell('linker-flag', flag, { value: flag, chain: given.chain });
  }
  return { facts, unresolved };
}

/** Where a project names the framework of a platform. */
function frameworkEntry(tree: Tree, { path, frameworks }: MauiProject, platform: Platform) {
  const wanted = frameworks[platform];
  const entry = entriesOf(tree, path).find(
    (one) =>
      one.is === 'property' &&
      /^TargetFrameworks?$/.test(one.name) &&
      wanted !== undefined &&
      one.value.includes(wanted),
  );
  if (entry?.is !== 'property') return undefined;
  const document = tree.text(entry.path);
  const { start, end } = entry.valueSpan;
  const at = start + (document?.text.slice(start, end).indexOf(wanted ?? '') ?? 0);
  return placeAt(entry.path, document, { start: at, end: at + (wanted?.length ?? 0) });
}

/** The version of .NET that each edition is built with. */
export function frameworkFacts(tree: Tree, project: MauiProject, editions: readonly SurveyEdition[]): Fact[] {
  return editions.flatMap((edition) => {
    const place = frameworkEntry(tree, project, edition.platform);
    const version = /^net(\d+\.\d+)/.exec(project.frameworks[edition.platform] ?? '')?.[1];
    if (!place || version === undefined) return [];
    return inEditions([frameworkFact('.NET', version, place, 'target framework')], [edition]);
  });
}
