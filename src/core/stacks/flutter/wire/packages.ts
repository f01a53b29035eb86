import { addPubDependency, removePubDependency, setPubVersion } from '../../../formats/pubspec/edit.js';
import { packageFor } from '../../../network/for-stack.js';
import { inFormOf, sharedForm } from '../../../text/version-forms.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { alsoFor, beginsBelow, platformOf, packageRemoval } from '../../common/joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import type { PubDependency } from '../../../formats/pubspec/read.js';
import { localPackages } from '../survey/local-packages.js';
import type { FlutterProject } from '../survey/project.js';

const rules = ['build/dependency-missing', 'build/dependency-too-old'];

/** The packages of networks in the pubspec: added, or raised where they are older than what a profile describes. */
export function wirePubspec(tree: Tree, project: FlutterProject, context: WireContext): StackWiring {
  const { path, pubspec } = project;
  const document = tree.text(path);
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  if (!document) return { changes, byHand };
  const shared = sharedForm(
    pubspec.dependencies.flatMap(({ section, version }) =>
      section === 'dependencies' && version !== null ? [version] : [],
    ),
  );
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, 'flutter');
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const base = {
      path,
      platform,
      also: alsoFor(context, platform),
      network: profile.id,
      topic: 'dependency' as const,
      rules,
    };
    const range = `${shared}${wanted.version}`;
    const isWanted = ({ name, section }: PubDependency) =>
      name === wanted.package && section !== 'dev_dependencies';
    const own = pubspec.dependencies.filter(isWanted);
    const brought = localPackages(tree, project.root).find((one) => one.pubspec.dependencies.some(isWanted));
    // A package beside the app brings it: what that one asks for is for a person to raise.
    if (own.length === 0 && brought) continue;
    const [existing] = own;
    const add = { name: wanted.package, range, lineEnd: document.lineEnd };
    const older = own.find(({ version }) => version !== null && beginsBelow(version, wanted.version));
    const edits = !existing
      ? addPubDependency(document.text, pubspec, add)
      : older
        ? setPubVersion(older, inFormOf(older.version ?? '', wanted.version))
        : [];
    if (edits.length > 0) changes.push({ ...base, kind: 'edit', edits });
    if (edits.length > 0 || !existing)
      byHand.push({
        platform: null,
        network: profile.id,
        rule: edits.length > 0 ? null : 'build/dependency-missing',
        what:
          edits.length > 0
            ? 'Run flutter pub get, and commit the new pubspec.lock.'
            : `Add ${wanted.package}: ${range} to the dependencies in ${path}.`,
        why:
          edits.length > 0
            ? 'The pubspec only declares a version range. The lock file decides which version is built.'
            : 'The dependencies are written in a form that cannot be extended safely.',
        where: path,
      });
  }
  return { changes, byHand };
}

/** The package of a removed network: of the application, and of its local packages. */
export function unwirePubspec(tree: Tree, project: FlutterProject, context: UnwireContext): Change[] {
  const wanted = packageFor(context.network, 'flutter');
  if (!wanted) return [];
  return [project, ...localPackages(tree, project.root)].flatMap(({ path, pubspec }) => {
    const document = tree.text(path);
    if (!document) return [];
    return pubspec.dependencies
      .filter(({ name, section }) => name === wanted.package && section === 'dependencies')
      .map((one) => packageRemoval(context, path, [removePubDependency(document.text, one)]));
  });
}
