import { csharp } from '../../../languages/csharp/index.js';
import type { Tree } from '../../../tree/tree.js';
import { placebookAmong, wireSharedPlacebook, type ExistingPlacebook } from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import type { UnityProject } from '../survey/project.js';
import { codeHome, csharpFiles } from '../survey/sources.js';
import { stageSplit, type StageSplit } from './steps.js';

/** In the editor, whatever it is asked to build, nobody wants to see what earns money. */
const conditions: Record<StageSplit, string | undefined> = {
  'by development': 'DEVELOPMENT_BUILD || UNITY_EDITOR',
  'all test': 'true',
  'all production': 'false',
  'not at all': undefined,
};

/** The placebook in C#: one file for both platforms and stages. */
export function wirePlacebook(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, project),
    path: placebookPath(tree, project, context),
    testCondition: conditions[stageSplit(context)],
    language: csharp,
    more: { symbols: { android: 'UNITY_ANDROID', ios: 'UNITY_IOS' } },
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give development builds the test stage and all others production, then wire again.',
      why: 'One C# file serves both platforms; it can only tell whether it is in a development build.',
      where: project.path,
    },
  });
}

export function existingPlacebook(tree: Tree, project: UnityProject): ExistingPlacebook | undefined {
  return placebookAmong(tree, csharpFiles(tree, project), 'Placebook.cs');
}

/** Where the placebook goes: into the assembly of the code that asks for ads, which could not see another. */
export function placebookPath(tree: Tree, project: UnityProject, { survey }: WireContext): string {
  const existing = existingPlacebook(tree, project)?.path;
  if (existing !== undefined) return existing;
  const calling = survey.facts.flatMap(({ kind, place }) =>
    kind === 'call' || kind === 'unit-id' ? [place.path] : [],
  );
  return `${codeHome(tree, project, calling)}/Ads/Placebook.cs`;
}
