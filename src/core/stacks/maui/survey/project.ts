import { platformIn } from '../../../formats/msbuild/conditions.js';
import type { Platform } from '../../../words/words.js';
import { compareVersions } from '../../../text/versions.js';
import { baseOf, folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';
import { entriesOf, evaluateProject } from './evaluate.js';

/** A .NET MAUI application: its project file, target platforms and configurations. */
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
export const isMade = (path: string): boolean => /(^|\/)(bin|obj)\//.test(path);

export function projectFiles(tree: Tree): string[] {
  return tree.once('maui project files', () =>
    tree.paths.filter((path) => path.endsWith('.csproj') && !isMade(path)),
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
  const named = evaluated
    .property('Configurations')
    ?.value?.split(';')
    .map((one) => one.trim())
    .filter(Boolean);
  return {
    root: folderOf(path),
    path,
    name,
    namespace: namespaceOf(tree, path),
    frameworks,
    configurations: named && named.length > 0 ? named : ['Debug', 'Release'],
  };
}

/** The namespace that the code of a project begins with. */
export function namespaceOf(tree: Tree, path: string): string {
  const given = evaluateProject(tree, path, { Configuration: 'Release' }).property('RootNamespace')?.value;
  return (given ?? baseOf(path).replace(/\.csproj$/, '')).replace(/[^\w.]/g, '_');
}

/** The newest framework of each platform that a project names, under whatever condition, itself or by a property. */
export function frameworksOf(tree: Tree, path: string): MauiProject['frameworks'] {
  const entries = entriesOf(tree, path).filter((entry) => entry.is === 'property');
  const valuesOf = (name: string): string[] =>
    entries.flatMap((entry) => (entry.name.toLowerCase() === name.toLowerCase() ? [entry.value] : []));
  const named = new Set(['TargetFramework', 'TargetFrameworks'].flatMap(valuesOf));
  // A list may be composed of others: all of their values count.
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

/** Where the files of one platform alone lie. */
export function platformFolder({ root }: Pick<MauiProject, 'root'>, platform: Platform): string {
  return below(root, platform === 'ios' ? 'Platforms/iOS' : 'Platforms/Android');
}
