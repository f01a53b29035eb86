import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { propertiesOf, type FoundPlist } from '../../common/plist/properties.js';
import { projectPaths, readProject } from './project.js';
import { type XcodeProject } from './model.js';
import { type AppTarget } from './model.js';
import { settingOf, type SettingsScope } from './settings.js';

/** One configuration of an application target, as facts and wiring name it. */
export interface IosVariant {
  name: string;
  scope: SettingsScope;
}

/** An application target with its variants. */
export interface TargetModel {
  project: XcodeProject;
  target: AppTarget;
  /** How facts name it: by its target, and by its project too where the targets of two have one name. */
  module: string;
  variants: IosVariant[];
}

/** The application targets of a project, each with a variant per configuration. */
function targetModels(tree: Tree, project: XcodeProject): TargetModel[] {
  const single = project.targets.length === 1;
  return project.targets.map((target) => ({
    project,
    target,
    module: target.name,
    variants: target.configurations.map(({ own, project: shared }) => ({
      name: single ? own.name : `${target.name} ${own.name}`,
      scope: { tree, project, target, own, shared },
    })),
  }));
}

/** Every application target of the projects that lie directly in a folder. */
export function targetsBelow(tree: Tree, root: string): TargetModel[] {
  const models = projectPaths(tree)
    .map((path) => readProject(tree, path))
    .filter((project): project is XcodeProject => project?.folder === root)
    .flatMap((project) => targetModels(tree, project));
  return models.map((model) => {
    const isShared = models.some((other) => other !== model && other.module === model.module);
    const project = baseOf(folderOf(model.project.path));
    return isShared ? { ...model, module: `${model.target.name} (${project})` } : model;
  });
}

/** The property list of a variant: its path in the tree, and its content. */
export function plistOf(tree: Tree, { scope }: IosVariant): FoundPlist | undefined {
  const setting = settingOf(scope, 'INFOPLIST_FILE');
  if (setting?.value == null || setting.value === '') return undefined;
  const relative = setting.value.replace(/^\/+/, '');
  const path = joinPath(scope.project.folder, relative);
  const document = path === null ? undefined : propertiesOf(tree, path);
  if (path === null || !document) return undefined;
  return { path, document, text: document.binary ? undefined : tree.text(path) };
}
