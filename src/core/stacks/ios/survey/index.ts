import { contentOf } from '../../../formats/plist/plain.js';
import { readPodfile } from '../../../formats/podfile/read.js';
import { putAt } from '../../../text/own-values.js';
import { mergeVariants } from '../../../facts/merge.js';
import type { ChainStep, Place } from '../../../facts/evidence.js';
import type { Fact, PlainKind, SurveyEdition, Unresolved } from '../../../facts/model.js';
import type { Effective } from '../../../facts/effective.js';
import { placeAt } from '../../../facts/place.js';
import { shippingIdentifier, staged, withPlacements } from '../../../roster/variant-stages.js';
import { folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { companionFacts } from '../../common/companion-facts.js';
import { attributionFacts } from './attribution.js';
import { codeOf } from './code.js';
import { blank } from './blank.js';
import { dependencyFacts, podfileOf } from './dependencies.js';
import { packedFacts } from './documents.js';
import { membershipOf } from './membership.js';
import { projectFacts } from './project-facts.js';
import { propertyKeys } from './property-keys.js';
import { expandText, settingOf, type Setting } from './settings.js';
import { plistOf, targetsBelow, type IosVariant, type TargetModel } from './targets.js';

/** Surveys every application target of the projects in a folder. */
export function surveyIos(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const targets = targetsBelow(tree, root);
  const parts = targets.flatMap((model) =>
    model.variants.map((variant) => variantFacts(tree, model, variant, context)),
  );
  return {
    editions: targets.map((model) => editionOf(tree, model, context)),
    facts: mergeVariants(
      withPlacements(
        parts.flatMap(({ facts }) => facts),
        context.title,
      ),
    ),
    unresolved: mergeVariants(parts.flatMap(({ unresolved }) => unresolved)),
  };
}

function editionOf(tree: Tree, model: TargetModel, context: SurveyContext): SurveyEdition {
  const identifiers: Record<string, string> = {};
  for (const variant of model.variants) {
    const value = bundleIdentifier(tree, variant)?.value;
    if (value != null) putAt(identifiers, variant.name, value);
  }
  const variants = model.variants.map(({ name, scope }) =>
    staged({ name, type: scope.own.name, flavours: [model.target.name] }, context.title),
  );
  return {
    platform: 'ios',
    stack: 'native-ios',
    module: model.module,
    identifier: shippingIdentifier(variants, identifiers),
    identifiers,
    variants,
    ...dependenciesOf(tree, model),
    home: homeOf(tree, model),
  };
}

/** Everything that one configuration of a target builds in. */
function variantFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  context: SurveyContext,
): Omit<StackSurvey, 'editions'> {
  const companions = companionFacts({
    tree,
    platform: 'ios',
    module: model.module,
    variant: variant.name,
    profiles: context.profiles,
    home: model.project.folder,
    folders: homeFolders(tree, variant),
    built: membershipOf(model).copies,
  });
  const parts = [
    resolvedFact(model, variant, { kind: 'identifier', what: 'bundle ID' }, bundleIdentifier(tree, variant)),
    resolvedFact(
      model,
      variant,
      { kind: 'deployment-target', what: 'deployment target' },
      settingOf(variant.scope, 'IPHONEOS_DEPLOYMENT_TARGET'),
    ),
    labelFact(tree, model, variant),
    plistFacts(tree, model, variant, context),
    codeOf(tree, model, variant, context),
    dependencyFacts(tree, model, variant, context),
    projectFacts(tree, model, variant, context),
    packedFacts(tree, model, variant, context),
    { facts: attributionFacts(tree, model, variant, context.profiles), unresolved: [] },
    companions,
  ];
  return {
    facts: parts.flatMap(({ facts }) => facts),
    unresolved: parts.flatMap(({ unresolved }) => unresolved),
  };
}

/**
 * The bundle ID of a variant: the build setting that Xcode writes into the property list, else what the list itself says,
 * as older projects have it.
 */
function bundleIdentifier(tree: Tree, variant: IosVariant): Setting {
  const setting = settingOf(variant.scope, 'PRODUCT_BUNDLE_IDENTIFIER');
  if (setting && setting.value !== '') return setting;
  const written = propertyKeys(tree, variant).find(({ key }) => key === 'CFBundleIdentifier');
  if (written) return expandText(variant.scope, written.text, written.chain);
  const reason =
    'neither the build setting PRODUCT_BUNDLE_IDENTIFIER nor CFBundleIdentifier in the property list names it';
  return { value: null, reason, chain: [] };
}

function resolvedFact(
  model: TargetModel,
  variant: IosVariant,
  { kind, what }: { kind: PlainKind; what: string },
  setting: Setting | undefined,
): Omit<StackSurvey, 'editions'> {
  if (!setting) return { facts: [], unresolved: [] };
  const place = setting.chain[0]?.place ?? { path: model.project.path, line: 1, column: 1 };
  const base = { ...blank(kind, model, variant), place, chain: setting.chain };
  return setting.value === null
    ? { facts: [], unresolved: [{ ...base, what, reason: setting.reason }] }
    : { facts: [{ ...base, value: setting.value }], unresolved: [] };
}

/** The block of the target in the Podfile; nothing without one. */
function dependenciesOf(tree: Tree, { project, target }: TargetModel): Pick<SurveyEdition, 'dependencies'> {
  const podfile = podfileOf(tree, project.folder);
  const read = podfile === undefined ? undefined : tree.read(podfile, readPodfile);
  const block = read?.targets.find(({ name }) => name === target.name) ?? read?.targets[0];
  if (podfile === undefined || !block) return {};
  const end = Math.min(block.end, block.start + `target '${block.name}'`.length);
  return { dependencies: placeAt(podfile, tree.text(podfile), { start: block.start, end }) };
}

/** The name of the app on a device: the one to be displayed, else the short name of the bundle. */
function labelFact(tree: Tree, model: TargetModel, variant: IosVariant): Omit<StackSurvey, 'editions'> {
  const keys = propertyKeys(tree, variant).filter(({ type, ignored }) => type === 'string' && !ignored);
  for (const name of ['CFBundleDisplayName', 'CFBundleName']) {
    const found = keys.find(({ key }) => key === name);
    const value = found && expandText(variant.scope, found.text, found.chain).value?.trim();
    if (!found || !value) continue;
    const { place, chain } = found;
    return { facts: [{ ...blank('app-label', model, variant), value, place, chain }], unresolved: [] };
  }
  return { facts: [], unresolved: [] };
}

/** The property list of the target's first configuration; the target in the project file when there is none. */
function homeOf(tree: Tree, { variants, project, target }: TargetModel): Place {
  const list = variants[0] && plistOf(tree, variants[0]);
  if (list?.document.root) return placeAt(list.path, list.text, list.document.root.element.openTag);
  return placeAt(project.path, tree.text(project.path), target.entry);
}

/** Where the resources of a target lie: beside its property list. */
function homeFolders(tree: Tree, variant: IosVariant): string[] {
  const list = plistOf(tree, variant);
  return list ? [folderOf(list.path)] : [];
}

/** App IDs, and further keys that profiles require, in the property list of a variant. */
function plistFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  { profiles }: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const missing = missingList(tree, model, variant);
  const keys = propertyKeys(tree, variant);
  const asked = new Set(profiles.flatMap(({ ios }) => (ios?.keys ?? []).map(({ key }) => key)));
  for (const profile of profiles) {
    const appId = profile.ios?.['app-id'];
    if (appId?.place !== 'plist') continue;
    const base = { ...blank('app-id', model, variant), network: profile.id };
    const what = `the app ID of ${profile.name}`;
    if (missing) unresolved.push({ ...base, what, ...missing });
    for (const { key, type, text, place, chain, value, ignored } of keys) {
      if (key !== appId.key) continue;
      if (type !== 'string') {
        const reason = `the key holds ${type === 'array' || type === 'integer' ? 'an' : 'a'} ${type}, not a string`;
        unresolved.push({ ...base, place, what, reason, chain });
        continue;
      }
      const setting: Setting = value ? expandText(variant.scope, text, chain) : { value: text, chain };
      const common = { ...base, place, effective: isRead(ignored), chain: setting.chain };
      if (setting.value !== null)
        facts.push({ ...common, name: key, value: setting.value, carrier: 'property-list' });
      else
        unresolved.push({
          ...common,
          what,
          reason: setting.reason,
          ...(setting.cause ? { cause: setting.cause } : {}),
        });
    }
  }
  for (const { key, type, text, value, place, chain, ignored } of keys) {
    if (!asked.has(key)) continue;
    const base = {
      ...blank('plist-key', model, variant),
      name: key,
      value: text,
      effective: isRead(ignored),
    };
    facts.push({ ...base, type, ...contentOf(value), list: 'info', place, chain });
  }
  return { facts, unresolved };
}

const isRead = (ignored: boolean | undefined): Effective => !ignored || { reason: 'setting-ignored' };

/** Why the property list that a variant names cannot be read; nothing when it can, or when the build makes it. */
function missingList(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
): { reason: string; place: Place; chain: ChainStep[] } | undefined {
  const setting = settingOf(variant.scope, 'INFOPLIST_FILE');
  if (!setting || setting.value === '' || plistOf(tree, variant)?.document.root) return undefined;
  const place = setting.chain[0]?.place ?? { path: model.project.path, line: 1, column: 1 };
  const reason =
    setting.value === null
      ? setting.reason
      : `its property list ${setting.value.replace(/^\//, '')} is not in the tree, or cannot be read`;
  return { reason, place, chain: setting.chain };
}
