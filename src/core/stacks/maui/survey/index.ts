import { platformNames } from '../../../words/names.js';
import { mergeVariants } from '../../../facts/merge.js';
import type { Fact, SurveyEdition, Unresolved } from '../../../facts/model.js';
import { shippingIdentifier } from '../../../roster/variant-stages.js';
import type { Tree } from '../../../tree/tree.js';
import { sharedDocumentFacts } from '../../common/documents.js';
import { frameworkCalls, sharedCodeFacts } from '../../common/common-code.js';
import { lyingLibraries } from '../../common/library-file.js';
import { inEditions } from '../../common/package-facts.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { androidFacts, manifestOf } from './android-facts.js';
import { mauiDefines, mauiTerms, variantsOf } from './builds.js';
import { markupFacts } from './markup.js';
import { feedFacts } from './feeds.js';
import { mauiPackageFacts } from './packages.js';
import { listOf, plistFacts } from './plist-facts.js';
import { filesOf, isCompiledFor, isOwnFile, packedDocuments } from './files.js';
import { mauiAt, type MauiProject } from './project.js';
import { frameworkFacts, identifierOf, settingsFacts } from './settings.js';

/** The beginning of the application's builder, which carries calls from then on, and its end. */
const moments = {
  ready: /(^|\.)MauiApp\.CreateBuilder$/,
  run: /^(?:\w*[bB]uilder|MauiApp(?:Builder)?)\.Build$/,
};

/** Surveys the editions that a .NET MAUI project builds: its settings, packages, native files, C# and markup. */
export function surveyMaui(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const project = mauiAt(tree, root);
  if (!project) return { editions: [], facts: [], unresolved: [] };
  const editions = editionsOf(tree, project, context);
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const edition of editions) {
    for (const variant of edition.variants) {
      const given = { variant, context };
      const parts = [
        settingsFacts(tree, project, edition, given),
        { facts: mauiPackageFacts(tree, project, edition, given), unresolved: [] },
        edition.platform === 'android'
          ? androidFacts(tree, project, edition, given)
          : plistFacts(tree, project, edition, given),
      ];
      facts.push(...parts.flatMap((part) => part.facts));
      unresolved.push(...parts.flatMap((part) => part.unresolved));
    }
  }
  const files = filesOf(tree, project, '.cs');
  const code = sharedCodeFacts(tree, files, {
    editions,
    terms: mauiTerms,
    defined: mauiDefines(tree, project),
    context,
    isBuiltFor: isCompiledFor(tree, project),
  });
  const packed = sharedDocumentFacts(tree, packedDocuments(tree, project), editions, context);
  return {
    editions,
    facts: [
      ...mergeVariants(facts),
      ...packed.facts,
      ...feedFacts(tree, project, editions, context),
      ...frameworkFacts(tree, project, editions),
      ...inEditions(
        lyingLibraries(tree, context.profiles, (path) => isOwnFile(tree, project, path)),
        editions.filter(({ platform }) => platform === 'android'),
      ),
      ...code.facts,
      ...markupFacts(tree, filesOf(tree, project, '.xaml'), editions, context),
      ...frameworkCalls(tree, files, editions, moments),
    ],
    unresolved: [...mergeVariants(unresolved), ...packed.unresolved, ...code.unresolved],
  };
}

/** An edition for each platform that the project is built for. */
export function editionsOf(tree: Tree, project: MauiProject, { title }: SurveyContext): SurveyEdition[] {
  return platformNames.flatMap((platform): SurveyEdition[] => {
    if (project.frameworks[platform] === undefined) return [];
    const variants = variantsOf(project, title);
    const identifiers = Object.fromEntries(
      variants.flatMap(({ name }) => {
        const told = identifierOf(tree, project, platform, name);
        return told?.value == null ? [] : [[name, told.value] as const];
      }),
    );
    const own = platform === 'ios' ? listOf(project) : manifestOf(project);
    return [
      {
        platform,
        stack: 'maui',
        module: below(project.root, platform),
        identifier: shippingIdentifier(variants, identifiers),
        identifiers,
        variants,
        home: { path: tree.has(own) ? own : project.path, line: 1, column: 1 },
      },
    ];
  });
}
