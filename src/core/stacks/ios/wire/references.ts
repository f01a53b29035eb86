import { entryOf, type PbxEntry } from '../../../formats/pbxproj/read.js';
import { relativePath } from '../../../text/paths.js';
import { filePaths, mainGroupOf } from '../survey/project.js';
import { type XcodeProject } from '../survey/model.js';

/** How an object of a project file refers to a file: a path, and what it is relative to. */
export interface GroupReference {
  path: string;
  sourceTree: '<group>' | 'SOURCE_ROOT';
}

/** A path as it is written from a folder, without a leading `./`: `Ads/Placebook.swift`, `../Common/Info.plist`. */
export function pathFrom(folder: string, path: string): string {
  return relativePath(folder, path).replace(/^\.\//, '');
}

/**
 * The path of a file of the tree as a group names it: from the folder of the group, or, where that folder is not in the
 * tree, from the folder of the project.
 */
export function referenceIn(project: XcodeProject, group: PbxEntry, path: string): GroupReference {
  const main = mainGroupOf(project);
  const folder = filePaths(project.objects, main, project.folder).get(group.key);
  return folder === undefined
    ? { path: pathFrom(project.folder, path), sourceTree: 'SOURCE_ROOT' }
    : { path: pathFrom(folder, path), sourceTree: '<group>' };
}

/** The main group of a project. */
export function mainGroup(project: XcodeProject): PbxEntry | undefined {
  const main = mainGroupOf(project);
  return main === undefined ? undefined : entryOf(project.objects, main);
}
