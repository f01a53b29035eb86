import { packageFor } from '../../network/for-stack.js';
import { readPubspecLock } from '../../formats/pubspec/lock.js';
import type { Fact, SurveyEdition } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import type { Tree } from '../../tree/tree.js';
import type { SurveyContext } from '../stack.js';
import { below, type FlutterProject } from './project.js';

/** Packages of networks that a pubspec asks for, with what its lock holds, and the range of Dart SDKs. */
export function pubspecFacts(
  tree: Tree,
  { root, path, pubspec }: FlutterProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const lockPath = below(root, 'pubspec.lock');
  const lock = tree.has(lockPath) ? tree.read(lockPath, readPubspecLock) : undefined;
  const document = tree.text(path);
  const found: Omit<Fact, 'platform' | 'module' | 'variants'>[] = [];
  for (const profile of profiles) {
    const wanted = packageFor(profile, 'flutter');
    for (const asked of pubspec.dependencies) {
      if (asked.name !== wanted?.package || asked.section === 'dev_dependencies') continue;
      const place = placeAt(path, document, asked);
      const value = asked.version ?? asked.from;
      const step = { what: 'pubspec.yaml', value: `${asked.name} ${value}`.trim(), place };
      const base = { network: profile.id, name: asked.name, chain: [step] };
      found.push({ ...base, kind: 'dependency', value, place });
      if (asked.version === null) continue;
      const held = lock?.packages.find(({ name }) => name === asked.name);
      const lockPlace = held ? placeAt(lockPath, tree.text(lockPath), held) : place;
      found.push({
        ...base,
        kind: 'resolved-version',
        value: held?.version ?? '',
        standsIn: held ? 'pubspec.lock' : lock ? 'not in pubspec.lock' : 'no pubspec.lock',
        place: lockPlace,
        chain: held ? [step, { what: 'pubspec.lock', value: held.version, place: lockPlace }] : [step],
      });
    }
  }
  const { sdk } = pubspec;
  if (sdk) {
    const place = placeAt(path, document, sdk);
    const chain = [{ what: 'environment of pubspec.yaml', value: sdk.range, place }];
    found.push({ kind: 'framework', network: null, name: 'Dart SDK', value: sdk.range, place, chain });
  }
  return editions.flatMap(({ platform, module, variants }) =>
    found.map((fact): Fact => ({
      ...fact,
      platform,
      module,
      variants: variants.map(({ name }) => name),
    })),
  );
}
