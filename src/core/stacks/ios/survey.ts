import { callFacts } from '../../code/calls.js';
import { codeFacts } from '../../code/facts.js';
import { swiftSyntax } from '../../code/literals.js';
import { swiftConditions } from '../../code/swift-conditions.js';
import { plistText, topEntries } from '../../formats/plist/read.js';
import { mergeVariants } from '../../survey/merge.js';
import type { ChainStep, Fact, FactKind, Place, SurveyEdition, Unresolved } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import { shippingIdentifier, staged, withPlacements } from '../../survey/stages.js';
import { folderOf, isWithin } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { StackSurvey, SurveyContext } from '../stack.js';
import { companionFacts } from '../companion-facts.js';
import { attributionFacts } from './attribution.js';
import { dependencyFacts } from './dependencies.js';
import { expandText, settingOf, swiftConditionsOf, type Setting } from './settings.js';
import { plistOf, targetsBelow, type IosVariant, type TargetModel } from './targets.js';

/** Surveys every application target of the projects in a folder. */
export function surveyIos(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const editions: SurveyEdition[] = [];
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const model of targetsBelow(tree, root)) {
    const identifiers: Record<string, string> = {};
    for (const variant of model.variants) {
      const add = (kind: FactKind, what: string, setting: Setting | undefined, extra: Partial<Fact> = {}) => {
        if (!setting) return;
        const place = setting.chain[0]?.place ?? { path: model.project.path, line: 1, column: 1 };
        const base = { ...blank(kind, model, variant), place, chain: setting.chain, ...extra };
        if (setting.value === null) unresolved.push({ ...base, what, reason: setting.reason });
        else facts.push({ ...base, value: setting.value });
      };
      const identifier = settingOf(variant.scope, 'PRODUCT_BUNDLE_IDENTIFIER');
      if (identifier?.value != null) identifiers[variant.name] = identifier.value;
      add('identifier', 'bundle ID', identifier);
      add('deployment-target', 'deployment target', settingOf(variant.scope, 'IPHONEOS_DEPLOYMENT_TARGET'));
      const keys = plistFacts(tree, model, variant, context);
      const code = codeOf(tree, model, variant, context);
      const companions = companionFacts({
        tree,
        platform: 'ios',
        module: model.target.name,
        variant: variant.name,
        profiles: context.profiles,
        home: model.project.folder,
        folders: homeFolders(tree, variant),
      });
      facts.push(
        ...keys.facts,
        ...code.facts,
        ...dependencyFacts(tree, model, variant, context),
        ...attributionFacts(tree, model, variant, context.profiles),
        ...companions.facts,
      );
      unresolved.push(...keys.unresolved, ...code.unresolved, ...companions.unresolved);
    }
    const variants = model.variants.map(({ name, scope }) =>
      staged({ name, type: scope.own.name, flavours: [model.target.name] }, context.title),
    );
    const identifier = shippingIdentifier(variants, identifiers);
    editions.push({
      platform: 'ios',
      stack: 'native-ios',
      module: model.target.name,
      identifier,
      identifiers,
      variants,
      home: homeOf(tree, model),
    });
  }
  return {
    editions,
    facts: mergeVariants(withPlacements(facts, context.title)),
    unresolved: mergeVariants(unresolved),
  };
}

/** The property list of the target's first configuration; the target in the project file when there is none. */
function homeOf(tree: Tree, { variants, project, target }: TargetModel): Place {
  const list = variants[0] && plistOf(tree, variants[0]);
  if (list?.document.root)
    return placeAt(list.path, tree.text(list.path), list.document.root.element.openTag);
  return placeAt(project.path, tree.text(project.path), target.entry);
}

/** Where the resources of a target lie: beside its property list. */
function homeFolders(tree: Tree, variant: IosVariant): string[] {
  const list = plistOf(tree, variant);
  return list ? [folderOf(list.path)] : [];
}

/** What every fact of a variant has in common. */
export function blank(kind: FactKind, model: TargetModel, variant: IosVariant) {
  return {
    kind,
    network: null as string | null,
    platform: 'ios' as const,
    module: model.target.name,
    variants: [variant.name],
  };
}

/** App IDs, and further keys that profiles ask for, in the property list of a variant. */
function plistFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  { profiles }: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const list = plistOf(tree, variant);
  if (!list) {
    const setting = settingOf(variant.scope, 'INFOPLIST_FILE');
    const place = setting?.chain[0]?.place ?? { path: model.project.path, line: 1, column: 1 };
    const reason = setting
      ? `its property list ${setting.value ?? ''} is not in the tree, or cannot be read`
      : 'its property list is made by the build';
    for (const profile of profiles) {
      if (profile.ios?.['app-id']?.place !== 'plist') continue;
      unresolved.push({
        ...blank('app-id', model, variant),
        network: profile.id,
        what: `the app ID of ${profile.name}`,
        reason,
        place,
        chain: setting?.chain ?? [],
      });
    }
    return { facts, unresolved };
  }
  const document = tree.text(list.path);
  const asked = new Set<string>();
  for (const profile of profiles) {
    const appId = profile.ios?.['app-id'];
    for (const { key } of profile.ios?.keys ?? []) asked.add(key);
    if (appId?.place !== 'plist') continue;
    for (const entry of topEntries(list.document).filter(({ key }) => key === appId.key)) {
      const place = placeAt(list.path, document, entry);
      const written = plistText(entry.value);
      const step: ChainStep = { what: 'property list', value: written, place };
      const base = { ...blank('app-id', model, variant), network: profile.id, place };
      if (entry.value.type !== 'string') {
        unresolved.push({
          ...base,
          what: `the app ID of ${profile.name}`,
          reason: `the key holds a ${entry.value.type}, not a string`,
          chain: [step],
        });
        continue;
      }
      const setting = expandText(variant.scope, written, [step]);
      if (setting.value !== null)
        facts.push({
          ...base,
          name: appId.key,
          value: setting.value,
          standsIn: 'property list',
          chain: setting.chain,
        });
      else
        unresolved.push({
          ...base,
          what: `the app ID of ${profile.name}`,
          reason: setting.reason,
          chain: setting.chain,
        });
    }
  }
  for (const entry of topEntries(list.document).filter(({ key }) => asked.has(key))) {
    const place = placeAt(list.path, document, entry);
    const value = plistText(entry.value);
    facts.push({
      ...blank('plist-key', model, variant),
      name: entry.key,
      value,
      place,
      chain: [{ what: 'property list', value, place }],
    });
  }
  return { facts, unresolved };
}

/** IDs in Swift, each branch of an `#if` weighed with the conditions of the configuration. */
function codeOf(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const conditions = swiftConditionsOf(variant.scope);
  for (const path of tree.paths) {
    if (!path.endsWith('.swift') || !isWithin(path, model.project.folder)) continue;
    const compiled = swiftConditions(tree.text(path)?.text ?? '', conditions);
    const file = {
      path,
      syntax: swiftSyntax,
      platform: 'ios' as const,
      module: model.target.name,
      variants: [variant.name],
    };
    const found = codeFacts(tree, { ...file, compiled: (_, offset) => compiled(offset) }, context);
    facts.push(
      ...found.facts,
      ...callFacts(tree, { ...file, compiled: (_, offset) => compiled(offset) }, context),
    );
    unresolved.push(...found.unresolved);
  }
  return { facts, unresolved };
}
