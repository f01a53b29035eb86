import { packageFor } from '../../../network/for-stack.js';
import { readPubspecLock } from '../../../formats/pubspec/lock.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { Place } from '../../../facts/evidence.js';
import type { PubDependency } from '../../../formats/pubspec/read.js';
import {
  frameworkFact,
  inEditions,
  packageFacts,
  type LockState,
  type SharedFact,
} from '../../common/package-facts.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { localPackages, workspaceOf } from './local-packages.js';
import { below, type FlutterProject } from './project.js';

/** Packages of networks that a pubspec declares, with what its lock holds, and the range of Dart SDKs. */
export function pubspecFacts(
  tree: Tree,
  { root, path, pubspec }: FlutterProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const document = tree.text(path);
  const beside = localPackages(tree, root);
  const found = profiles.flatMap((profile) => {
    const wanted = packageFor(profile, 'flutter');
    const brought = beside.flatMap((one) =>
      one.pubspec.dependencies
        .filter(({ name, section }) => name === wanted?.package && section === 'dependencies')
        .map((asked) => ({ asked, path: one.path })),
    );
    const named = pubspec.dependencies.filter(({ name }) => name === wanted?.package);
    const declared = named.filter(({ section }) => section === 'dependencies');
    const overrides = named.filter(({ section }) => section === 'dependency_overrides');
    const asking = declared.length > 0 ? declared : overrides;
    const apart = named.filter((one) => !asking.includes(one));
    return [
      ...apart.map((one) => sectionFact(profile.id, one, placeAt(path, document, one))),
      ...[...asking.map((asked) => ({ asked, path })), ...brought].flatMap(({ asked, path: at }) =>
        packageFacts({
          network: profile.id,
          name: asked.name,
          value: asked.version ?? asked.from,
          place: placeAt(at, tree.text(at), asked),
          manifest: 'pubspec.yaml',
          locks: asked.version === null ? [] : [lockState(tree, root, asked.name)],
        }),
      ),
    ];
  });
  const { sdk } = pubspec;
  if (sdk) {
    const place = placeAt(path, document, sdk);
    found.push(frameworkFact('Dart SDK', sdk.range, place, 'environment of pubspec.yaml'));
  }
  return inEditions(found, editions);
}

/** A package in a section that is not the app's own: for development alone, or over what is declared. */
function sectionFact(
  network: string,
  { name, version, from, section }: PubDependency,
  place: Place,
): SharedFact {
  const said = version ?? from;
  const chain = [{ what: section, value: `${name}: ${said}`, place }];
  const base = { network, name, effective: true as const, place, chain };
  return section === 'dependency_overrides'
    ? { ...base, kind: 'forced-version', value: said.replace(/^[\^=]+/, ''), by: section }
    : { ...base, kind: 'narrow-dependency', value: section };
}

function lockState(tree: Tree, root: string, name: string): LockState {
  const path = below(workspaceOf(tree, root).root, 'pubspec.lock');
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
