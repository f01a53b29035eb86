import { plainOfWritten, type PlainValue } from '../../../formats/plist/plain.js';
import { valueAt } from '../../../text/own-values.js';
import { platformNames } from '../../../words/names.js';
import { mergeVariants } from '../../../facts/merge.js';
import type { Fact, SurveyEdition, Unresolved, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { shippingIdentifier } from '../../../roster/variant-stages.js';
import type { Profile } from '../../../network/model.js';
import type { Tree } from '../../../tree/tree.js';
import { sharedDocumentFacts } from '../../common/documents.js';
import { sharedCodeFacts } from '../../common/common-code.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { androidFileFacts, unityManifestFacts } from './android-files.js';
import { assetFacts } from './assets.js';
import { buildSteps, type BuildStep } from './build-steps.js';
import { unityDefines, unityTerms, variantsOf } from './builds.js';
import { nativeLibraryFacts, unityPackageFacts } from './packages.js';
import { unityAt, type UnityProject } from './project.js';
import { editorFacts, identifierEntry, settingsFacts } from './settings.js';
import { csharpFiles, isInPlayer, packedDocuments } from './sources.js';

/** Surveys the editions that a Unity project builds: its settings, packages, assets, build steps and C#. */
export function surveyUnity(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const project = unityAt(tree, root);
  if (!project) return { editions: [], facts: [], unresolved: [] };
  const editions = editionsOf(tree, project, context);
  const defined = unityDefines(tree, project);
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const edition of editions) {
    const settings = settingsFacts(tree, project, edition, context);
    facts.push(...settings.facts, ...nativeLibraryFacts(tree, project, edition, context));
    unresolved.push(...settings.unresolved);
    if (edition.platform === 'android') facts.push(...androidFileFacts(tree, project, edition, context));
    for (const variant of edition.variants) {
      const steps = buildSteps(tree, project, edition, variant, defined(edition, variant));
      const parts = [
        assetFacts(tree, project, edition, { variant, steps, context }),
        ...(edition.platform === 'android'
          ? [unityManifestFacts(tree, project, edition, { variant, context })]
          : []),
      ];
      facts.push(
        ...parts.flatMap((part) => part.facts),
        ...stepFacts(steps, edition, variant, context.profiles),
      );
      unresolved.push(...parts.flatMap((part) => part.unresolved));
    }
  }
  const code = sharedCodeFacts(tree, csharpFiles(tree, project), {
    editions,
    terms: unityTerms,
    defined,
    context,
    isBuiltFor: isInPlayer(tree, project),
  });
  const packed = sharedDocumentFacts(tree, packedDocuments(tree, project), editions, context);
  return {
    editions,
    facts: [
      ...mergeVariants(facts),
      ...packed.facts,
      ...unityPackageFacts(tree, project, editions, context),
      ...editorFacts(tree, project, editions),
      ...code.facts,
    ],
    unresolved: [...mergeVariants(unresolved), ...packed.unresolved, ...code.unresolved],
  };
}

/** An edition for each platform that the settings give an identifier. */
export function editionsOf(tree: Tree, project: UnityProject, { title }: SurveyContext): SurveyEdition[] {
  return platformNames.flatMap((platform): SurveyEdition[] => {
    const identifier = identifierEntry(project, platform);
    if (!identifier) return [];
    const variants = variantsOf(title);
    const identifiers = Object.fromEntries(variants.map(({ name }) => [name, identifier.value]));
    return [
      {
        platform,
        stack: 'unity',
        module: below(project.root, platform),
        identifier: shippingIdentifier(variants, identifiers),
        identifiers,
        variants,
        home: placeAt(project.path, tree.text(project.path), identifier),
      },
    ];
  });
}

/** What build steps put into the property list, the Xcode project and the manifest of a variant. */
function stepFacts(
  steps: readonly BuildStep[],
  { platform, module }: SurveyEdition,
  { name: variant }: Variant,
  profiles: readonly Profile[],
): Fact[] {
  const asked = new Set(profiles.flatMap(({ ios }) => ios?.keys.map(({ key }) => key) ?? []));
  const flags = new Set<string>(
    profiles.flatMap(({ ios }) => ios?.['linker-flags'].map(({ flag }) => flag) ?? []),
  );
  const entries = platform === 'ios' ? entryFacts(steps, asked, { module, variant }) : [];
  const found = steps.flatMap(({ does, name, more, value, place }): Fact[] => {
    const chain = [{ what: 'build step', value, place }];
    const base = { platform, module, variants: [variant], value, effective: true as const, place, chain };
    const appOf = profiles.find((profile) => {
      const at = profile[platform]?.['app-id'];
      return (at?.place === 'plist' || at?.place === 'manifest') && at.key === name;
    });
    if (appOf && (does === 'meta-data' || (does === 'key' && platform === 'ios')))
      return [{ ...base, kind: 'app-id', network: appOf.id, name, carrier: 'build-step' }];
    if (platform !== 'ios') return [];
    if (does === 'key' && asked.has(name))
      return [{ ...base, kind: 'plist-key', network: null, name, type: more ?? 'string', list: 'info' }];
    if (does === 'linker' && flags.has(value)) return [{ ...base, kind: 'linker-flag', network: null }];
    if (does !== 'attribution') return [];
    const network =
      profiles.find(({ ios }) => ios?.attribution?.ids.includes(value.toLowerCase()))?.id ?? null;
    return [{ ...base, kind: 'attribution-id', network, name: 'SKAdNetworkItems' }];
  });
  return [...found, ...entries];
}

/** The keys of the property list that our own steps set leaf by leaf. */
function entryFacts(
  steps: readonly BuildStep[],
  asked: ReadonlySet<string>,
  { module, variant }: { module: string; variant: string },
): Fact[] {
  const held = new Map<string, { first: BuildStep; content: PlainValue }>();
  for (const step of steps) {
    if (step.does !== 'entry' || !asked.has(step.name)) continue;
    const known = held.get(step.name);
    const content = withEntry(known?.content, step.way ?? [], step);
    held.set(step.name, { first: known?.first ?? step, content });
  }
  return [...held].map(([name, { first, content }]): Fact => {
    const { place } = first;
    const isList = Array.isArray(content);
    const isWhole = typeof content !== 'object';
    const type = isList ? 'array' : isWhole ? first.more : 'dict';
    const value = isWhole ? String(content) : isList ? `${content.length} items` : 'keys of its own';
    const chain = [{ what: 'build step', value, place }];
    const base = { platform: 'ios' as const, module, variants: [variant], effective: true as const };
    const more = { network: null, name, value, type, list: 'info' as const, place, chain };
    return { ...base, kind: 'plist-key', ...more, ...(isWhole ? {} : { content }) };
  });
}

/** A value with one more entry, below the keys that lead to it. */
function withEntry(
  held: PlainValue | undefined,
  [key, ...below]: string[],
  step: Pick<BuildStep, 'more' | 'value'>,
): PlainValue {
  if (key === undefined) {
    if (step.more === 'item') return [...(Array.isArray(held) ? held : []), step.value];
    return plainOfWritten({ type: step.more, value: step.value });
  }
  const around = typeof held === 'object' && !Array.isArray(held) ? held : {};
  const others = Object.entries(around).filter(([name]) => name !== key);
  return Object.fromEntries([...others, [key, withEntry(valueAt(around, key), below, step)]]);
}
