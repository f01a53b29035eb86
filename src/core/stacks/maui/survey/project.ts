import { platformNames } from '../../../words/names.js';
import { platformIn } from '../../../formats/msbuild/conditions.js';
import type { Platform } from '../../../words/words.js';
import { compareVersions } from '../../../text/versions.js';
import { globMatcher } from '../../../text/globs.js';
import { baseOf, folderOf, isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { isDocument, type SharedDocument } from '../../common/documents.js';
import { below } from '../../common/script-packages/packages.js';
import { entriesOf, evaluateProject, type EvaluatedProject } from './evaluate.js';

/** A .NET MAUI application: its project file, what it is built for, and in which configurations. */
export interface MauiProject {
  root: string;
  path: string;
  name: string;
  /** The namespace that its code begins with. */
  namespace: string;
  /** The target framework of each platform, such as `net8.0-android`. */
  frameworks: Partial<Record<Platform, string>>;
  configurations: string[];
}

/** Lists of frameworks that are made of others are followed up to this many. */
const maxLists = 50;
/** Folders that builds fill. */
const made = /(^|\/)(bin|obj)\//;

function projectFiles(tree: Tree): string[] {
  return tree.once('maui project files', () =>
    tree.paths.filter((path) => path.endsWith('.csproj') && !made.test(path)),
  );
}

/** The application that a folder holds; undefined where none is built with MAUI there. */
export function mauiAt(tree: Tree, root: string): MauiProject | undefined {
  return tree.once(`maui project in ${root}`, () => {
    for (const path of projectFiles(tree).filter((one) => folderOf(one) === root)) {
      const project = projectOf(tree, path);
      if (project) return project;
    }
    return undefined;
  });
}

export function mauiRoots(tree: Tree): string[] {
  return [...new Set(projectFiles(tree).map(folderOf))].filter((root) => mauiAt(tree, root) !== undefined);
}

function projectOf(tree: Tree, path: string): MauiProject | undefined {
  const frameworks = frameworksOf(tree, path);
  const first = frameworks.android ?? frameworks.ios;
  if (first === undefined) return undefined;
  const evaluated = evaluateProject(tree, path, { Configuration: 'Release', TargetFramework: first });
  const is = (name: string, value: RegExp) => value.test(evaluated.property(name)?.value ?? '');
  if (!is('UseMaui', /^true$/i) || !is('OutputType', /^exe$/i)) return undefined;
  const name = baseOf(path).replace(/\.csproj$/, '');
  const namespace = evaluated.property('RootNamespace')?.value ?? name;
  const named = evaluated
    .property('Configurations')
    ?.value?.split(';')
    .map((one) => one.trim())
    .filter(Boolean);
  return {
    root: folderOf(path),
    path,
    name,
    namespace: namespace.replace(/[^\w.]/g, '_'),
    frameworks,
    configurations: named && named.length > 0 ? named : ['Debug', 'Release'],
  };
}

/** The newest framework of each platform that a project names, under whatever condition, itself or by a property. */
function frameworksOf(tree: Tree, path: string): MauiProject['frameworks'] {
  const entries = entriesOf(tree, path).filter((entry) => entry.is === 'property');
  const valuesOf = (name: string): string[] =>
    entries.flatMap((entry) => (entry.name.toLowerCase() === name.toLowerCase() ? [entry.value] : []));
  const named = new Set(['TargetFramework', 'TargetFrameworks'].flatMap(valuesOf));
  // A list may be made of others: every value that those get counts.
  for (const value of named) {
    if (named.size > maxLists) break;
    for (const [, name = ''] of value.matchAll(/\$\(([\w.]+)\)/g))
      for (const one of valuesOf(name)) named.add(one);
  }
  const all = [...named].flatMap((value) => value.split(';'));
  const of = (platform: Platform) =>
    all
      .map((one) => one.trim())
      .filter((one) => platformIn(one) === platform)
      .sort(compareVersions)
      .at(-1);
  const [android, ios] = [of('android'), of('ios')];
  return { ...(android === undefined ? {} : { android }), ...(ios === undefined ? {} : { ios }) };
}

/** The project as a configuration builds it for a platform. */
export function buildOf(
  tree: Tree,
  { path, frameworks }: MauiProject,
  platform: Platform,
  configuration: string,
): EvaluatedProject {
  return tree.once(`maui build of ${path} ${platform} ${configuration}`, () =>
    evaluateProject(tree, path, {
      Configuration: configuration,
      Platform: 'AnyCPU',
      TargetFramework: frameworks[platform] ?? '',
      TargetPlatformIdentifier: platform,
    }),
  );
}

/** Where the files of one platform alone lie. */
export function platformFolder({ root }: Pick<MauiProject, 'root'>, platform: Platform): string {
  return below(root, platform === 'ios' ? 'Platforms/iOS' : 'Platforms/Android');
}

/** The projects whose code goes into the application: its own, and those that it refers to, itself or through others. */
function codeProjects(tree: Tree, project: MauiProject): readonly string[] {
  return tree.once(`maui code projects of ${project.path}`, () => {
    const found = new Set([project.path]);
    for (const path of found)
      for (const entry of entriesOf(tree, path))
        if (entry.is === 'item' && entry.type === 'ProjectReference')
          for (const target of referredTo(tree, path, entry.metadata.get('include'))) found.add(target);
    return [...found];
  });
}

function referredTo(tree: Tree, from: string, include: string | undefined): string[] {
  const wanted = (include ?? '').replace(/\\/g, '/').replace(/^\$\(MSBuildThisFileDirectory\)/, '');
  const target = wanted === '' ? null : joinPath(folderOf(from), wanted);
  return target !== null && tree.has(target) ? [target] : [];
}

/** The folders whose code goes into the application. */
export function codeFolders(tree: Tree, project: MauiProject): string[] {
  return codeProjects(tree, project).map(folderOf);
}

/** The files of an ending that belong to the application. */
export function filesOf(tree: Tree, project: MauiProject, suffix: string): string[] {
  return tree.paths.filter((path) => path.endsWith(suffix) && isOwnFile(tree, project, path));
}

/** Whether a file belongs to the application: what builds made, and what a foreign project below it holds, does not. */
export function isOwnFile(tree: Tree, project: MauiProject, path: string): boolean {
  const folders = codeFolders(tree, project);
  const foreign = tree.once(`maui folders beside ${project.path}`, () =>
    projectFiles(tree)
      .map(folderOf)
      .filter((folder) => !folders.includes(folder)),
  );
  return (
    !made.test(path) &&
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
  const configuration = project.configurations.at(-1) ?? 'Release';
  const homes = codeProjects(tree, project).map((path) => ({ path, folder: folderOf(path) }));
  const builds = new Map(
    platformNames.map((platform) => [platform, projectsBuiltFor(tree, project, platform, configuration)]),
  );
  return (path, platform) => {
    const folder = platformsOfFolder.exec(path)?.[2]?.toLowerCase();
    if (folder !== undefined && folder !== platform) return false;
    const home = homes
      .filter((one) => isWithin(path, one.folder))
      .sort((a, b) => b.folder.length - a.folder.length)[0];
    const built = home && builds.get(platform)?.get(home.path);
    return built !== undefined && !isLeftOut(built, path);
  };
}

/** What a project says of the files that it compiles: patterns, in their order. */
type CompileRules = readonly { removes: boolean; matches: (path: string) => boolean }[];

/** The projects that go into the build of a platform, with what they say of the files that they compile. */
function projectsBuiltFor(
  tree: Tree,
  project: MauiProject,
  platform: Platform,
  configuration: string,
): ReadonlyMap<string, CompileRules> {
  const found = new Map<string, CompileRules>();
  const queue = [project.path];
  for (const path of queue) {
    if (found.has(path)) continue;
    const framework = (path === project.path ? project.frameworks : frameworksOf(tree, path))[platform];
    const evaluated = evaluateProject(tree, path, {
      Configuration: configuration,
      Platform: 'AnyCPU',
      TargetFramework: framework ?? project.frameworks[platform] ?? '',
      TargetPlatformIdentifier: platform,
    });
    const folder = folderOf(path);
    const rules = evaluated.items('Compile').flatMap(({ metadata }) =>
      (['remove', 'include'] as const).flatMap((how) =>
        (metadata.get(how)?.split(';') ?? []).map((pattern) => ({
          removes: how === 'remove',
          matches: globMatcher(below(folder, pattern.trim().replace(/\\/g, '/')), { ignoreCase: true }),
        })),
      ),
    );
    found.set(path, rules);
    for (const { metadata } of evaluated.items('ProjectReference'))
      queue.push(...referredTo(tree, path, metadata.get('include')));
  }
  return found;
}

function isLeftOut(rules: CompileRules, path: string): boolean {
  return rules.findLast(({ matches }) => matches(path))?.removes === true;
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
