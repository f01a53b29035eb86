import { valueAt } from '../../../text/own-values.js';
import { addPackage, removePackage, setPackageVersion } from '../../../formats/package-json/edit.js';
import { lockFiles } from '../../../formats/package-json/locks.js';
import { isVersionRange, readPackageJson, type PackageJson } from '../../../formats/package-json/read.js';
import type { Platform } from '../../../words/words.js';
import type { TextDocument } from '../../../text/document.js';
import { Draft } from '../../../text/draft.js';
import type { Edit } from '../../../text/edit.js';
import { packageFor } from '../../../network/for-stack.js';
import { baseOf } from '../../../text/paths.js';
import { inFormOf, sharedForm } from '../../../text/version-forms.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { alsoFor, beginsBelow, platformOf, packageRemoval } from '../joint-wiring.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { locksOf } from './facts.js';
import type { ReactNativeProject } from './project.js';

const rules = ['build/dependency-missing', 'build/dependency-too-old'];

/** Packages that templates pin, whatever form the others have. */
const frameworks = /^(?:react|react-dom|react-native|expo|expo-.*|@expo\/.*)$/;

/** How a stack asks for packages. */
interface PackageOptions {
  stack: string;
  /** What has to be done once the manifest declares another version. */
  todo: string;
  /** How the manifest declares a version; in the form of its others where it does not say. */
  rangeOf?: (version: string) => string;
}

/** The packages of networks in `package.json`: added, or raised where they are older than what a profile describes. */
export function wirePackageJson(
  tree: Tree,
  { path, manifest }: Pick<ReactNativeProject, 'path' | 'manifest'>,
  context: WireContext,
  { stack, todo, rangeOf }: PackageOptions,
): StackWiring {
  const shared = formOf(manifest);
  const document = tree.text(path);
  if (!document) return { changes: [], byHand: [] };
  const change = (platform: Platform, network: string | null, edits: Edit[]): Change[] =>
    edits.length === 0
      ? []
      : [
          {
            path,
            topic: 'dependency',
            rules,
            platform,
            also: alsoFor(context, platform),
            network,
            kind: 'edit',
            edits,
          },
        ];
  const raised = (before: string, version: string) => rangeOf?.(version) ?? inFormOf(before, version);
  const added: AddedPackage[] = [];
  const changes: Change[] = [];
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, stack);
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const range = rangeOf?.(wanted.version) ?? `${shared}${wanted.version}`;
    const existing = manifest.dependencies.find(
      ({ name, section }) => name === wanted.package && section === 'dependencies',
    );
    if (!existing) added.push({ name: wanted.package, range, platform, network: profile.id });
    else if (isVersionRange(existing.version) && beginsBelow(existing.version, wanted.version))
      changes.push(
        ...change(
          platform,
          profile.id,
          setPackageVersion(existing, raised(existing.version, wanted.version)),
        ),
      );
  }
  for (const { platform, network, edits } of additions(document, manifest, added))
    changes.push(...change(platform, network, edits));
  if (changes.length === 0) return { changes, byHand: [] };
  const asking = new Set([...changes, ...added].flatMap(({ network }) => network ?? []));
  const byHand = [...asking].map((network): ByHand => ({
    platform: null,
    network,
    rule: null,
    what: todo,
    why: `${baseOf(path)} only declares a version range. The lock file decides which version is built.`,
    where: path,
  }));
  return { changes, byHand };
}

/** How the versions of a manifest's own dependencies are written. */
function formOf(manifest: ReactNativeProject['manifest']): string {
  return sharedForm(
    manifest.dependencies
      .filter(({ name, section }) => section === 'dependencies' && !frameworks.test(name))
      .map(({ version }) => version),
  );
}

/** A package that a manifest lacks. */
interface AddedPackage {
  name: string;
  range: string;
  platform: Platform;
  network: string;
}

/** The edits that add packages, one by one. Into an empty list they can only go together: each after the last. */
function additions(
  { text, lineEnd }: TextDocument,
  manifest: PackageJson,
  added: readonly AddedPackage[],
): { platform: Platform; network: string | null; edits: Edit[] }[] {
  const isEmpty = !manifest.dependencies.some(({ section }) => section === 'dependencies');
  const [first, second] = added;
  if (!isEmpty || !first || !second)
    return added.map(({ platform, network, ...one }) => ({
      platform,
      network,
      edits: addPackage(text, manifest, { ...one, lineEnd }),
    }));
  const draft = new Draft(text);
  for (const one of added)
    draft.apply(addPackage(draft.text, readPackageJson(draft.text), { ...one, lineEnd }));
  return [{ platform: first.platform, network: null, edits: draft.edits }];
}

/** The package of a removed network. */
export function unwirePackageJson(
  { path, manifest }: Pick<ReactNativeProject, 'path' | 'manifest'>,
  context: UnwireContext,
  stack: string,
): Change[] {
  const wanted = packageFor(context.network, stack);
  return manifest.dependencies
    .filter(({ name, section }) => name === wanted?.package && section === 'dependencies')
    .map((dependency) => packageRemoval(context, path, removePackage(manifest, dependency)));
}

/** The command that writes the lock of a project. */
export function installOf(tree: Tree, root: string): string {
  const [lock] = locksOf(tree, root);
  return (lock === undefined ? undefined : valueAt(lockFiles, baseOf(lock))?.install) ?? 'npm install';
}
