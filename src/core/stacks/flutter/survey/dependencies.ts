import { packageFor } from '../../../network/for-stack.js';
import { readPubspecLock } from '../../../formats/pubspec/lock.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { frameworkFact, inEditions, packageFacts, type LockState } from '../../common/package-facts.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { below, type FlutterProject } from './project.js';

/** Packages of networks that a pubspec declares, with what its lock holds, and the range of Dart SDKs. */
export function pubspecFacts(
  tree: Tree,
  { root, path, pubspec }: FlutterProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const document = tree.text(path);
  const found = profiles.flatMap((profile) => {
    const wanted = packageFor(profile, 'flutter');
    const asking = pubspec.dependencies.filter(({ name, section }) => {
      return name === wanted?.package && section !== 'dev_dependencies';
    });
    return asking.flatMap((asked) =>
      packageFacts({
        network: profile.id,
        name: asked.name,
        value: asked.version ?? asked.from,
        place: placeAt(path, document, asked),
        manifest: 'pubspec.yaml',
        locks: asked.version === null ? [] : [lockState(tree, root, asked.name)],
      }),
    );
  });
  const { sdk } = pubspec;
  if (sdk) {
    const place = placeAt(path, document, sdk);
    found.push(frameworkFact('Dart SDK', sdk.range, place, 'environment of pubspec.yaml'));
  }
  return inEditions(found, editions);
}

function lockState(tree: Tree, root: string, name: string): LockState {
  const path = below(root, 'pubspec.lock');
  const exists = tree.has(path);
  const held = exists
    ? tree.read(path, readPubspecLock)?.packages.find((one) => one.name === name)
    : undefined;
  const place = held && placeAt(path, tree.text(path), held);
  return {
    lock: 'pubspec.lock',
    exists,
    held: held && place ? { version: held.version, place } : undefined,
  };
}
