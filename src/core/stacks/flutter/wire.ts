import { isEnrolled } from '../../roster/expected.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand } from '../../wiring/model.js';
import { callSiteChanges } from '../call-sites.js';
import { joined, wireParts } from '../native-parts.js';
import type { StackWiring, WireContext } from '../stack.js';
import { below, dartFiles, projectAt, type FlutterProject } from './project.js';
import { standingPlacebook, titleEditions, wirePlacebook } from './wire-placebook.js';
import { wirePubspec } from './wire-pubspec.js';

/** Works out the edits for a Flutter project: its native trees, its pubspec, its placebook. */
export function wireFlutter(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = projectAt(tree, root);
  const editions = titleEditions(context);
  const { title, profiles } = context;
  const enrolled = editions.some(({ platform }) =>
    profiles.some(({ id }) => isEnrolled(title, id, platform)),
  );
  if (!project || !enrolled) return { changes: [], byHand: [] };
  return joined([
    wireParts(tree, project.parts, 'flutter', context),
    wirePubspec(tree, project, context),
    wirePlacebook(tree, project, context),
    wireCallSites(tree, project, context),
    { changes: [], byHand: startSteps(tree, project, context) },
  ]);
}

/** IDs in Dart become references to the placebook: only when that is asked for. */
function wireCallSites(tree: Tree, project: FlutterProject, context: WireContext): StackWiring {
  const { title, profiles, survey, extras } = context;
  const { name } = project.pubspec;
  if (!extras.callSites || name === undefined) return { changes: [], byHand: [] };
  const book = standingPlacebook(tree, project.root)?.path ?? below(project.root, 'lib/ads/placebook.dart');
  const inside = book.slice(below(project.root, 'lib/').length);
  const all = titleEditions(context).flatMap(({ platform, module }) =>
    callSiteChanges({
      tree,
      platform,
      module,
      facts: survey.facts,
      title,
      profiles,
      languages: ['dart'],
      packageName: `package:${name}/${inside}`,
    }),
  );
  // One place in shared code is a fact of both platforms, and is replaced once.
  return { changes: all, byHand: [] };
}

/** Where the start-up calls go that no code makes yet. */
function startSteps(tree: Tree, { root }: FlutterProject, context: WireContext): ByHand[] {
  const { title, survey, profiles } = context;
  const main = dartFiles(tree, root).find((path) => path === below(root, 'lib/main.dart'));
  return profiles.flatMap(({ id, name, code }): ByHand[] => {
    const start = code.dart?.start;
    const used = titleEditions(context).some(({ platform }) => isEnrolled(title, id, platform));
    const called = survey.facts.some(
      (fact) => fact.kind === 'call' && fact.network === id && fact.name === 'start',
    );
    if (!start || start.in !== 'before-run' || !used || called) return [];
    return [
      {
        platform: null,
        network: id,
        rule: 'code/never-started',
        what: `In main(), after WidgetsFlutterBinding.ensureInitialized() and before runApp: ${start.example}`,
        why: `${start.why} (${name})`,
        where: main ?? below(root, 'lib/main.dart'),
      },
    ];
  });
}
