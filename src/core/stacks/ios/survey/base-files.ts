import { readXcconfig } from '../../../formats/xcconfig/read.js';
import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { filePaths, mainGroupOf } from './project.js';
import { type XcodeProject } from './model.js';
import type { TargetModel } from './targets.js';

/** The configuration files that something else than a target is based on: other targets, or the project as a whole. */
export function baseFilesOfOthers(tree: Tree, { project, target }: TargetModel): ReadonlySet<string> {
  const byTarget = tree.once(`base files of ${project.path}`, () => basesByOwner(tree, project));
  return new Set(
    [...byTarget].flatMap(([configuration, files]) =>
      target.configurations.some(({ own }) => own.id === configuration) ? [] : [...files],
    ),
  );
}

/** The files that each configuration is based on, with those that they include. */
function basesByOwner(tree: Tree, { objects, folder, path }: XcodeProject): Map<string, Set<string>> {
  const project = tree.once(`xcode file paths of ${path}`, () =>
    filePaths(objects, mainGroupOf({ objects }), folder),
  );
  const lists = objects.entries.filter(({ value }) => stringOf(value, 'isa') === 'XCConfigurationList');
  const found = new Map<string, Set<string>>();
  for (const id of lists.flatMap(({ value }) => stringsOf(value, 'buildConfigurations'))) {
    const base = project.get(stringOf(entryOf(objects, id)?.value, 'baseConfigurationReference') ?? '');
    const files = new Set<string>();
    const waiting = base === undefined ? [] : [base];
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      if (files.has(next)) continue;
      files.add(next);
      const from = folderOf(next);
      const includes = tree.has(next) ? (tree.read(next, readXcconfig)?.includes ?? []) : [];
      waiting.push(...includes.flatMap((include) => joinPath(from, include.path) ?? []));
    }
    found.set(id, files);
  }
  return found;
}
