import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { type ExistingPlacebook, placebookAmong } from '../joint-wiring.js';
import type { WireContext } from '../../stack.js';
import type { CallSiteContext } from '../call-sites.js';
import { nodesAt } from '../../../formats/json/read.js';
import { homeFor, ownerOf, ownPackages, type OwnPackage } from '../own-packages.js';
import { below, packagesOf } from './packages.js';
import { workspacePackages } from './workspace.js';
import type { ReactNativeProject } from './project.js';
import { bundledFiles } from './sources.js';

/** The packages that an application is made of, its own first. */
function packagesFor(tree: Tree, { root, manifest }: ReactNativeProject): OwnPackage[] {
  return ownPackages(
    { root, name: manifest.name, code: root },
    workspacePackages(tree, root).map((one) => ({
      root: one.root,
      name: one.manifest.name,
      code: one.root,
      uses: one.uses,
    })),
  );
}

/** Where the placebook is or will be: in the package that all code with ad requests can import. */
export function placebookPath(tree: Tree, project: ReactNativeProject, { survey }: WireContext): string {
  const existing = existingPlacebook(tree, project);
  if (existing) return existing.path;
  const calling = survey.facts.flatMap(({ kind, place }) =>
    kind === 'call' || kind === 'unit-id' || kind === 'placement-use' ? [place.path] : [],
  );
  const packages = packagesFor(tree, project);
  const owners = new Set(calling.map((path) => ownerOf(packages, path)?.root));
  // A package that lists what others may import lists no placebook.
  const open = packages.filter(
    ({ root, name }) => owners.size <= 1 || (name !== undefined && !hasExports(tree, root)),
  );
  const home = homeFor(open, calling)?.root ?? project.root;
  const hasSources = bundledFiles(tree, project).some((path) => isWithin(path, below(home, 'src')));
  return below(home, home === project.root || hasSources ? 'src/ads/placebook.ts' : 'ads/placebook.ts');
}

function hasExports(tree: Tree, root: string): boolean {
  return nodesAt(packagesOf(tree).get(root)?.root ?? null, ['exports']).length > 0;
}

/** How code refers to the placebook: by its path within its package, by the package's name elsewhere. */
export function placebookImports(
  tree: Tree,
  project: ReactNativeProject,
  context: WireContext,
): Required<Pick<CallSiteContext, 'bookPath' | 'moduleFor' | 'canRefer'>> {
  const packages = packagesFor(tree, project);
  const bookPath = placebookPath(tree, project, context);
  const home = ownerOf(packages, bookPath);
  const isInside = (path: string) => ownerOf(packages, path)?.root === home?.root;
  return {
    bookPath,
    canRefer: (path) =>
      home === undefined ||
      isInside(path) ||
      (ownerOf(packages, path)?.reaches.has(home.root) === true &&
        home.name !== undefined &&
        !hasExports(tree, home.root)),
    moduleFor: (path) =>
      home?.name === undefined || isInside(path)
        ? undefined
        : `${home.name}/${bookPath.slice(below(home.root, '').length).replace(/\.ts$/, '')}`,
  };
}

export function existingPlacebook(tree: Tree, project: ReactNativeProject): ExistingPlacebook | undefined {
  return placebookAmong(tree, bundledFiles(tree, project), 'placebook.ts');
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
