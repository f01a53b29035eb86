import { csharp } from '../../../languages/csharp/index.js';
import { folderOf } from '../../../text/paths.js';
import { platformNames } from '../../../words/names.js';
import type { SurveyEdition } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import {
  placebookAmong,
  titleEditions,
  wireSharedPlacebook,
  type ExistingPlacebook,
} from '../../common/joint-wiring.js';
import { homeFor, ownerOf, ownPackages } from '../../common/own-packages.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { configurationSymbol } from '../survey/builds.js';
import { filesOf } from '../survey/files.js';
import { codeProjects, referencesOf } from '../survey/parts.js';
import { frameworksOf, namespaceOf, type MauiProject } from '../survey/project.js';

/** The placebook in C#: one file for both platforms and stages. */
export function wirePlacebook(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const { path, namespace } = placebookHome(tree, project, context);
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, project),
    path,
    testCondition: stageCondition(titleEditions(context)),
    language: csharp,
    more: { namespace },
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give each configuration one stage, the same on both platforms, then wire again.',
      why: 'One C# file serves both platforms; it can choose the stage only by the configuration.',
      where: project.path,
    },
  });
}

/** Where the placebook is, or will be: in the project that all code that asks for ads refers to. */
export function placebookHome(
  tree: Tree,
  project: MauiProject,
  { survey }: WireContext,
): { path: string; namespace: string; canRefer: (path: string) => boolean } {
  const all = projectsOf(tree, project);
  const calling = survey.facts.flatMap(({ kind, place }) =>
    (kind === 'call' || kind === 'unit-id' || kind === 'placement-use') && place.path.endsWith('.cs')
      ? [place.path]
      : [],
  );
  const existing = existingPlacebook(tree, project)?.path;
  // What is compiled for no platform cannot know which one it is on.
  const open = all.filter(({ isForPlatforms }) => isForPlatforms);
  const home = existing === undefined ? homeFor(open, calling) : ownerOf(all, existing);
  const { root, namespace } = all.find((one) => one.root === home?.root) ?? project;
  return {
    path: existing ?? below(root, 'Ads/Placebook.cs'),
    namespace,
    canRefer: (path) => ownerOf(all, path)?.reaches.has(root) === true,
  };
}

/** The projects that an application is made of, its own first. */
function projectsOf(tree: Tree, project: MauiProject) {
  const folders = new Map(codeProjects(tree, project).map((path) => [path, folderOf(path)]));
  const rootOf = (path: string) => folders.get(path) ?? folderOf(path);
  const linked = [...folders].map(([path, root]) => ({
    root,
    name: path,
    code: root,
    uses: referencesOf(tree, path).map(rootOf),
  }));
  const [own, ...beside] = linked;
  const made = ownPackages(own ?? { root: project.root, name: project.path, code: project.root }, beside);
  return made.map((one) => {
    const path = one.name ?? project.path;
    const frameworks = frameworksOf(tree, path);
    return {
      ...one,
      namespace: path === project.path ? project.namespace : namespaceOf(tree, path),
      isForPlatforms: platformNames.every(
        (platform) => project.frameworks[platform] === undefined || frameworks[platform] !== undefined,
      ),
    };
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
