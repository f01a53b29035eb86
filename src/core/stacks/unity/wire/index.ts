import { setAttribute } from '../../../formats/xml/edit.js';
import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { androidNamespace } from '../../common/manifest/namespaces.js';
import type { ManifestWireContext } from '../../common/manifest/model.js';
import { wireLibraries } from '../../common/library-file.js';
import { below } from '../../common/script-packages/packages.js';
import { wireManifest } from '../../common/manifest/wire.js';
import { profileFor } from '../../../network/for-stack.js';
import { isAnyEnrolled, sharedCallSites, startSteps, titleEditions } from '../../common/joint-wiring.js';
import { wireLevels } from '../../common/levels.js';
import { joined } from '../../common/joined.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { customManifest } from '../survey/android-files.js';
import { unityAt, type UnityProject } from '../survey/project.js';
import { canReferTo, csharpFiles } from '../survey/sources.js';
import { placebookPath, wirePlacebook } from './placebook.js';
import { wireSteps } from './steps.js';
import { wireAssets, wireSymbols, wireTemplates } from './settings.js';
import { wireUnityPackages } from './packages.js';

/** Computes the edits for a Unity project: its packages, settings, assets, build steps and placebook. */
export function wireUnity(tree: Tree, root: string, context: WireContext): StackWiring {
  const project = unityAt(tree, root);
  if (!project || !isAnyEnrolled(context)) return { changes: [], byHand: [] };
  return joined([
    wireUnityPackages(tree, project, context),
    wireSymbols(tree, project, context),
    wireTemplates(tree, project, context),
    wireAssets(tree, project, context),
    wireSteps(tree, project, context),
    wireNativeAndroid(tree, project, context),
    ...titleEditions(context).map((edition) => wireLevels({ ...context, tree, edition })),
    wirePlacebook(tree, project, context),
    wireCode(tree, project, context),
  ]);
}

/** What networks without a package need on Android: in the manifest that a project keeps itself, and beside it. */
function wireNativeAndroid(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const edition = titleEditions(context).find(({ platform }) => platform === 'android');
  if (!edition) return { changes: [], byHand: [] };
  const manifest = customManifest(project);
  const profiles = context.profiles
    .filter(({ id }) => isEnrolled(context.title, id, 'android'))
    .map((profile) => profileFor(profile, 'unity'));
  const libraries = wireLibraries(
    { ...context, tree },
    profiles,
    below(project.root, 'Assets/Plugins/Android'),
  );
  const wiring = { ...context, profiles, tree, edition, manifest };
  const inManifest = tree.has(manifest)
    ? [wireManifest(wiring), wireApplicationClass(wiring)]
    : profiles.flatMap((profile) => manifestSteps(profile, manifest));
  return joined([...libraries, ...inManifest]);
}

/** The application class of a network, where the manifest of the project names none yet. */
function wireApplicationClass({ tree, manifest: path, profiles }: ManifestWireContext): StackWiring {
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const wanted = profiles.find(({ android }) => android?.application);
  const name = wanted?.android?.application?.class;
  const key = root ? `${prefixOf(root, androidNamespace, 'android')}:name` : undefined;
  if (!application || !wanted || name === undefined || key === undefined || attribute(application, key))
    return { changes: [], byHand: [] };
  const change: Change = {
    path,
    platform: 'android' as const,
    network: wanted.id,
    topic: 'application' as const,
    rules: ['manifest/application-class-missing'],
    kind: 'edit',
    edits: setAttribute(application, key, name, tree.text(path)?.text),
  };
  return { changes: [change], byHand: [] };
}

/** The editor writes a manifest that suits its version, so none is made here. */
function manifestSteps(profile: Profile, where: string): StackWiring[] {
  const { permissions = [], components = [], merge = [], application } = profile.android ?? {};
  const entries = profile.android?.['meta-data'] ?? [];
  if ([permissions, components, merge, entries].every((list) => list.length === 0) && !application) return [];
  const step: ByHand = {
    platform: 'android',
    network: profile.id,
    rule: 'manifest/permission-missing',
    what: 'Switch on Custom Main Manifest in the player settings, which creates the file, then wire again.',
    why: `${profile.name} has no package that would bring a manifest of its own.`,
    where,
  };
  return [{ changes: [], byHand: [step] }];
}

/** IDs in code become references to the placebook on request; start-up calls are left to a person. */
function wireCode(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const byHand = startSteps(context, {
    language: 'csharp',
    at: 'app-builder',
    where: firstScript(tree, project),
    say: (example) =>
      `In a method that runs once, before the first scene ([RuntimeInitializeOnLoadMethod(RuntimeInitializeLoadType.BeforeSceneLoad)]): ${example}`,
  });
  const canRefer = canReferTo(tree, project, placebookPath(tree, project, context));
  return { changes: sharedCallSites(tree, context, { languages: ['csharp'], canRefer }), byHand };
}

/** The script in which the game most likely begins. */
function firstScript(tree: Tree, project: UnityProject): string {
  const scripts = csharpFiles(tree, project);
  const usual = /\/(?:Game|App|Bootstrap|Main)(?:Manager|Controller|Entry)?\.cs$/;
  return scripts.find((path) => usual.test(path)) ?? scripts[0] ?? project.path;
}
