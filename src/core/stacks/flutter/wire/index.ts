import type { Tree } from '../../../tree/tree.js';
import { joined } from '../../common/joined.js';
import { wireParts } from '../../common/native-parts.js';
import { isAnyEnrolled, sharedCallSites, startSteps } from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { below, projectAt, type FlutterProject } from '../survey/project.js';
import { ownerOf } from '../../common/own-packages.js';
import { packagesOf } from './packages-beside.js';
import { placebookPath, wirePlacebook } from './placebook.js';
import { wirePubspec } from './packages.js';

/** Computes the edits for a Flutter project: its native trees, its pubspec, its placebook. */
export function wireFlutter(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  return joined([
    wireParts(tree, project.parts, 'flutter', context),
    wirePubspec(tree, project, context),
    wirePlacebook(tree, project, context),
    wireCallSites(tree, project, context),
    wireStart(project, context),
  ]);
}

/** IDs in Dart become references to the placebook: only on request. */
function wireCallSites(tree: Tree, project: FlutterProject, context: WireContext): StackWiring {
  const packages = packagesOf(tree, project);
  const book = placebookPath(tree, project, context);
  const home = ownerOf(packages, book);
  if (home?.name === undefined) return { changes: [], byHand: [] };
  const inside = book.slice(below(home.root, 'lib/').length);
  const canRefer = (path: string) => ownerOf(packages, path)?.reaches.has(home.root) === true;
  const how = { languages: ['dart'], packageName: `package:${home.name}/${inside}`, canRefer } as const;
  return { changes: sharedCallSites(tree, context, how), byHand: [] };
}

/** Where the start-up calls go that no code makes yet. */
function wireStart({ root }: FlutterProject, context: WireContext): StackWiring {
  const byHand = startSteps(context, {
    language: 'dart',
    at: 'before-run',
    where: below(root, 'lib/main.dart'),
    say: (example) =>
      `In main(), after WidgetsFlutterBinding.ensureInitialized() and before runApp: ${example}`,
  });
  return { changes: [], byHand };
}
