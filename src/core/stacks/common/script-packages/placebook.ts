import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { type ExistingPlacebook, placebookAmong } from '../joint-wiring.js';
import { below } from './packages.js';
import type { ReactNativeProject } from './project.js';
import { bundledFiles } from './sources.js';

/** Where the placebook stands, or will. */
export function placebookPath(tree: Tree, project: ReactNativeProject): string {
  const existing = existingPlacebook(tree, project);
  return existing?.path ?? below(project.root, 'src/ads/placebook.ts');
}

export function existingPlacebook(tree: Tree, project: ReactNativeProject): ExistingPlacebook | undefined {
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

/** Whether the bundle of a variant is one for developing; undefined where that cannot be determined. */
export type IsDevelopment = (edition: SurveyEdition, variant: Variant) => boolean;
