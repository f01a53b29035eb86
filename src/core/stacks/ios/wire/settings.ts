import { labelled, setPbxString } from '../../../formats/pbxproj/edit.js';
import { entryOf, stringOf } from '../../../formats/pbxproj/read.js';
import { setXcconfig } from '../../../formats/xcconfig/edit.js';
import { readXcconfig } from '../../../formats/xcconfig/read.js';
import { baseOf, folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { Edit } from '../../../text/edit.js';
import type { Change } from '../../../edits/model.js';
import { addObject, addToList, fileReference, objectId } from './pbx-objects.js';
import { mainGroup, pathFrom, referenceIn } from './references.js';
import { baseFilesOfOthers } from '../survey/base-files.js';
import { splitKey } from '../survey/setting-conditions.js';
import { settingOf } from '../survey/settings.js';
import type { TargetModel } from '../survey/targets.js';
import type { IosWireContext, StagedVariant } from './context.js';

/** The folder, beside the project, in which base configuration files of Syndexa's own stand. */
const ownFolder = 'Syndexa';

/** What a change of settings is for. */
type Base = Pick<Change, 'network' | 'topic' | 'rules' | 'adds'>;

/**
 * Gives a build setting its value in each variant: where the target sets it already, there; else in the base
 * configuration file, when the configuration has one that is kept by hand; a file that an install of pods makes
 * is included from one of Syndexa's own; without any base file it goes into the project file.
 */
export function settingChanges(
  context: IosWireContext,
  name: string,
  values: ReadonlyMap<StagedVariant, string>,
  base: Base,
): Change[] {
  const { variants } = context;
  return variants.flatMap((variant): Change[] => {
    const value = values.get(variant);
    if (value === undefined || settingOf(variant.scope, name)?.value === value) return [];
    const given = { ...base, platform: 'ios' as const, variants: [variant.name] };
    return (
      inProject(context, variant, name, value, given) ?? inFile(context, variant, name, value, given, values)
    );
  });
}

type Given = Base & { platform: 'ios'; variants: string[] };

/** An edit of the project file: where it sets the name already, or where there is no base file. */
function inProject(
  { tree, model }: IosWireContext,
  { scope }: StagedVariant,
  name: string,
  value: string,
  given: Given,
): Change[] | undefined {
  const { settings } = scope.own;
  const document = tree.text(model.project.path);
  if (!document || !settings) return [];
  const hasBase =
    stringOf(scope.own.value, 'baseConfigurationReference') !== undefined && scope.own.base !== null;
  const inFile = hasBase && scope.own.base !== null && !isForOthers(tree, model, scope.own.base, name);
  if (inFile && !entryOf(settings, name)) return undefined;
  const edits = setPbxString(document.text, settings, name, value, document.lineEnd);
  return [{ ...given, path: model.project.path, kind: 'edit', edits }];
}

/** Whether a line that sets a name in a base file would be new to other targets, which are based on it too. */
function isForOthers(tree: Tree, model: TargetModel, base: string, name: string): boolean {
  if (!baseFilesOfOthers(tree, model).has(base) || isInstalled(base)) return false;
  const settings = tree.read(base, readXcconfig)?.settings ?? [];
  return !settings.some(({ key }) => splitKey(key).name === name);
}

function inFile(
  context: IosWireContext,
  variant: StagedVariant,
  name: string,
  value: string,
  given: Given,
  values: ReadonlyMap<StagedVariant, string>,
): Change[] {
  const { tree, variants } = context;
  const { base } = variant.scope.own;
  if (base === null) return [];
  const document = tree.text(base);
  if (!document || isInstalled(base)) return inOwnFile(context, variant, `${name} = ${value}`, given);
  // A file that serves several configurations says which one a value is for.
  const sharing = variants.filter((other) => other.scope.own.base === base);
  const shared = sharing.every((other) => values.get(other) === value);
  const key = shared ? name : `${name}[config=${variant.scope.own.name}]`;
  const plain = readXcconfig(document.text).settings.some((setting) => setting.key === name);
  const target = shared || !plain || sharing.length > 1 ? key : name;
  return [
    {
      ...given,
      path: base,
      kind: 'edit',
      edits: setXcconfig(document.text, target, value, document.lineEnd),
    },
  ];
}

/** Whether a base file is made by an install of pods, so that what is written into it is lost. */
function isInstalled(path: string): boolean {
  return /(^|\/)Pods\//.test(path) || /^Pods-.*\.xcconfig$/.test(baseOf(path));
}

/** Where Syndexa's own base file of a configuration lies. */
export function ownFile({ model }: Pick<IosWireContext, 'model'>, configuration: string): string {
  const { folder } = model.project;
  const name = `${model.target.name}.${configuration}.xcconfig`.replace(/[^\w.+-]/g, '-');
  return `${folder ? `${folder}/` : ''}${ownFolder}/${name}`;
}

/** The first lines of a base file of Syndexa's own: it takes in the one that stood there before. */
function ownFileHead(context: Pick<IosWireContext, 'model'>, base: string): string[] {
  const home = folderOf(ownFile(context, ''));
  return ['// Base configuration file, written by Syndexa.', `#include? "${pathFrom(home, base)}"`];
}

/** Puts a line into a new base file that includes the installed one, and makes it the configuration's base. */
function inOwnFile(context: IosWireContext, variant: StagedVariant, line: string, given: Given): Change[] {
  const { tree, model } = context;
  const { own } = variant.scope;
  const { path: project, objects } = model.project;
  const document = tree.text(project);
  const reference = entryOf(own.value, 'baseConfigurationReference')?.value;
  const group = mainGroup(model.project);
  if (!document || !reference || own.base === null || !group) return [];
  const { text, lineEnd } = document;
  const path = ownFile(context, own.name);
  const id = objectId(`configuration ${model.target.id} ${own.name}`);
  const name = baseOf(path);
  const relative = referenceIn(model.project, group, path);
  const child = addToList(text, group, 'children', labelled(id, name), lineEnd);
  // The comment behind a reference names the file, so it goes with the reference.
  const behind = /^ \/\*[^*\n]*\*\//.exec(text.slice(reference.end, reference.end + 300))?.[0].length ?? 0;
  const edits: Edit[] = [
    ...addObject(text, objects, 'PBXFileReference', fileReference(id, relative, 'text.xcconfig'), lineEnd),
    ...(child ? [child] : []),
    { start: reference.start, end: reference.end + behind, text: labelled(id, name) },
  ];
  const head = ownFileHead(context, own.base);
  return [
    { ...given, path, kind: 'create', content: { head, lines: [line], tail: [] } },
    { ...given, path: project, kind: 'edit', edits },
  ];
}
