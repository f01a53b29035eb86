import { readPubspec, type Pubspec } from '../../../formats/pubspec/read.js';
import { isDocument, type SharedDocument } from '../../common/documents.js';
import { baseOf, folderOf, isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { nativeParts, type NativePart } from '../../common/native-parts.js';
import { localPackages } from './local-packages.js';

/** A Flutter application: its pubspec, and the native trees beside it. */
export interface FlutterProject {
  root: string;
  path: string;
  pubspec: Pubspec;
  parts: NativePart[];
}

export const below = (root: string, path: string): string => (root ? `${root}/${path}` : path);

/** The project in a folder; undefined where no pubspec there depends on Flutter. */
export function projectAt(tree: Tree, root: string): FlutterProject | undefined {
  return tree.once(`flutter project in ${root}`, () => {
    const path = below(root, 'pubspec.yaml');
    const pubspec = tree.read(path, readPubspec);
    if (!pubspec || !dependsOnFlutter(pubspec)) return undefined;
    const parts = nativeParts(tree, { android: below(root, 'android'), ios: below(root, 'ios') });
    return { root, path, pubspec, parts };
  });
}

/** Every folder with a pubspec that depends on Flutter. */
export function projectRoots(tree: Tree): string[] {
  return tree.paths
    .filter((path) => baseOf(path) === 'pubspec.yaml')
    .map(folderOf)
    .filter((root) => projectAt(tree, root) !== undefined);
}

function dependsOnFlutter({ dependencies }: Pubspec): boolean {
  return dependencies.some(({ name, from, section }) => {
    return name === 'flutter' && from === 'sdk' && section === 'dependencies';
  });
}

/** The documents among the assets of a project: files that it names, and those directly in folders that it names. */
export function packedDocuments(tree: Tree, { root, pubspec }: FlutterProject): SharedDocument[] {
  return pubspec.assets.flatMap(({ path, flavours }) => {
    const at = joinPath(root, path);
    const files = tree.paths.filter((each) =>
      path.endsWith('/') ? folderOf(each) === at && isDocument(each) : each === at,
    );
    return files.map((file) => ({ path: file, ...(flavours ? { flavours } : {}) }));
  });
}

/** The Dart files that an application compiles: what is in its `lib`, and in those of packages beside it. */
export function dartFiles(tree: Tree, root: string): string[] {
  const libs = [root, ...localPackages(tree, root).map((one) => one.root)].map((one) => below(one, 'lib'));
  return tree.paths.filter((path) => path.endsWith('.dart') && libs.some((lib) => isWithin(path, lib)));
}
