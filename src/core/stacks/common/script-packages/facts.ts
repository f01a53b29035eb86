import { lockFiles, lockReader, type LockedPackage } from '../../../formats/package-json/locks.js';
import { isVersionRange, type PackageDependency } from '../../../formats/package-json/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import {
  frameworkFact,
  inEditions,
  packageFacts,
  type LockState,
  type SharedFact,
} from '../package-facts.js';
import { overrideFacts } from './overrides.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { below, packagesOf } from './packages.js';
import { type ReactNativeProject } from './project.js';

type Asked = PackageDependency & { path: string };

/** Packages of networks that a `package.json` declares, with what the locks hold, and the version of the framework. */
export function packageJsonFacts(
  tree: Tree,
  project: ReactNativeProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
  stack: string,
): Fact[] {
  const { root, path, manifest } = project;
  const document = tree.text(path);
  const locks = locksOf(tree, root);
  const stateOf = (asked: Asked) => locks.map((lock) => lockState(tree, root, lock, asked));
  const found = profiles.flatMap((profile) => {
    const wanted = packageFor(profile, stack)?.package;
    const asking = manifest.dependencies.filter(({ name, section }) => {
      return name === wanted && section !== 'devDependencies' && section !== 'peerDependencies';
    });
    const forced = wanted === undefined ? [] : overridesFor(tree, root, wanted, profile.id);
    const asked = asking.flatMap((asked) =>
      packageFacts({
        network: profile.id,
        name: asked.name,
        value: asked.version,
        place: placeAt(path, document, asked),
        manifest: 'package.json',
        locks: !isVersionRange(asked.version)
          ? []
          : locks.length > 0
            ? stateOf({ ...asked, path })
            : [{ lock: 'lock file', exists: false, held: undefined }],
      }),
    );
    return [...asked, ...forced];
  });
  const framework = manifest.dependencies.find(
    ({ name, section }) => name === 'react-native' && section === 'dependencies',
  );
  if (framework) {
    const held = stateOf({ ...framework, path }).find((state) => state.held)?.held;
    const place = held?.place ?? placeAt(path, document, framework);
    const what = held ? baseOf(place.path) : 'package.json';
    found.push(frameworkFact('React Native', held?.version ?? framework.version, place, what));
  }
  return inEditions(found, editions);
}

/** What forces a version for a folder: its own `package.json`, and that of the workspace around it. */
function overridesFor(tree: Tree, root: string, packageName: string, network: string): SharedFact[] {
  const folders = [
    root,
    ...[...packagesOf(tree).keys()].filter((one) => one !== root && isWithin(root, one)),
  ];
  return folders.flatMap((folder) =>
    overrideFacts(tree, below(folder, 'package.json'), packageName, network),
  );
}

/** The lock files that hold for a folder: those in it, or in the nearest folder above that has any. */
export function locksOf(tree: Tree, root: string): string[] {
  for (let folder = root; ; folder = folderOf(folder)) {
    const found = Object.keys(lockFiles)
      .map((name) => below(folder, name))
      .filter((path) => tree.has(path));
    // A parent folder counts only if it is a package that contains this one.
    if (found.length > 0 && (folder === root || packagesOf(tree).has(folder))) return found;
    if (folder === '') return [];
  }
}

function lockState(tree: Tree, root: string, path: string, asked: Asked): LockState {
  const reader = lockReader(path);
  const lock = reader && tree.read(path, reader);
  const all = lock?.packages.filter(({ name }) => name === asked.name) ?? [];
  const above = folderOf(path);
  const own = above === '' ? root : root.slice(above.length + 1);
  const held = all.find((one) => isHeldFor(one, own, asked.version));
  const place = held && placeAt(path, tree.text(path), held);
  return {
    lock: baseOf(path),
    exists: true,
    held: held && place ? { version: held.version, place } : undefined,
  };
}

/** Whether an entry of a lock is what a folder gets for a range; entries of other folders and ranges are not. */
function isHeldFor({ of, asked }: LockedPackage, folder: string, range: string): boolean {
  if (of !== undefined && of !== folder) return false;
  return asked.length === 0 || asked.includes(range);
}
