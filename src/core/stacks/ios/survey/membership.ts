import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { isWithin, joinPath } from '../../../text/paths.js';
import { filePaths, mainGroupOf } from './project.js';
import { type XcodeProject } from './model.js';
import type { TargetModel } from './targets.js';

/** A synchronised folder, whose files belong to its targets except for listed exceptions. */
interface SynchronisedFolder {
  folder: string;
  /** Paths that a target leaves out, or takes though the folder is not its own. */
  exceptions: ReadonlyMap<string, ReadonlySet<string>>;
  owners: ReadonlySet<string>;
}

/** Which files belong to which targets. */
export interface Membership {
  /** Whether a target compiles a source file, by itself or through a framework of the project that it links. */
  compiles: (path: string) => boolean;
  /** Whether a target copies a file into the application. */
  copies: (path: string) => boolean;
}

const known = new WeakMap<XcodeProject, Map<string, Membership>>();

/** The files of an application target. */
export function membershipOf({ project, target }: TargetModel): Membership {
  const byTarget = known.get(project) ?? new Map<string, Membership>();
  known.set(project, byTarget);
  const found = byTarget.get(target.id) ?? makeMembership(project, target.id);
  byTarget.set(target.id, found);
  return found;
}

function makeMembership(project: XcodeProject, target: string): Membership {
  const paths = filePaths(project.objects, mainGroupOf(project), project.folder);
  const targets = linkedTargets(project, target);
  const listed = (isa: string, ids: readonly string[]) =>
    new Set(
      ids.flatMap((id) => phaseFiles(project, id, isa)).flatMap((file) => withVariants(project, file, paths)),
    );
  const sources = listed('PBXSourcesBuildPhase', targets);
  const resources = listed('PBXResourcesBuildPhase', [target]);
  const folders = synchronisedFolders(project, paths);
  const packages = localPackages(project);
  const inFolder = (path: string, ids: readonly string[]) =>
    folders.some(({ folder, exceptions, owners }) => {
      if (!isWithin(path, folder)) return false;
      return ids.some((id) => owners.has(id) !== (exceptions.get(id)?.has(path) ?? false));
    });
  return {
    compiles: (path) =>
      sources.has(path) || inFolder(path, targets) || packages.some((folder) => isWithin(path, folder)),
    copies: (path) =>
      resources.has(path) ||
      // A folder reference copies all that is in it.
      [...resources].some((folder) => path.startsWith(`${folder}/`)) ||
      inFolder(path, [target]),
  };
}

/**
 * The target itself and the frameworks and libraries of the project that it depends on, through any number of steps.
 */
function linkedTargets({ objects }: XcodeProject, target: string): string[] {
  const found = [target];
  for (const id of found) {
    for (const dependency of stringsOf(entryOf(objects, id)?.value, 'dependencies')) {
      const other = stringOf(entryOf(objects, dependency)?.value, 'target');
      const type = other === undefined ? '' : (stringOf(entryOf(objects, other)?.value, 'productType') ?? '');
      const linked = /\.(framework|library)(\.|$)/.test(type);
      if (other !== undefined && linked && !found.includes(other) && found.length < 200) found.push(other);
    }
  }
  return found;
}

function phaseFiles({ objects }: XcodeProject, target: string, isa: string): string[] {
  return stringsOf(entryOf(objects, target)?.value, 'buildPhases')
    .map((id) => entryOf(objects, id)?.value)
    .filter((phase) => stringOf(phase, 'isa') === isa)
    .flatMap((phase) => stringsOf(phase, 'files'))
    .flatMap((id) => stringOf(entryOf(objects, id)?.value, 'fileRef') ?? []);
}

/** A file, or the localised files of a variant group. */
function withVariants({ objects }: XcodeProject, id: string, paths: ReadonlyMap<string, string>): string[] {
  const children = stringsOf(entryOf(objects, id)?.value, 'children');
  return [id, ...children].flatMap((each) => paths.get(each) ?? []);
}

function synchronisedFolders(
  { objects }: XcodeProject,
  paths: ReadonlyMap<string, string>,
): SynchronisedFolder[] {
  const targets = objects.entries.filter(
    ({ value }) => stringsOf(value, 'fileSystemSynchronizedGroups').length > 0,
  );
  return objects.entries.flatMap(({ key, value }): SynchronisedFolder[] => {
    const folder = paths.get(key);
    if (stringOf(value, 'isa') !== 'PBXFileSystemSynchronizedRootGroup' || folder === undefined) return [];
    const owners = new Set(
      targets
        .filter((target) => stringsOf(target.value, 'fileSystemSynchronizedGroups').includes(key))
        .map((target) => target.key),
    );
    const exceptions = new Map<string, ReadonlySet<string>>();
    for (const id of stringsOf(value, 'exceptions')) {
      const set = entryOf(objects, id)?.value;
      const target = stringOf(set, 'target');
      const files = stringsOf(set, 'membershipExceptions').flatMap((path) => joinPath(folder, path) ?? []);
      if (target !== undefined) exceptions.set(target, new Set(files));
    }
    return [{ folder, exceptions, owners }];
  });
}

/** Folders of Swift packages that are in the tree and that the project refers to. */
function localPackages({ objects, folder }: XcodeProject): string[] {
  return objects.entries
    .filter(({ value }) => stringOf(value, 'isa') === 'XCLocalSwiftPackageReference')
    .flatMap(({ value }) => joinPath(folder, stringOf(value, 'relativePath') ?? '') ?? []);
}
