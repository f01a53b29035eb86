import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import { folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { localPackages } from './local-packages.js';
import type { UnityProject } from './project.js';

/** An assembly of the project's own: the folder of its definition, and where it is compiled. */
export interface Assembly {
  name: string;
  /** The ID of its file, where that is known. */
  id: string | undefined;
  folder: string;
  includes: readonly string[];
  excludes: readonly string[];
  isTest: boolean;
  /** What must be defined for it to be compiled, each as the text of a condition. */
  constraints: readonly string[];
  /** Names that it defines itself when a package has some version. */
  defines: readonly string[];
  /** The assemblies that it refers to, by name or by the ID of their files. */
  references: readonly string[];
  /** Whether code outside of assemblies refers to it. */
  isReferenced: boolean;
}

/** A folder with the assembly that its scripts belong to. */
interface Home {
  folder: string;
  assembly: Assembly;
}

/** An assembly that is referred to by the ID of its file. */
const byId = /^GUID:([0-9a-f]+)$/i;

/** The assemblies that are defined in a project and in the packages beside it (Unity manual, "Assembly definitions"). */
export function assembliesOf(tree: Tree, project: UnityProject): readonly Assembly[] {
  return tree.once(`unity assemblies of ${project.root}`, () =>
    filesIn(tree, project, '.asmdef').map((path): Assembly => {
      const json = tree.read(path, readJson)?.root ?? null;
      const list = (...way: string[]) =>
        nodesAt(json, way).flatMap((node) => (node.type === 'string' ? [String(jsonValue(node))] : []));
      const [name = ''] = list('name');
      const constraints = list('defineConstraints', '*');
      const [auto] = nodesAt(json, ['autoReferenced']);
      return {
        name,
        id: /^guid:[ \t]*([0-9a-f]+)/m.exec(tree.text(`${path}.meta`)?.text ?? '')?.[1],
        folder: folderOf(path),
        includes: list('includePlatforms', '*'),
        excludes: list('excludePlatforms', '*'),
        isTest: constraints.includes('UNITY_INCLUDE_TESTS'),
        constraints,
        defines: list('versionDefines', '*', 'define'),
        references: list('references', '*'),
        isReferenced: auto?.value !== false,
      };
    }),
  );
}

function filesIn(tree: Tree, project: UnityProject, suffix: string): string[] {
  const homes = [project.root, ...localPackages(tree, project).map(({ root }) => root)];
  return tree.paths.filter((path) => path.endsWith(suffix) && homes.some((home) => isWithin(path, home)));
}

/** Whether a name, or an ID of a file, means an assembly. */
export function isMeant(given: string, { name, id }: Assembly): boolean {
  const asked = byId.exec(given)?.[1];
  return asked === undefined ? given === name : asked === id;
}

/** The assembly that a script belongs to: the nearest definition above it, or the one that the nearest folder names. */
export function assemblyOf(tree: Tree, project: UnityProject, path: string): Assembly | undefined {
  return homesOf(tree, project).find(({ folder }) => isWithin(path, folder))?.assembly;
}

function homesOf(tree: Tree, project: UnityProject): readonly Home[] {
  return tree.once(`unity folders of assemblies of ${project.root}`, () => {
    const assemblies = assembliesOf(tree, project);
    const own = assemblies.map((assembly) => ({ folder: assembly.folder, assembly }));
    const referring = filesIn(tree, project, '.asmref').flatMap((path): Home[] => {
      const [given] = nodesAt(tree.read(path, readJson)?.root ?? null, ['reference']);
      const target = assemblies.find((one) => isMeant(String(given?.value), one));
      return target ? [{ folder: folderOf(path), assembly: target }] : [];
    });
    return [...own, ...referring].sort((a, b) => b.folder.length - a.folder.length);
  });
}
