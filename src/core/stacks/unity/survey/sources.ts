import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import { isDocument, type SharedDocument } from '../../common/documents.js';
import type { Platform } from '../../../words/words.js';
import { folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';
import type { UnityProject } from './project.js';

/** An assembly of the project's own: the folder of its definition, and where it is compiled. */
interface Assembly {
  folder: string;
  includes: readonly string[];
  excludes: readonly string[];
  isTest: boolean;
  /** Names that it defines itself when a package has some version. */
  defines: readonly string[];
}

/** Folders that Unity skips, or imports without compiling. */
const passedOver = /(^|\/)(\.[^/]*|[^/]*~|cvs|StreamingAssets)\//;
const inEditor = /(^|\/)Editor\//;

const unityPlatforms: Readonly<Record<Platform, string>> = { android: 'Android', ios: 'iOS' };

function assembliesOf(tree: Tree, { root }: UnityProject): Assembly[] {
  return tree.once(`unity assemblies of ${root}`, () => {
    const paths = tree.paths.filter((path) => path.endsWith('.asmdef') && isWithin(path, root));
    return paths
      .flatMap((path): Assembly[] => {
        const json = tree.read(path, readJson)?.root ?? null;
        const list = (...way: string[]) =>
          nodesAt(json, way).flatMap((node) => (node.type === 'string' ? [String(jsonValue(node))] : []));
        const constraints = list('defineConstraints', '*');
        return [
          {
            folder: folderOf(path),
            includes: list('includePlatforms', '*'),
            excludes: list('excludePlatforms', '*'),
            isTest: constraints.includes('UNITY_INCLUDE_TESTS'),
            defines: list('versionDefines', '*', 'define'),
          },
        ];
      })
      .sort((a, b) => b.folder.length - a.folder.length);
  });
}

/** The C# of a project that Unity compiles at all: below `Assets`, and in packages that are in the project. */
export function csharpFiles(tree: Tree, project: UnityProject): string[] {
  const homes = ['Assets', 'Packages'].map((name) => below(project.root, name));
  return tree.paths.filter(
    (path) => path.endsWith('.cs') && !passedOver.test(path) && homes.some((home) => isWithin(path, home)),
  );
}

const serialised = /\.(asset|prefab|unity)$/;

/** The documents that a player may carry: those in folders that it packs whole, and assets that something may refer to. */
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
  const assembly = assembliesOf(tree, project).find(({ folder }) => isWithin(path, folder));
  if (assembly) return assembly.includes.length > 0 && assembly.includes.every((name) => name === 'Editor');
  return inEditor.test(path.slice(project.root.length));
}

/** Whether a player for a platform holds what a file says. */
export function isInPlayer(tree: Tree, project: UnityProject): (path: string, platform: Platform) => boolean {
  const assemblies = assembliesOf(tree, project);
  return (path, platform) => {
    const assembly = assemblies.find(({ folder }) => isWithin(path, folder));
    if (!assembly) return !inEditor.test(path.slice(project.root.length));
    const name = unityPlatforms[platform];
    if (assembly.isTest || assembly.excludes.includes(name)) return false;
    return assembly.includes.length === 0 || assembly.includes.includes(name);
  };
}

/** Names that assemblies or compiler options define besides the symbols of the settings. */
export function furtherDefines(tree: Tree, project: UnityProject): { sure: Set<string>; open: Set<string> } {
  const options = tree.text(below(project.root, 'Assets/csc.rsp'))?.text ?? '';
  const given = [...options.matchAll(/^\s*[-/]d(?:efine)?:([\w;,]+)/gm)].flatMap(([, names = '']) =>
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
 * The scripting symbols of build profiles (Unity 6 manual, "Build profiles"). Which profile a build is made with is chosen
 * when it is made.
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

/** The folder that new code of the title belongs into: beside the code of its own assembly, where it has one. */
export function codeHome(tree: Tree, project: UnityProject, beside: readonly string[]): string {
  const assemblies = assembliesOf(tree, project).filter(
    ({ folder, includes, isTest }) =>
      !isTest && includes.length === 0 && isWithin(folder, below(project.root, 'Assets')),
  );
  const own = assemblies.find(({ folder }) => beside.some((path) => isWithin(path, folder)));
  return own?.folder ?? below(project.root, 'Assets');
}
