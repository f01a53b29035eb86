import { entryOf, stringOf, stringsOf, type PbxEntry } from '../../../formats/pbxproj/read.js';
import { folderOf } from '../../../text/paths.js';
import { filePaths, mainGroupOf } from './project.js';
import { type XcodeProject } from './model.js';
import type { TargetModel } from './targets.js';

/** Where a target keeps its source files, and what names them in the project file. */
export type SourceHome = { folder: string; language: 'swift' | 'objective-c' } & (
  { synchronised: true } | { synchronised: false; group: PbxEntry; phase: PbxEntry }
);

/** The folder of a target's first source file, Swift before Objective-C, with its group and build phase. */
export function sourceHome(model: TargetModel): SourceHome | undefined {
  const { objects } = model.project;
  const paths = filePaths(objects, mainGroupOf(model.project), model.project.folder);
  const phase = sourcesPhase(model);
  const files = phase ? filesOf(model, phase) : [];
  for (const [language, ending] of [
    ['swift', /\.swift$/],
    ['objective-c', /\.mm?$/],
  ] as const) {
    for (const file of files) {
      const path = paths.get(file);
      const group = objects.entries.find(
        (entry) =>
          stringOf(entry.value, 'isa') === 'PBXGroup' && stringsOf(entry.value, 'children').includes(file),
      );
      if (!phase || path === undefined || !ending.test(path) || !group) continue;
      return { synchronised: false, folder: folderOf(path), language, group, phase };
    }
  }
  const synchronised = stringsOf(model.target.entry.value, 'fileSystemSynchronizedGroups').flatMap(
    (id) => paths.get(id) ?? [],
  )[0];
  if (synchronised === undefined) return undefined;
  const tree = model.variants[0]?.scope.tree;
  const inside = (tree?.paths ?? []).filter((path) => path.startsWith(`${synchronised}/`));
  const onlyC = inside.some((path) => /\.mm?$/.test(path)) && !inside.some((path) => path.endsWith('.swift'));
  return { synchronised: true, folder: synchronised, language: onlyC ? 'objective-c' : 'swift' };
}

/** Paths of the files that the target's sources phase compiles. */
export function sourcePaths(model: TargetModel): string[] {
  const phase = sourcesPhase(model);
  const paths = filePaths(model.project.objects, mainGroupOf(model.project), model.project.folder);
  return phase ? filesOf(model, phase).flatMap((id) => paths.get(id) ?? []) : [];
}

function sourcesPhase({ project, target }: TargetModel): PbxEntry | undefined {
  return stringsOf(target.entry.value, 'buildPhases')
    .map((id) => entryOf(project.objects, id))
    .find((entry) => stringOf(entry?.value, 'isa') === 'PBXSourcesBuildPhase');
}

function filesOf({ project }: { project: XcodeProject }, phase: PbxEntry): string[] {
  return stringsOf(phase.value, 'files').flatMap(
    (id) => stringOf(entryOf(project.objects, id)?.value, 'fileRef') ?? [],
  );
}
