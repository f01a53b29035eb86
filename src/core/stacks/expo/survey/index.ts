import { platformNames } from '../../../words/names.js';
import type { Platform } from '../../../words/words.js';
import { mergeVariants } from '../../../facts/merge.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { identityOf } from '../../../facts/show.js';
import { placeAt } from '../../../facts/place.js';
import { shippingIdentifier } from '../../../roster/variant-stages.js';
import type { Tree } from '../../../tree/tree.js';
import { sharedCodeFacts } from '../../common/common-code.js';
import { surveyParts } from '../../common/native-parts.js';
import { sharedDocumentFacts } from '../../common/documents.js';
import { readDocuments } from '../../common/script-packages/documents.js';
import { packageJsonFacts } from '../../common/script-packages/facts.js';
import { bundledFiles, isBundledFor } from '../../common/script-packages/sources.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { buildsOf, expoTerms, type ExpoBuild } from './builds.js';
import { configFacts, identifierIn } from './config-facts.js';
import { asScripts, expoAt, type ExpoProject } from '../../common/script-packages/expo-project.js';

/** Surveys the editions that an Expo project builds: its configuration, its packages and its code. */
export function surveyExpo(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const project = expoAt(tree, root);
  if (!project) return { editions: [], facts: [], unresolved: [] };
  const builds = buildsOf(project, context.title);
  const editions = platformNames.map((platform) => editionOf(tree, project, builds, platform));
  const config = editions.map((edition) => configFacts(tree, builds, edition, context));
  const files = bundledFiles(tree, asScripts(project));
  const code = sharedCodeFacts(tree, files, {
    editions,
    terms: expoTerms(builds),
    context,
    isBuiltFor: isBundledFor(files),
  });
  const facts = mergeVariants(config.flatMap((one) => one.facts));
  const packed = sharedDocumentFacts(tree, readDocuments(tree, asScripts(project), files), editions, context);
  return {
    editions,
    facts: [
      ...facts,
      ...packed.facts,
      ...packageJsonFacts(tree, asScripts(project), editions, context, 'expo'),
      ...clientFacts(tree, project, editions),
      ...staleFacts(tree, project, { editions, facts, context }),
      ...code.facts,
    ],
    unresolved: [
      ...mergeVariants(config.flatMap((one) => one.unresolved)),
      ...packed.unresolved,
      ...code.unresolved,
    ],
  };
}

function editionOf(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  platform: Platform,
): SurveyEdition {
  const variants = builds.map(({ variant }) => variant);
  const identifiers = Object.fromEntries(
    builds.flatMap((build) => {
      const held = identifierIn(build, platform);
      return held?.is === 'text' ? [[build.variant.name, held.value] as const] : [];
    }),
  );
  const path = project.json?.path ?? project.script?.path ?? project.path;
  const start = project.json?.config?.start ?? project.script?.config?.start ?? 0;
  return {
    platform,
    stack: 'expo',
    module: below(project.root, platform),
    identifier: shippingIdentifier(variants, identifiers),
    identifiers,
    variants,
    home: placeAt(path, tree.text(path), { start, end: start + 1 }),
  };
}

/** Whether there is a client of its own for developing: the stock one has none of the native code of packages. */
function clientFacts(
  tree: Tree,
  { manifest, path, eas }: ExpoProject,
  editions: readonly SurveyEdition[],
): Fact[] {
  const client = manifest.dependencies.find(({ name }) => name === 'expo-dev-client');
  const profile = eas?.profiles.find(({ development }) => development);
  const at = client ?? manifest.dependencies.find(({ name }) => name === 'expo');
  if (!at || (client && profile) || !eas) return [];
  const place = placeAt(path, tree.text(path), at);
  const value = client ? 'no profile builds it' : 'expo-dev-client is not a dependency';
  return editions.map(({ platform, module, variants }) => ({
    kind: 'client',
    network: null,
    platform,
    module,
    variants: variants.map(({ name }) => name),
    name: 'client for developing',
    value,
    effective: true,
    place,
    chain: [{ what: 'package.json', value, place }],
  }));
}

/** Where native folders that are made from the configuration say something else than it does now. */
function staleFacts(
  tree: Tree,
  { parts }: ExpoProject,
  {
    editions,
    facts,
    context,
  }: { editions: readonly SurveyEdition[]; facts: readonly Fact[]; context: SurveyContext },
): Fact[] {
  const native = surveyParts(tree, parts, 'expo', context);
  return native.facts.flatMap((fact): Fact[] => {
    if (fact.kind !== 'identifier' && fact.kind !== 'app-id') return [];
    const edition = editions.find(({ platform }) => platform === fact.platform);
    const mine = facts.filter((one) => identityOf(one) === identityOf(fact));
    if (!edition || mine.some(({ value }) => value === fact.value)) return [];
    const [said] = mine;
    const name = fact.kind === 'identifier' ? 'the identifier' : 'the app ID';
    const variants = edition.variants.map((variant) => variant.name);
    const chain = [...fact.chain, ...(said?.chain ?? [])];
    return [
      {
        kind: 'stale-folder',
        network: fact.network,
        platform: fact.platform,
        module: edition.module,
        variants,
        name,
        value: fact.value,
        expected: said?.value ?? null,
        effective: true,
        place: fact.place,
        chain,
      },
    ];
  });
}
