import { profileFor } from '../../../network/for-stack.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand } from '../../../edits/model.js';
import { wireManifest } from '../../common/manifest/wire.js';
import { isAnyEnrolled, sharedCallSites, startSteps, titleEditions } from '../../common/joint-wiring.js';
import { wireLevels } from '../../common/levels.js';
import { joined } from '../../common/joined.js';
import { wireLibraries } from '../../common/library-file.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { manifestOf } from '../survey/android-facts.js';
import { filesOf } from '../survey/files.js';
import { mauiAt, platformFolder, type MauiProject } from '../survey/project.js';
import { wireAppIds } from './app-ids.js';
import { wireList } from './keys.js';
import { placebookHome, wirePlacebook } from './placebook.js';
import { wireMauiPackages } from './packages.js';
import { wireLinker } from './project.js';

/** Computes the edits for a .NET MAUI project: its project file, native files, feeds and placebook. */
export function wireMaui(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = mauiAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  return joined([
    wireMauiPackages(tree, project, context),
    wireAppIds(tree, project, context),
    wireMauiManifest(tree, project, context),
    ...wireLibraries({ ...context, tree }, context.profiles, `${platformFolder(project, 'android')}/libs`),
    wireList(tree, project, context),
    wireLinker(tree, project, context),
    ...titleEditions(context).map((edition) => wireLevels({ ...context, tree, edition })),
    wirePlacebook(tree, project, context),
    wireCode(tree, project, context),
  ]);
}

/** What networks need in the manifest. */
function wireMauiManifest(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const edition = titleEditions(context).find(({ platform }) => platform === 'android');
  const manifest = manifestOf(project);
  if (!edition || !tree.read(manifest, readXml)?.root) return { changes: [], byHand: [] };
  const profiles = context.profiles.map((profile) => profileFor(profile, 'maui'));
  const wiring = { ...context, profiles, tree, edition, manifest };
  return wireManifest(wiring);
}

/** IDs in C# become references to the placebook on request; the rest is left to a person. */
function wireCode(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const byHand = startSteps(context, {
    language: 'csharp',
    at: 'app-builder',
    where: filesOf(tree, project, 'MauiProgram.cs')[0] ?? below(project.root, 'MauiProgram.cs'),
    say: (example) =>
      `In CreateMauiApp, after MauiApp.CreateBuilder() and before builder.Build(): ${example}`,
  });
  const { namespace, canRefer } = placebookHome(tree, project, context);
  const how = { languages: ['csharp'], packageName: namespace, canRefer } as const;
  const changes = sharedCallSites(tree, context, how);
  return { changes, byHand: [...byHand, ...(context.extras.callSites ? markupSteps(context) : [])] };
}

/** Markup cannot call the placebook, which gives an ID for a network: the code behind it can. */
function markupSteps({ survey, profiles }: WireContext): ByHand[] {
  const places = survey.facts.filter(
    ({ kind, place, network }) =>
      kind === 'unit-id' && place.path.endsWith('.xaml') && profiles.some(({ id }) => id === network),
  );
  const seen = new Set<string>();
  return places.flatMap(({ network, value, place }): ByHand[] => {
    const where = `${place.path}:${place.line}`;
    if (seen.has(where)) return [];
    seen.add(where);
    return [
      {
        platform: null,
        network,
        rule: 'code/hard-coded-id',
        what: `Give the view a name, take ${value} out of the markup, and set it in the code behind from the placebook.`,
        why: 'Markup can choose by platform, but not by stage: its values are in every build.',
        where,
      },
    ];
  });
}
