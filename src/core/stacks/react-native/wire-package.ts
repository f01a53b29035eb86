import { addPackage, removePackage, setPackageVersion } from '../../formats/package-json/edit.js';
import { lockFiles } from '../../formats/package-json/locks.js';
import { isVersionRange } from '../../formats/package-json/read.js';
import { packageFor } from '../../network/for-stack.js';
import { baseOf } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { alsoFor, beginsBelow, platformOf } from '../joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';
import { locksOf } from './dependencies.js';
import type { ReactNativeProject } from './project.js';

const rules = ['build/dependency-missing', 'build/dependency-too-old'];

/** The packages of networks in `package.json`: added, or raised where they are older than what a profile describes. */
export function wirePackageJson(
  tree: Tree,
  project: ReactNativeProject,
  context: WireContext,
  { stack, after }: { stack: string; after: string },
): StackWiring {
  const { path, manifest } = project;
  const document = tree.text(path);
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  if (!document) return { changes, byHand };
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, stack);
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const range = `^${wanted.version}`;
    const standing = manifest.dependencies.find(
      ({ name, section }) => name === wanted.package && section === 'dependencies',
    );
    const add = { name: wanted.package, range, lineEnd: document.lineEnd };
    const older =
      standing && isVersionRange(standing.version) && beginsBelow(standing.version, wanted.version);
    const edits = !standing
      ? addPackage(document.text, manifest, add)
      : older
        ? setPackageVersion(standing, range)
        : [];
    if (edits.length === 0) continue;
    changes.push({
      path,
      platform,
      also: alsoFor(context, platform),
      network: profile.id,
      topic: 'dependency',
      rules,
      edits,
    });
    byHand.push({
      platform: null,
      network: profile.id,
      rule: null,
      what: `Run ${installOf(tree, project.root)}, ${after}.`,
      why: 'package.json only asks for the package; which version is built stands in the lock.',
      where: path,
    });
  }
  return { changes, byHand };
}

/** The package of a network that is taken out. */
export function unwirePackageJson(
  { path, manifest }: ReactNativeProject,
  context: UnwireContext,
  stack: string,
): Change[] {
  const wanted = packageFor(context.network, stack);
  return manifest.dependencies
    .filter(({ name, section }) => name === wanted?.package && section === 'dependencies')
    .map((dependency): Change => ({
      path,
      platform: platformOf(context, context.network.id) ?? 'android',
      network: context.network.id,
      topic: 'dependency',
      rules: [],
      edits: removePackage(manifest, dependency),
    }));
}

/** The command that writes the lock of a project. */
function installOf(tree: Tree, root: string): string {
  const [lock] = locksOf(tree, root);
  return (lock === undefined ? undefined : lockFiles[baseOf(lock)]?.install) ?? 'npm install';
}
