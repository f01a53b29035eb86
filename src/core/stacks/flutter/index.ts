import { folderOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { Recognition, Stack } from '../stack.js';
import { declaredInPubspec } from './declared.js';
import { below, projectAt, projectRoots, type FlutterProject } from './project.js';
import { surveyFlutter } from './survey.js';
import { unwireFlutter } from './unwire.js';
import { wireFlutter } from './wire.js';
import { readPubspec } from '../../formats/pubspec/read.js';

/** Flutter: a pubspec that depends on the Flutter SDK, with native trees beside it. */
export const flutter: Stack = {
  id: 'flutter',
  name: 'Flutter',
  collect: [
    { name: 'pubspec.yaml' },
    { name: 'pubspec.lock' },
    { name: 'placebook.dart' },
    { suffix: '.dart', needle: true },
  ],
  // Where the application begins, which networks are started in.
  writes: ['dart', 'kotlin', 'java', 'swift', 'objective-c'],
  needles: ['runApp('],
  folders: [],
  recognise(tree) {
    return projectRoots(tree).flatMap((root) => {
      const project = projectAt(tree, root);
      return project ? (recognition(tree, project) ?? []) : [];
    });
  },
  survey: surveyFlutter,
  wire: wireFlutter,
  unwire: unwireFlutter,
  declared: declaredInPubspec,
};

function recognition(tree: Tree, { root, path, pubspec, parts }: FlutterProject): Recognition | undefined {
  const roots = parts.map((part) => part.root);
  if (parts.length === 0) return undefined;
  const evidence = [`${path} depends on the Flutter SDK`, ...parts.flatMap((part) => part.evidence)];
  const above = exampleOf(tree, root);
  if (above !== undefined)
    return { root, evidence, parts: roots, passedOver: `it is the example that ${above} brings along` };
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
