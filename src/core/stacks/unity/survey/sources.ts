import { evaluateCondition, type IsDefined } from '../../../syntax/preprocessor.js';
import { isDocument, type SharedDocument } from '../../common/documents.js';
import type { Platform } from '../../../words/words.js';
import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';
import { assembliesOf, assemblyOf, isMeant, type Assembly } from './assemblies.js';
import { localPackages } from './local-packages.js';
import type { UnityProject } from './project.js';

/** Folders that Unity skips, or imports without compiling. */
const passedOver = /(^|\/)(\.[^/]*|[^/]*~|cvs|StreamingAssets)\//;
const inEditor = /(^|\/)Editor\//;

const unityPlatforms: Readonly<Record<Platform, string>> = { android: 'Android', ios: 'iOS' };

/** The C# of a project that Unity compiles at all: below `Assets`, and in packages whose folders are in the tree. */
export function csharpFiles(tree: Tree, project: UnityProject): string[] {
  const homes = [
    ...['Assets', 'Packages'].map((name) => below(project.root, name)),
    ...localPackages(tree, project).map(({ root }) => root),
  ];
  return tree.paths.filter(
    (path) => path.endsWith('.cs') && !passedOver.test(path) && homes.some((home) => isWithin(path, home)),
  );
}

const serialised = /\.(asset|prefab|unity)$/;

/**
 * The documents that a player may carry: those in folders that it packs whole, and assets that something may refer to.
 */
export function packedDocuments(tree: Tree, { root }: UnityProject): SharedDocument[] {
  const assets = below(root, 'Assets');
  return tree.paths.flatMap((path): SharedDocument[] => {
    if (!isWithin(path, assets) || inEditor.test(path)) return [];
    const isWhole = /(^|\/)(Resources|StreamingAssets)\//.test(path.slice(assets.length));
    if (isWhole && (isDocument(path) || serialised.test(path) || path.endsWith('.bytes'))) return [{ path }];
    return serialised.test(path) ? [{ path, open: 'what refers to this asset is not known' }] : [];
  });
}

/** Whether a file is compiled for the editor alone (Unity manual, "Special folders", "Assembly definitions"). */
export function isEditorFile(tree: Tree, project: UnityProject, path: string): boolean {
  const assembly = assemblyOf(tree, project, path);
  if (assembly) return assembly.includes.length > 0 && assembly.includes.every((name) => name === 'Editor');
  return inEditor.test(path.slice(project.root.length));
}

/** Whether a player for a platform holds what a file says. Scripts of packages are compiled in assemblies only. */
export function isInPlayer(
  tree: Tree,
  project: UnityProject,
): (path: string, platform: Platform, isDefined: IsDefined | undefined) => boolean {
  const packages = localPackages(tree, project);
  return (path, platform, isDefined) => {
    const assembly = assemblyOf(tree, project, path);
    if (!assembly)
      return (
        !inEditor.test(path.slice(project.root.length)) && !packages.some(({ root }) => isWithin(path, root))
      );
    const name = unityPlatforms[platform];
    if (assembly.isTest || assembly.excludes.includes(name)) return false;
    if (assembly.includes.length > 0 && !assembly.includes.includes(name)) return false;
    return assembly.constraints.every(
      (one) => isDefined === undefined || evaluateCondition(one, isDefined) !== 'no',
    );
  };
}

/** Names that assemblies or compiler options define besides the symbols of the settings. */
export function furtherDefines(tree: Tree, project: UnityProject): { sure: Set<string>; open: Set<string> } {
  const options = tree.text(below(project.root, 'Assets/csc.rsp'))?.text ?? '';
  const given = [...options.matchAll(/^[ \t]*[-/]d(?:efine)?:([\w;,]+)/gm)].flatMap(([, names = '']) =>
    names.split(/[;,]/),
  );
  return {
    sure: new Set(given),
    open: new Set([
      ...assembliesOf(tree, project).flatMap(({ defines }) => defines),
      ...profileSymbols(tree, project),
    ]),
  };
}

/**
 * The scripting symbols of build profiles (Unity 6 manual, "Build profiles"). Which profile a build is made with is
 * chosen when it is made.
 */
function profileSymbols(tree: Tree, { root }: UnityProject): string[] {
  const profiles = tree.paths.filter(
    (path) => isWithin(path, below(root, 'Assets')) && /(^|\/)Build Profiles\/[^/]+\.asset$/.test(path),
  );
  return profiles.flatMap((path) => {
    const text = tree.text(path)?.text.slice(0, maxProfile) ?? '';
    const list = /^[ \t]*m_ScriptingDefines:[ \t]*\r?\n((?:[ \t]*- [^\r\n]*\r?\n?)*)/m.exec(text)?.[1] ?? '';
    return [...list.matchAll(/^[ \t]*- (\w+)[ \t]*\r?$/gm)].flatMap(([, name]) => name ?? []);
  });
}

/** The length up to which a build profile is read (characters). */
const maxProfile = 200_000;

/**
 * The folder for new code of the title, so that existing code can use it: the folder of the assembly that all of it is
 * in or refers to. Code outside of assemblies refers to every assembly by default.
 */
export function codeHome(tree: Tree, project: UnityProject, beside: readonly string[]): string {
  const assets = below(project.root, 'Assets');
  const homes = [assets, ...localPackages(tree, project).map(({ root }) => root)];
  const using = [...new Set(beside.map((path) => assemblyOf(tree, project, path)))];
  const candidates = assembliesOf(tree, project).filter(
    ({ folder, includes, constraints, isTest }) =>
      !isTest &&
      includes.length === 0 &&
      constraints.length === 0 &&
      homes.some((home) => isWithin(folder, home)),
  );
  if (using.every((one) => one === undefined)) return assets;
  const all = (to: Assembly) => using.every((from) => refersTo(from, to));
  const home =
    candidates.find((one) => using.includes(one) && all(one)) ??
    candidates.find(all) ??
    candidates.find((one) => using.includes(one) && isWithin(one.folder, assets));
  return home?.folder ?? assets;
}

/** Whether the code of a file can refer to what is in another. */
export function canReferTo(tree: Tree, project: UnityProject, book: string): (path: string) => boolean {
  const to = assemblyOf(tree, project, book);
  return (path) => {
    const from = assemblyOf(tree, project, path);
    return to ? refersTo(from, to) : from === undefined;
  };
}

function refersTo(from: Assembly | undefined, to: Assembly): boolean {
  return from === to || (from ? from.references.some((one) => isMeant(one, to)) : to.isReferenced);
}
