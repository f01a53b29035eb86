import { needsPlacebook, placebookProfiles } from '../../placebook/contents.js';
import type { Tree } from '../../tree/tree.js';
import type { Change } from '../../wiring/model.js';
import { joined, unwireParts } from '../native-parts.js';
import type { StackWiring, UnwireContext } from '../stack.js';
import { projectAt, type FlutterProject } from './project.js';
import { standingPlacebook, titleEditions, wirePlacebook } from './wire-placebook.js';
import { unwirePubspec } from './wire-pubspec.js';

/** Works out the edits that take a network out of a Flutter project. */
export function unwireFlutter(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = projectAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  return joined([
    unwireParts(tree, project.parts, 'flutter', context),
    { changes: unwirePubspec(tree, project, context), byHand: [] },
    { changes: unwirePlacebook(tree, project, context), byHand: [] },
  ]);
}

/** The placebook without the network; none where nothing is left for it to say. */
function unwirePlacebook(tree: Tree, project: FlutterProject, context: UnwireContext): Change[] {
  const standing = standingPlacebook(tree, project.root);
  if (!standing) return [];
  const left = placebookProfiles(context.allProfiles, [], [standing.text]);
  const needed = titleEditions(context).some(({ platform }) => needsPlacebook(context.rest, left, platform));
  if (needed) return wirePlacebook(tree, project, { ...context, title: context.rest, profiles: [] }).changes;
  const { path } = standing;
  return [{ path, platform: 'android', network: null, topic: 'placebook', rules: [], remove: true }];
}
