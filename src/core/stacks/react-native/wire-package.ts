import { valueAt } from '../../text/own-values.js';
import { addPackage, removePackage, setPackageVersion } from '../../formats/package-json/edit.js';
import { lockFiles } from '../../formats/package-json/locks.js';
import { isVersionRange, readPackageJson } from '../../formats/package-json/read.js';
import type { Platform } from '../../words/words.js';
import { Draft } from '../../text/draft.js';
import { packageFor } from '../../network/for-stack.js';
import { baseOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../edits/model.js';
import { alsoFor, beginsBelow, platformOf } from '../joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';
import { locksOf } from './dependencies.js';
import type { ReactNativeProject } from './project.js';

const rules = ['build/dependency-missing', 'build/dependency-too-old'];

/** The packages of networks in `package.json`: added, or raised where they are older than what a profile describes. */
export function wirePackageJson(
  tree: Tree,
  { path, manifest }: Pick<ReactNativeProject, 'path' | 'manifest'>,
  context: WireContext,
  {
    stack,
    todo,
    rangeOf = (version) => `^${version}`,
  }: {
    stack: string;
    /** What has to be done once the manifest asks for another version. */
    todo: string;
    /** How the manifest asks for a version. */
    rangeOf?: (version: string) => string;
  },
): StackWiring {
  const document = tree.text(path);
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  if (!document) return { changes, byHand };
  const added: { name: string; range: string; platform: Platform; network: string }[] = [];
  const base = { path, topic: 'dependency' as const, rules };
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, stack);
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const range = rangeOf(wanted.version);
    const standing = manifest.dependencies.find(
      ({ name, section }) => name === wanted.package && section === 'dependencies',
    );
    const network = profile.id;
    if (!standing) added.push({ name: wanted.package, range, platform, network });
    else if (isVersionRange(standing.version) && beginsBelow(standing.version, wanted.version)) {
      const edits = setPackageVersion(standing, range);
      changes.push({ ...base, platform, also: alsoFor(context, platform), network, kind: 'edit', edits });
    }
  }
  const { text, lineEnd } = document;
  // Into a list that is empty they can only go together: each after the one before it.
  const isEmpty = !manifest.dependencies.some(({ section }) => section === 'dependencies');
  const [first, second] = added;
  if (isEmpty && first && second) {
    const draft = new Draft(text);
    for (const one of added)
      draft.apply(addPackage(draft.text, readPackageJson(draft.text), { ...one, lineEnd }));
    const { platform } = first;
    const { edits } = draft;
    if (edits.length > 0)
      changes.push({
        ...base,
        platform,
        also: alsoFor(context, platform),
        network: null,
        kind: 'edit',
        edits,
      });
  } else
    for (const { platform, network, ...one } of added) {
      const edits = addPackage(text, manifest, { ...one, lineEnd });
      if (edits.length > 0)
        changes.push({ ...base, platform, also: alsoFor(context, platform), network, kind: 'edit', edits });
    }
  const asking =
    changes.length === 0
      ? []
      : [...new Set([...changes.map(({ network }) => network), ...added.map(({ network }) => network)])];
  for (const network of asking)
    if (network !== null)
      byHand.push({
        platform: null,
        network,
        rule: null,
        what: todo,
        why: `${baseOf(path)} only asks for the package; which version is built stands in the lock.`,
        where: path,
      });
  return { changes, byHand };
}

/** The package of a network that is taken out. */
export function unwirePackageJson(
  { path, manifest }: Pick<ReactNativeProject, 'path' | 'manifest'>,
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
      kind: 'edit',
      edits: removePackage(manifest, dependency),
    }));
}

/** The command that writes the lock of a project. */
export function installOf(tree: Tree, root: string): string {
  const [lock] = locksOf(tree, root);
  return (lock === undefined ? undefined : valueAt(lockFiles, baseOf(lock))?.install) ?? 'npm install';
}
