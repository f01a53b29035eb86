import type { Platform } from '../../../words/words.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { entriesOf, evaluateProject, type EvaluatedProject } from './evaluate.js';
import { frameworksOf, type MauiProject } from './project.js';

/** A project that goes into a build of the application, as that build evaluates it. */
export interface Part {
  path: string;
  build: EvaluatedProject;
}

type Items = ReturnType<EvaluatedProject['items']>;

/** The projects whose code is in the application: its own, and those that it refers to, directly or through others. */
export function codeProjects(tree: Tree, project: Pick<MauiProject, 'path'>): readonly string[] {
  return tree.once(`maui code projects of ${project.path}`, () => {
    const found = new Set([project.path]);
    for (const path of found) for (const target of referencesOf(tree, path)) found.add(target);
    return [...found];
  });
}

/** The projects of the tree that a project refers to, under whatever condition. */
export function referencesOf(tree: Tree, path: string): string[] {
  return entriesOf(tree, path).flatMap((entry) =>
    entry.is === 'item' && entry.type === 'ProjectReference' ? referredTo(tree, path, entry.metadata) : [],
  );
}

/**
 * The projects that go into the build of a platform in a configuration, the application first and the nearest before
 * the others. Source: learn.microsoft.com, "Package references in project files" and "NuGet dependency resolution".
 */
export function partsOf(
  tree: Tree,
  project: MauiProject,
  platform: Platform,
  configuration: string,
): readonly Part[] {
  return tree.once(`maui parts of ${project.path} ${platform} ${configuration}`, () => {
    const found = new Map<string, Part>();
    const queue = [project.path];
    for (const path of queue) {
      if (found.has(path)) continue;
      const isOwn = path === project.path;
      const framework = (isOwn ? project.frameworks : frameworksOf(tree, path))[platform];
      const build = evaluateProject(tree, path, {
        Configuration: configuration,
        Platform: 'AnyCPU',
        TargetFramework: framework ?? project.frameworks[platform] ?? '',
        TargetPlatformIdentifier: platform,
      });
      found.set(path, { path, build });
      for (const { metadata } of flowing(build.items('ProjectReference'), isOwn))
        queue.push(...referredTo(tree, path, metadata));
    }
    return [...found.values()];
  });
}

/** The project of the application as a configuration builds it for a platform. */
export function buildOf(
  tree: Tree,
  project: MauiProject,
  platform: Platform,
  configuration: string,
): EvaluatedProject {
  const [own] = partsOf(tree, project, platform, configuration);
  return own?.build ?? evaluateProject(tree, project.path, {});
}

/** The items of a project that reach the application: a project may keep its references private. */
export function flowing(items: Items, isOwn: boolean): Items {
  return isOwn
    ? items
    : items.filter(({ metadata }) => !/(^|;)\s*all\s*(;|$)/i.test(metadata.get('privateassets') ?? ''));
}

function referredTo(tree: Tree, from: string, metadata: ReadonlyMap<string, string>): string[] {
  if (/^\s*false\s*$/i.test(metadata.get('referenceoutputassembly') ?? '')) return [];
  const include = metadata.get('include') ?? '';
  const wanted = include.replace(/\\/g, '/').replace(/^\$\(MSBuildThisFileDirectory\)/, '');
  const target = wanted === '' ? null : joinPath(folderOf(from), wanted);
  return target !== null && tree.has(target) ? [target] : [];
}
