import type { Tree } from '../../../tree/tree.js';
import { setUnityValue } from '../../../formats/unity-yaml/edit.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Change } from '../../../edits/model.js';
import { androidNamespace } from '../../common/manifest/namespaces.js';
import { removeAttribute } from '../../../formats/xml/edit.js';
import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { manifestRemovals } from '../../common/manifest/removals.js';
import { profileFor } from '../../../network/for-stack.js';
import { titleEditions, unwireSharedPlacebook } from '../../common/joint-wiring.js';
import { unwireLibraries } from '../../common/library-file.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { customManifest, existingTemplates } from '../survey/android-files.js';
import { unityAt, type UnityProject } from '../survey/project.js';
import { existingPlacebook, wirePlacebook } from '../wire/placebook.js';
import { unwireAssets, unwireSymbols } from '../wire/settings.js';
import { unwireSteps } from '../wire/steps.js';
import { unwireUnityPackages } from '../wire/packages.js';

/** Computes the edits that take a network out of a Unity project. */
export function unwireUnity(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const project = unityAt(tree, root);
  if (!project) return { changes: [], byHand: [] };
  const network = profileFor(context.network, 'unity');
  const packages = unwireUnityPackages(tree, project, context);
  const changes = [
    ...packages.changes,
    ...unwireSymbols(tree, project, context),
    ...unwireSwitches(tree, project, context),
    ...unwireAssets(tree, project, context),
    ...unwireSteps(tree, project, { ...context, title: context.rest }),
    ...manifestRemovals({ ...context, network, tree }, customManifest(project)),
    ...unwireApplicationClass(tree, customManifest(project), context),
    ...unwireLibraries(context),
    ...unwireSharedPlacebook(context, existingPlacebook(tree, project), (rest) =>
      wirePlacebook(tree, project, rest),
    ),
  ];
  return { changes: withMeta(tree, changes), byHand: packages.byHand };
}

/** The editor keeps a file of its own beside each one, which goes with it. */
function withMeta(tree: Tree, changes: readonly Change[]): Change[] {
  return changes.flatMap((change) => {
    const path = `${change.path}.meta`;
    return change.kind === 'remove' && tree.has(path) ? [change, { ...change, path }] : [change];
  });
}

/** The application class of the network, out of the manifest of the project. */
function unwireApplicationClass(tree: Tree, path: string, { network }: UnwireContext): Change[] {
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const name = application && attribute(application, `${prefixOf(root, androidNamespace, 'android')}:name`);
  if (!name || name.value !== network.android?.application?.class) return [];
  const text = tree.text(path)?.text ?? '';
  const edits = [removeAttribute(text, name)];
  return [
    { path, platform: 'android', network: network.id, topic: 'application', rules: [], kind: 'edit', edits },
  ];
}

/** Switches that wiring threw go back when the last network of Android goes. */
function unwireSwitches(tree: Tree, project: UnityProject, context: UnwireContext): Change[] {
  const document = tree.text(project.path);
  const { added, rest, allProfiles, network } = context;
  const needed = titleEditions(context).some(
    ({ platform }) => platform === 'android' && allProfiles.some(({ id }) => isEnrolled(rest, id, platform)),
  );
  if (!document || needed) return [];
  return existingTemplates(tree, project).flatMap(({ name, node }): Change[] =>
    node?.value === '1' && added.has(`switch ${name}`)
      ? [
          {
            path: project.path,
            platform: 'android',
            network: network.id,
            topic: 'switches',
            rules: [],
            kind: 'edit',
            edits: setUnityValue(document.text, node, '0'),
          },
        ]
      : [],
  );
}
