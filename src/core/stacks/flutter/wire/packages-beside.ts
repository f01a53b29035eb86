import type { Tree } from '../../../tree/tree.js';
import { ownPackages, type OwnPackage } from '../../common/own-packages.js';
import { localPackages } from '../survey/local-packages.js';
import { below, type FlutterProject } from '../survey/project.js';

/** The packages that an application is made of, its own first; what others import is in `lib`. */
export function packagesOf(tree: Tree, { root, pubspec }: FlutterProject): OwnPackage[] {
  const codeOf = (folder: string) => below(folder, 'lib');
  return ownPackages(
    { root, name: pubspec.name, code: codeOf(root) },
    localPackages(tree, root).map((one) => ({
      root: one.root,
      name: one.pubspec.name,
      code: codeOf(one.root),
      uses: one.uses,
    })),
  );
}
