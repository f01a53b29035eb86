import { typescript } from '../../languages/typescript/index.js';
import type { SurveyEdition } from '../../facts/model.js';
import { isWithin } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import {
  placebookAmong,
  titleEditions,
  wireSharedPlacebook,
  type StandingPlacebook,
} from '../joint-wiring.js';
import type { StackWiring, WireContext } from '../stack.js';
import { below } from '../script-packages.js';
import { type ReactNativeProject } from './project.js';
import { bundledFiles } from './sources.js';
import type { IsDevelopment } from './terms.js';

/** The placebook in TypeScript: one file for both platforms and stages. */
export function wirePlacebook(
  tree: Tree,
  project: ReactNativeProject,
  context: WireContext,
  isDevelopment: IsDevelopment,
): StackWiring {
  return wireSharedPlacebook(context, {
    standing: standingPlacebook(tree, project),
    path: placebookPath(tree, project),
    testCondition: stageCondition(titleEditions(context), isDevelopment),
    language: typescript,
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give the debug variants the test stage and all others production, then wire again.',
      why: 'One bundle serves both platforms; all that it knows of its build is __DEV__, which debug variants alone set.',
      where: project.path,
    },
  });
}

/** Where the placebook stands, or will. */
export function placebookPath(tree: Tree, project: ReactNativeProject): string {
  const standing = standingPlacebook(tree, project);
  return standing?.path ?? below(project.root, 'src/ads/placebook.ts');
}

export function standingPlacebook(tree: Tree, project: ReactNativeProject): StandingPlacebook | undefined {
  const own = bundledFiles(tree, project).filter((path) => isWithin(path, project.root));
  return placebookAmong(tree, own, 'placebook.ts');
}

/** What holds in the bundles of the test stage; undefined where development and stage do not go together. */
export function stageCondition(
  editions: readonly SurveyEdition[],
  isDevelopment: IsDevelopment,
): string | undefined {
  const builds = editions.flatMap((edition) =>
    edition.variants.map((variant) => ({
      development: isDevelopment(edition, variant),
      test: variant.stage === 'test',
    })),
  );
  const all = (test: boolean) => builds.every((build) => build.test === test);
  if (builds.length === 0 || all(true)) return 'true';
  if (all(false)) return 'false';
  if (builds.every(({ development, test }) => development === test)) return '__DEV__';
  return undefined;
}
