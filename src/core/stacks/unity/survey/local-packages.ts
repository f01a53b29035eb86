import { readPackageJson, type PackageJson } from '../../../formats/package-json/read.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';
import type { UnityProject } from './project.js';

/** A package whose folder is in the tree: its content is built like that of `Assets`. */
export interface LocalPackage {
  root: string;
  /** Its `package.json`. */
  path: string;
  manifest: PackageJson;
}

/**
 * The packages that are embedded in a project, and those that its manifest takes from a folder of the tree (Unity
 * manual, "Embedded dependencies", "Local folder or tarball paths").
 */
export function localPackages(tree: Tree, project: UnityProject): readonly LocalPackage[] {
  return tree.once(`unity packages beside ${project.root}`, () => {
    const home = below(project.root, 'Packages');
    const embedded = tree.paths.flatMap((path) =>
      path.endsWith('/package.json') && folderOf(folderOf(path)) === home ? [folderOf(path)] : [],
    );
    const named = (project.packages?.manifest.dependencies ?? []).flatMap(({ section, version }) => {
      const folder = section === 'dependencies' && /^file:(?!.*\.tgz$)(.+)$/.exec(version)?.[1];
      return folder ? (joinPath(home, folder.replace(/\\/g, '/').replace(/\/+$/, '')) ?? []) : [];
    });
    return [...new Set([...embedded, ...named])].flatMap((root): LocalPackage[] => {
      const path = below(root, 'package.json');
      const manifest = tree.has(path) ? tree.read(path, readPackageJson) : undefined;
      return manifest ? [{ root, path, manifest }] : [];
    });
  });
}
