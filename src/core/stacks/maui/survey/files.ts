import { platformNames } from '../../../words/names.js';
import type { Platform } from '../../../words/words.js';
import { globMatcher } from '../../../text/globs.js';
import { baseOf, folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { isDocument, type SharedDocument } from '../../common/documents.js';
import { below } from '../../common/script-packages/packages.js';
import { codeProjects, partsOf, type Part } from './parts.js';
import { isMade, projectFiles, type MauiProject } from './project.js';

/** The files of an ending that belong to the application. */
export function filesOf(tree: Tree, project: MauiProject, suffix: string): string[] {
  return tree.paths.filter((path) => path.endsWith(suffix) && isOwnFile(tree, project, path));
}

/** Whether a file belongs to the application: what builds made, and what a foreign project below it holds, does not. */
export function isOwnFile(tree: Tree, project: MauiProject, path: string): boolean {
  const folders = codeProjects(tree, project).map(folderOf);
  const foreign = tree.once(`maui folders beside ${project.path}`, () =>
    projectFiles(tree)
      .map(folderOf)
      .filter((folder) => !folders.includes(folder)),
  );
  return (
    !isMade(path) &&
    folders.some(
      (folder) =>
        isWithin(path, folder) &&
        !foreign.some((other) => other.length > folder.length && isWithin(path, other)),
    )
  );
}

const platformsOfFolder = /(^|\/)Platforms\/(\w+)\//;

/**
 * Whether the build of a platform compiles a file: what is below `Platforms` is for one alone, a project may leave files
 * out, and one that only the build of the other platform refers to is none of it.
 */
export function isCompiledFor(
  tree: Tree,
  project: MauiProject,
): (path: string, platform: Platform) => boolean {
  return tree.once(`maui compilation of ${project.path}`, () => {
    const configuration = project.configurations.at(-1) ?? 'Release';
    const homes = codeProjects(tree, project).map((path) => ({ path, folder: folderOf(path) }));
    const builds = new Map(
      platformNames.map((platform) => [
        platform,
        new Map(
          partsOf(tree, project, platform, configuration).map((part) => [part.path, compileRules(part)]),
        ),
      ]),
    );
    return (path, platform) => {
      const folder = platformsOfFolder.exec(path)?.[2]?.toLowerCase();
      if (folder !== undefined && folder !== platform) return false;
      const home = homes
        .filter((one) => isWithin(path, one.folder))
        .sort((a, b) => b.folder.length - a.folder.length)[0];
      const rules = home && builds.get(platform)?.get(home.path);
      return rules !== undefined && rules.findLast(({ matches }) => matches(path))?.removes !== true;
    };
  });
}

/** What a project says of the files that it compiles: patterns, in their order. */
type CompileRules = readonly { removes: boolean; matches: (path: string) => boolean }[];

function compileRules({ path, build }: Part): CompileRules {
  const folder = folderOf(path);
  return build.items('Compile').flatMap(({ metadata }) =>
    (['remove', 'include'] as const).flatMap((how) =>
      (metadata.get(how)?.split(';') ?? []).map((pattern) => ({
        removes: how === 'remove',
        matches: globMatcher(below(folder, pattern.trim().replace(/\\/g, '/')), { ignoreCase: true }),
      })),
    ),
  );
}

/** The documents that an application carries: its raw resources, and settings that it may embed. */
export function packedDocuments(tree: Tree, project: MauiProject): SharedDocument[] {
  const raw = below(project.root, 'Resources/Raw');
  return tree.paths.flatMap((path): SharedDocument[] => {
    if (!isDocument(path) || !isOwnFile(tree, project, path)) return [];
    if (isWithin(path, raw)) return [{ path }];
    return /^appsettings[\w.-]*\.json$/.test(baseOf(path))
      ? [{ path, open: 'whether the project embeds this document is not known' }]
      : [];
  });
}
