import { csharp } from '../../../languages/csharp/index.js';
import type { SurveyEdition } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import {
  placebookAmong,
  titleEditions,
  wireSharedPlacebook,
  type ExistingPlacebook,
} from '../../common/joint-wiring.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { configurationSymbol } from '../survey/builds.js';
import { filesOf } from '../survey/files.js';
import type { MauiProject } from '../survey/project.js';

/** The placebook in C#: one file for both platforms and stages. */
export function wirePlacebook(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, project),
    path: below(project.root, 'Ads/Placebook.cs'),
    testCondition: stageCondition(titleEditions(context)),
    language: csharp,
    more: { namespace: project.namespace },
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give each configuration one stage, the same on both platforms, then wire again.',
      why: 'One C# file serves both platforms; it can pick the stage only by the configuration.',
      where: project.path,
    },
  });
}

export function existingPlacebook(tree: Tree, project: MauiProject): ExistingPlacebook | undefined {
  return placebookAmong(tree, filesOf(tree, project, '.cs'), 'Placebook.cs');
}

/**
 * What is not defined in the configurations of the test stage: a configuration that no variant names, such as one given
 * to a command alone, is of the test stage. Undefined where the platforms disagree on one.
 */
export function stageCondition(editions: readonly SurveyEdition[]): string | undefined {
  const known = new Map<string, string | null>();
  for (const { name, stage } of editions.flatMap(({ variants }) => variants)) {
    const symbol = configurationSymbol(name);
    if ((known.get(symbol) ?? stage) !== stage) return undefined;
    known.set(symbol, stage);
  }
  const production = [...known].flatMap(([symbol, stage]) => (stage === 'production' ? [symbol] : []));
  if (production.length === 0) return 'true';
  return production.length === known.size ? 'false' : production.map((symbol) => `!${symbol}`).join(' && ');
}
