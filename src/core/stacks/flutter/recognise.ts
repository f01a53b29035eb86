import { folderOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { Recognition } from '../stack.js';
import { below, projectAt, projectRoots, type FlutterProject } from './survey/project.js';
import { readPubspec } from '../../formats/pubspec/read.js';

/** The folders of Flutter applications. */
export function recogniseFlutter(tree: Tree): Recognition[] {
  return projectRoots(tree).flatMap((root) => {
    const project = projectAt(tree, root);
    return project ? (recognition(tree, project) ?? []) : [];
  });
}

function recognition(tree: Tree, { root, path, pubspec, parts }: FlutterProject): Recognition | undefined {
  const roots = parts.map((part) => part.root);
  if (parts.length === 0) return undefined;
  const evidence = [`${path} depends on the Flutter SDK`, ...parts.flatMap((part) => part.evidence)];
  const above = exampleOf(tree, root);
  if (above !== undefined)
    return { root, evidence, parts: roots, passedOver: `it is an example that belongs to ${above}` };
  if (pubspec.isPlugin)
    return { root, evidence, parts: roots, passedOver: `${path} describes a plugin, not an application` };
  return { root, evidence, parts: roots };
}

/** The package that a folder is the example of. */
function exampleOf(tree: Tree, root: string): string | undefined {
  if (!/(^|\/)example$/.test(root)) return undefined;
  const path = below(folderOf(root), 'pubspec.yaml');
  const above = tree.has(path) ? tree.read(path, readPubspec) : undefined;
  return above?.name === undefined ? undefined : path;
}
